import { type Fraction, compare, div, frac, isWhole, mul, sum } from '../rhythm/fraction.ts';
import { type Meter, beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import type { Level } from './level.ts';

/** From here on a pattern may end with a rest, and may begin with one (handbook §11). */
export const RESTS_AT_END_FROM: Level = 2;
export const RESTS_FIRST_FROM: Level = 3;
/** No more rests than these one after the other (handbook §11). */
export const MOST_RESTS = 2;
/** Of all the time no more than this is rests, else there is nothing to clap. */
export const MOST_REST = frac(3, 8);

/** What a pattern may end with: a quarter or longer; where sixteenths are counted, two of them. */
export function leastAtEnd({ lower }: Meter): Fraction {
  return lower > 8 ? frac(2, lower) : frac(1, 4);
}

/** A quarter or longer at the end, on a beat; or a rest on the last beat (handbook §11). */
export function endsWell(pattern: Pattern, level: Level): boolean {
  const last = placePattern(pattern).at(-1);
  const event = last?.events.at(-1);
  if (!last || !event) return false;
  const beat = beatOf(last.meter).length;
  const onBeat = isWhole(div(event.onset, beat));
  if (event.kind === 'rest')
    return level >= RESTS_AT_END_FROM && onBeat && compare(event.length, mul(beat, frac(2))) <= 0;
  return onBeat && compare(event.length, leastAtEnd(last.meter)) >= 0;
}

/** No more than two rests in a row, none at the start below level 3, no measure of nothing else. */
export function restsWell(pattern: Pattern, level: Level): boolean {
  const placed = placePattern(pattern);
  const events = placed.flatMap((measure) => measure.events);
  if (level < RESTS_FIRST_FROM && events[0]?.kind === 'rest') return false;
  if (placed.some((measure) => measure.events.every(({ kind }) => kind === 'rest'))) return false;
  const rests = sum(events.filter(({ kind }) => kind === 'rest').map(({ length }) => length));
  if (compare(rests, mul(sum(placed.map(({ length }) => length)), MOST_REST)) > 0) return false;
  let run = 0;
  return events.every(({ kind }) => (run = kind === 'rest' ? run + 1 : 0) <= MOST_RESTS);
}
