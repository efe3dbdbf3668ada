import { type CountedMeasure, eventsOf } from '../counting/count.ts';
import { beatsHeld, beatsInside } from '../counting/beatPlace.ts';
import type { CountedEvent } from '../counting/countingSystem.ts';
import { type Fraction, add, ceil, div, frac, mixed } from '../rhythm/fraction.ts';
import { type Beat, beatOf, meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../rhythm/place.ts';
import type { ValueLetter } from '../rhythm/value.ts';

export type HandMove = 'clap' | 'push' | 'open';

/**
 * What the hands do at a note or rest (rules §5): clap; push forward on each further beat; open for a rest. A tied-
 * on note in which no beat starts asks nothing of them.
 */
export function handMoves(event: CountedEvent): HandMove[] {
  if (event.kind === 'rest') return ['open'];
  if (event.kind === 'tied') return beatsHeld(event).map(() => 'push');
  return ['clap', ...beatsInside(event).map((): HandMove => 'push')];
}

/** The same as a word under the note: "clap-push"; "-push" for what is tied on; "(open)" for a rest. */
function handText(event: CountedEvent): string {
  const moves = handMoves(event).join('-');
  return event.kind === 'rest' ? `(${moves})` : event.kind === 'tied' ? `-${moves}` : moves;
}

/** The hands of a whole pattern, in the shape of written counts, so that they stand on the same ruler. */
export function handsOf(pattern: Pattern, beat?: ValueLetter): CountedMeasure[] {
  const placed = placePattern(pattern);
  return eventsOf(placed, beat).map((events, i) => ({
    number: placed[i]!.number,
    tokens: events.map((event) => ({
      kind: event.kind,
      beat: mixed(add(event.onset, frac(1))),
      text: handText(event),
    })),
  }));
}

/**
 * Beats before each measure, from the first full one: a pickup is before it, so that it leads into the right foot.
 * @example `4/4 ^ q | q q q q | 3/4 q q q | 4/4 w` → [-4, 0, 4, 7]
 */
export function beatsBefore(placed: readonly PlacedMeasure[]): number[] {
  const inBeats = (length: Fraction, { length: beat }: Beat) => ceil(div(length, beat));
  let at = 0;
  return placed.map(({ meter, onset, length }, i) => {
    const beat = beatOf(meter);
    // A pickup's beats are counted from where its measure would begin.
    if (i === 0 && onset.n > 0) return -inBeats(meterLength(meter), beat);
    const here = at;
    at += inBeats(length, beat);
    return here;
  });
}

/** Which foot steps on a beat: they alternate through, the right one on the first beat. */
export function footOn(before: number, beat: number): 'R' | 'L' {
  return Math.abs(before + beat) % 2 === 0 ? 'R' : 'L';
}
