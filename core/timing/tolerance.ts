/**
 * Seconds, beats and parts that are equal as fractions differ by less than this when they were added up in floating
 * point by two ways; a millionth of a second is nothing to a musician.
 */
export const EPSILON = 1e-6;

export function nearlyEqual(a: number, b: number): boolean {
  return Math.abs(a - b) < EPSILON;
}
