import { type Fraction, frac } from '../rhythm/fraction.ts';
import type { Meter } from '../rhythm/meter.ts';
import type { Level } from './level.ts';

/** From here on a pattern may end with a rest, and may begin with one (rules §11). */
export const RESTS_AT_END_FROM: Level = 2;
export const RESTS_FIRST_FROM: Level = 3;
/** No more rests than these one after the other (rules §11). */
export const MOST_RESTS = 2;
/** Of all the time no more than this is rests, else there is nothing to clap. */
export const MOST_REST = frac(3, 8);

/** What a pattern may end with: a quarter or longer; where sixteenths are counted, two of them. */
export function leastAtEnd({ lower }: Meter): Fraction {
  return lower > 8 ? frac(2, lower) : frac(1, 4);
}
