import { type CountedMeasure, eventsOf } from '../counting/count.ts';
import { beatsHeld, beatsInside } from '../counting/beatPlace.ts';
import type { CountedEvent } from '../counting/countingSystem.ts';
import { floor, frac, mixed, add } from '../rhythm/fraction.ts';
import { type Meter, beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
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

/** Which foot steps on a beat: right first in each measure of an even number of beats, else alternating through. */
export function footOf(meter: Meter, measureNumber: number, beat: number): 'R' | 'L' {
  const beats = floor({ n: meter.upper * beatOf(meter).length.d, d: meter.lower * beatOf(meter).length.n });
  return (Math.max(0, measureNumber - 1) * beats + beat) % 2 === 0 ? 'R' : 'L';
}
