import { type CountedMeasure, eventsOf } from '../counting/count.ts';
import { beatsHeld, beatsInside } from '../counting/beatPlace.ts';
import type { CountedEvent } from '../counting/school.ts';
import { floor, frac, mixed, add } from '../rhythm/fraction.ts';
import { type Meter, beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import type { ValueLetter } from '../rhythm/value.ts';

/** What the hands do at a note or rest (handbook §5): clap; push forward on each further beat; open for a rest. */
export function handsOn(event: CountedEvent): string {
  if (event.kind === 'rest') return '(open)';
  const pushes = (event.kind === 'tied' ? beatsHeld(event) : beatsInside(event)).map(() => 'push');
  return event.kind === 'tied' ? `-${pushes.join('-')}` : ['clap', ...pushes].join('-');
}

/** The hands of a whole pattern, in the shape of written counts, so that they stand on the same ruler. */
export function handsOf(pattern: Pattern, beat?: ValueLetter): CountedMeasure[] {
  const placed = placePattern(pattern);
  return eventsOf(placed, beat).map((events, i) => ({
    number: placed[i]!.number,
    tokens: events.map((event) => ({ kind: event.kind, beat: mixed(add(event.onset, frac(1))), text: handsOn(event) })),
  }));
}

/** Which foot steps on a beat: right first in each measure of an even number of beats, else alternating through. */
export function footOf(meter: Meter, measureNumber: number, beat: number): 'R' | 'L' {
  const beats = floor({ n: meter.upper * beatOf(meter).length.d, d: meter.lower * beatOf(meter).length.n });
  return (Math.max(0, measureNumber - 1) * beats + beat) % 2 === 0 ? 'R' : 'L';
}
