import { EPSILON } from '../../core/timing/tolerance.ts';

/** Nothing that a class looks at changes more often than three times a second. */
const LEAST_SECONDS = 1 / 3;

/**
 * The beat that is due, from its beginning to its end; several together where beats go by faster than eyes should.
 * @param inside   from the beginning of what is written in the measure, like all that follows in whole notes
 * @param onset    of what is written, from the bar line: a pickup begins inside its measure
 * @param length   of what is written
 * @param beat     counted beat of the meter
 * @param seconds  of a whole note
 */
export function dueSpan(
  inside: number,
  onset: number,
  length: number,
  beat: number,
  seconds: number,
): { readonly from: number; readonly to: number } {
  const together = beat * Math.max(1, Math.ceil(LEAST_SECONDS / (beat * seconds) - EPSILON));
  const from = Math.floor((inside + onset) / together + EPSILON) * together - onset;
  return { from: Math.max(0, from), to: Math.min(length, from + together) };
}
