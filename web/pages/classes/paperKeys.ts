const LETTERS = 'abcdefghijklmnopqrstuvwxyz';
/** The highest mark that has a letter. */
export const LAST_LETTER = 9 + LETTERS.length;

/**
 * What a key makes of a field: "d" is 13, and a figure after which no other can follow is all there is.
 * @param before  what stood there; a point that is added to it is not taken for a whole mark
 */
export function keyedPoints(before: string, text: string, outOf: number): { text: string; done: boolean } {
  const letter = text.length === 1 ? LETTERS.indexOf(text.toLowerCase()) : -1;
  if (letter >= 0) return { text: String(10 + letter), done: true };
  const whole = /^\d+$/.test(text) && text.length > before.length && Number(text) <= outOf;
  return { text, done: whole && (Number(text) * 10 > outOf || text.length > 1 || text === '0') };
}

/** null for nothing typed, undefined for what is no mark here; a comma is a point. */
export function pointsOf(typed: string | undefined, outOf: number): number | null | undefined {
  const word = (typed ?? '').trim().replace(',', '.');
  if (word === '') return null;
  const points = Number(word);
  return Number.isFinite(points) && points >= 0 && points <= outOf ? points : undefined;
}
