import { type Fraction, add, compare, toNumber } from '../rhythm/fraction.ts';
import type { Measure, Pattern } from '../rhythm/pattern.ts';
import { type PlacedEvent, type PlayedMeasure, tupletsOf } from '../rhythm/place.ts';
import { type SoundSpan, writeMeasure } from '../rhythm/spell.ts';
import type { Schedule } from '../timing/schedule.ts';
import { EPSILON } from '../timing/tolerance.ts';
import { type Spot, spotAt } from './extras.ts';
import type { Stretch } from './misreadings/hypothesis.ts';

/**
 * The take written out on the grid of the meter, repeats unfolded. A hit sounds as long as the written note it stands
 * in, at most to the next hit; where a written note was missed there is a rest.
 * @param plain  seconds as written in which beats were divided otherwise
 * @param hits  seconds by the click, lead and drift taken off, rising
 */
export function heardPattern(
  pattern: Pattern,
  schedule: Schedule,
  hits: readonly number[],
  plain: readonly Stretch[] = [],
): Pattern {
  // On the pattern's own grid, unless two hits would fall together there.
  const own = spotsOf(schedule, hits, schedule.fine, plain);
  const spots = own.lost === 0 || schedule.fine ? own.spots : spotsOf(schedule, hits, true, plain).spots;
  let sounding = false;
  const measures = schedule.measures.map((played, i): Measure => {
    const { measure } = played;
    const next = schedule.measures[i + 1];
    const nextHit = spots.get(i + 1)?.[0];
    const goesOn = next?.measure.events[0]?.kind === 'tied' && nextHit?.onset.n !== 0;
    const isPlain = (onset: Fraction) => {
      const time = (toNumber(played.at) + toNumber(onset) - toNumber(measure.onset)) * schedule.whole;
      return plain.some(({ from, to }) => time > from - EPSILON && time < to - EPSILON);
    };
    const spans = soundSpansOf(played, spots.get(i) ?? [], sounding, goesOn, isPlain);
    sounding = spans.at(-1)?.tiedOut === true;
    const tuplets = tupletsOf(measure.events).filter(({ onset }) => !isPlain(onset));
    return writeMeasure(measure.meter, spans, tuplets);
  });
  // A measure shorter than any written value has nothing to be written with.
  const written = measures.filter(({ items, rests }) => items.length > 0 || rests !== undefined);
  if (written.length === 0) return { pickup: false, measures: [{ meter: measures[0]!.meter, items: [], rests: 1 }] };
  return { pickup: pattern.pickup && written[0] === measures[0], measures: written };
}

/** By the index of their measure in playing order; `lost` fall together with another. */
function spotsOf(
  schedule: Schedule,
  hits: readonly number[],
  fine: boolean,
  plain: readonly Stretch[],
): { spots: Map<number, Spot[]>; lost: number } {
  const spots = new Map<number, Spot[]>();
  let lost = 0;
  for (const time of hits) {
    const spot = spotAt(schedule, time, fine, plain);
    if (!spot) continue;
    const here = spots.get(spot.played) ?? [];
    if (here.length === 0 || compare(here.at(-1)!.onset, spot.onset) < 0) here.push(spot);
    else lost++;
    spots.set(spot.played, here);
  }
  return { spots, lost };
}

function soundSpansOf(
  { measure }: PlayedMeasure,
  spots: readonly Spot[],
  sounding: boolean,
  goesOn: boolean,
  isPlain: (onset: Fraction) => boolean,
): SoundSpan[] {
  const end = add(measure.onset, measure.length);
  const spans: SoundSpan[] = [];
  const put = (kind: 'note' | 'rest', from: Fraction, to: Fraction, tiedOut = false) => {
    if (compare(from, to) < 0) spans.push({ kind, from, to, tiedOut });
  };
  const sound = (from: Fraction, event: PlacedEvent | undefined, limit: Fraction) => {
    const stop = isPlain(from) ? limit : soundEnd(measure.events, event);
    const to = compare(stop, limit) < 0 ? stop : limit;
    put('note', from, to, goesOn && compare(to, end) === 0 && compare(stop, end) === 0 && limit === end);
    put('rest', to, limit);
  };
  const first = spots[0]?.onset ?? end;
  if (sounding) sound(measure.onset, measure.events[0], first);
  else put('rest', measure.onset, first);
  spots.forEach((spot, i) => sound(spot.onset, spot.event, spots[i + 1]?.onset ?? end));
  return spans;
}

/** Where the sound that stands in a written event ends: with it and what is tied to it in this measure. */
function soundEnd(events: readonly PlacedEvent[], event: PlacedEvent | undefined): Fraction {
  let at = event ? events.indexOf(event) : events.length - 1;
  while (events[at]?.tiedToNext && events[at + 1]) at++;
  const last = events[at]!;
  return add(last.onset, last.length);
}
