import { type Fraction, add, compare } from '../rhythm/fraction.ts';
import type { Measure, Pattern } from '../rhythm/pattern.ts';
import type { PlacedEvent, PlayedMeasure, TupletPlace } from '../rhythm/place.ts';
import { type SoundSpan, writeMeasure } from '../rhythm/spell.ts';
import type { Schedule } from '../timing/schedule.ts';
import { type Spot, spotAt } from './extras.ts';

/**
 * The take written out on the grid of the meter, repeats unfolded. A hit sounds as long as the written note it stands in,
 * at most to the next hit; where a written note was missed there is a rest.
 * @param hits  seconds by the click, lead and drift taken off, rising
 */
export function heardPattern(pattern: Pattern, expected: Schedule, hits: readonly number[]): Pattern {
  // On the pattern's own grid, unless two hits would fall together there.
  const own = spotsOf(expected, hits, expected.fine);
  const spots = own.lost === 0 || expected.fine ? own.spots : spotsOf(expected, hits, true).spots;
  let sounding = false;
  const measures = expected.measures.map((played, i): Measure => {
    const { measure } = played;
    const next = expected.measures[i + 1];
    const nextHit = next && spots.get(next)?.[0];
    const goesOn = next?.measure.events[0]?.kind === 'tied' && nextHit?.onset.n !== 0;
    const stretches = stretchesOf(played, spots.get(played) ?? [], sounding, goesOn);
    sounding = stretches.at(-1)?.tiedOut === true;
    return writeMeasure(measure.meter, stretches, tupletsOf(measure.events));
  });
  // A measure shorter than any written value has nothing to be written with.
  const written = measures.filter(({ items, rests }) => items.length > 0 || rests !== undefined);
  if (written.length === 0) return { pickup: false, measures: [{ meter: measures[0]!.meter, items: [], rests: 1 }] };
  return { pickup: pattern.pickup && written[0] === measures[0], measures: written };
}

function spotsOf(
  expected: Schedule,
  hits: readonly number[],
  fine: boolean,
): { spots: Map<PlayedMeasure, Spot[]>; lost: number } {
  const spots = new Map<PlayedMeasure, Spot[]>();
  let lost = 0;
  for (const time of hits) {
    const spot = spotAt(expected, time, fine);
    if (!spot) continue;
    const here = spots.get(spot.played) ?? [];
    if (here.length === 0 || compare(here.at(-1)!.onset, spot.onset) < 0) here.push(spot);
    else lost++;
    spots.set(spot.played, here);
  }
  return { spots, lost };
}

function stretchesOf(
  { measure }: PlayedMeasure,
  spots: readonly Spot[],
  sounding: boolean,
  goesOn: boolean,
): SoundSpan[] {
  const end = add(measure.onset, measure.length);
  const stretches: SoundSpan[] = [];
  const put = (kind: 'note' | 'rest', from: Fraction, to: Fraction, tiedOut = false) => {
    if (compare(from, to) < 0) stretches.push({ kind, from, to, tiedOut });
  };
  const sound = (from: Fraction, event: PlacedEvent | undefined, limit: Fraction) => {
    const stop = soundEnd(measure.events, event);
    const to = compare(stop, limit) < 0 ? stop : limit;
    put('note', from, to, goesOn && compare(to, end) === 0 && compare(stop, end) === 0 && limit === end);
    put('rest', to, limit);
  };
  const first = spots[0]?.onset ?? end;
  if (sounding) sound(measure.onset, measure.events[0], first);
  else put('rest', measure.onset, first);
  spots.forEach((spot, i) => sound(spot.onset, spot.event, spots[i + 1]?.onset ?? end));
  return stretches;
}

/** Where the sound that stands in a written event ends: with it and what is tied to it in this measure. */
function soundEnd(events: readonly PlacedEvent[], event: PlacedEvent | undefined): Fraction {
  let at = event ? events.indexOf(event) : events.length - 1;
  while (events[at]?.tiedToNext && events[at + 1]) at++;
  const last = events[at]!;
  return add(last.onset, last.length);
}

function tupletsOf(events: readonly PlacedEvent[]): TupletPlace[] {
  return [...new Set(events.flatMap(({ tuplet }) => tuplet ?? []))];
}
