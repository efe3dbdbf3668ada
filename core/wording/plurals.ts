import { t } from '../words/say.ts';
import { type Fraction, ONE, compare, mixed } from '../rhythm/fraction.ts';

/** "1 1/2 beats", "1 beat", "1/2 beat". */
export function beatsText(beats: Fraction): string {
  return compare(beats, ONE) > 0 ? t`${mixed(beats)} beats` : t`${mixed(beats)} beat`;
}

/** "2, 3 and 4". */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? '') : t`${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
