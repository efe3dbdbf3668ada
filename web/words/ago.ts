import { type FormatDistanceToNowStrictOptions, formatDistanceToNowStrict as distanceIn } from 'date-fns';
import { inLocale } from './locale.ts';

/** "3 days". */
export function formatDistanceToNowStrict(date: Date | number, options: FormatDistanceToNowStrictOptions = {}): string {
  return distanceIn(date, { ...options, ...inLocale() });
}
