import { type FormatDistanceToNowStrictOptions, formatDistanceToNowStrict as distanceIn } from 'date-fns';
import { localeNow } from './locale.ts';

/** "3 days". */
export function formatDistanceToNowStrict(date: Date | number, options: FormatDistanceToNowStrictOptions = {}): string {
  const locale = localeNow();
  return distanceIn(date, { ...options, ...(locale ? { locale } : {}) });
}
