import { format as formatIn } from 'date-fns';
import { currentLanguage } from '../../core/words/say.ts';
import { inLocale } from './locale.ts';

/** How days stand in a sentence of each language; patterns that are not here are the same everywhere. */
const PATTERNS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  de: {
    'EEE HH:mm': 'EEEEEE HH:mm',
    'EEE d MMM': 'EEEEEE, d. MMM',
    'EEEE d MMMM': 'EEEE, d. MMMM',
    'd MMM yyyy': 'd. MMM yyyy',
    'd MMM yyyy, HH:mm': 'd. MMM yyyy, HH:mm',
    'd MMM': 'd. MMM',
    'd MMM, HH:mm': 'd. MMM, HH:mm',
    'd MMMM yyyy': 'd. MMMM yyyy',
    'd MMMM': 'd. MMMM',
    'd MMMM, HH:mm': 'd. MMMM, HH:mm',
  },
  es: {
    'EEEE d MMMM': "EEEE d 'de' MMMM",
    'd MMMM yyyy': "d 'de' MMMM 'de' yyyy",
    'd MMMM': "d 'de' MMMM",
    'd MMMM, HH:mm': "d 'de' MMMM, HH:mm",
    'MMMM yyyy': "MMMM 'de' yyyy",
  },
};

/** A day or a time in the language of who reads. @param pattern  as English has it: "EEEE d MMMM" */
export function format(date: Date | number | string, pattern: string): string {
  const own = PATTERNS[currentLanguage()]?.[pattern] ?? pattern;
  return formatIn(date, own, inLocale());
}
