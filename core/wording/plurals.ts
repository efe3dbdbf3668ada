import { type Fraction, ONE, compare, mixed } from '../rhythm/fraction.ts';

/** "1 clap", "3 claps"; with an irregular plural `many`. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** "1 1/2 beats", "1 beat", "1/2 beat". */
export function beatsText(beats: Fraction): string {
  return `${mixed(beats)} ${compare(beats, ONE) > 0 ? 'beats' : 'beat'}`;
}

/** "2, 3 and 4". */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
