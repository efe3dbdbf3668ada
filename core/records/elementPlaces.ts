import { ELEMENTS, ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import { div, isWhole, toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedEvent, type PlacedMeasure, type PlayedMeasure, playPattern } from '../rhythm/place.ts';

/** A written event in playing order. */
interface PlayedEvent {
  readonly event: PlacedEvent;
  readonly measure: PlacedMeasure;
  /** Index of the measure in playing order. */
  readonly played: number;
}

/** All of a pattern in playing order; `notes` are the indices of the sounded notes among the events. */
export interface PlayedEvents {
  readonly measures: readonly PlayedMeasure[];
  readonly events: readonly PlayedEvent[];
  readonly notes: readonly number[];
}

/** Where an element stands as it is played: events from one index up to another. */
export interface ElementPlace {
  readonly element: ElementId;
  readonly from: number;
  /** Not included. */
  readonly to: number;
  /** Notes next to it, without which nothing is told of it: of rests and ties. */
  readonly beside: readonly number[];
}

export function eventsOf(pattern: Pattern): PlayedEvents {
  const measures = playPattern(pattern);
  const events = measures.flatMap(({ measure }, played) => measure.events.map((event) => ({ event, measure, played })));
  return { measures, events, notes: events.flatMap(({ event }, i) => (event.kind === 'note' ? [i] : [])) };
}

/** How many events from its first one on belong to an element. */
const LENGTHS: Readonly<Partial<Record<ElementId, number>>> = {
  'eighth-pair': 2,
  'dotted-quarter': 2,
  'dotted-eighth': 2,
  syncopation: 3,
};

/** The elements of a pattern with every place in which they are played, in playing order, element by element. */
export function elementPlacesPlayed(written: PlayedEvents): ElementPlace[] {
  const { events } = written;
  const found = ELEMENT_IDS.map((): ElementPlace[] => []);
  events.forEach(({ event, measure, played }, i) => {
    const next = [events[i + 1], events[i + 2]].flatMap((one) => (one?.played === played ? [one.event] : []));
    ELEMENT_IDS.forEach((element, k) => {
      if (!ELEMENTS()[element].found(event, next, measure)) return;
      const last = found[k]!.at(-1);
      const place = placeAt(element, i, written);
      // A run of sixteenths in one beat is one place.
      if (last && element === 'sixteenths' && last.to > place.from)
        found[k]![found[k]!.length - 1] = joined(last, place);
      else found[k]!.push(place);
    });
  });
  return found.flat();
}

const joined = (a: ElementPlace, b: ElementPlace): ElementPlace => ({ ...a, to: Math.max(a.to, b.to) });

function placeAt(element: ElementId, at: number, { events, notes }: PlayedEvents): ElementPlace {
  const [from, to] = spanAt(element, at, events);
  const sounds = events.slice(from, to).some(({ event }) => event.kind === 'note');
  const around = () => [notes.findLast((note) => note < from), notes.find((note) => note >= to)];
  return { element, from, to, beside: sounds ? [] : around().filter((note) => note !== undefined) };
}

function spanAt(element: ElementId, at: number, events: readonly PlayedEvent[]): readonly [number, number] {
  const { event, measure, played } = events[at]!;
  const beats = (one: PlacedEvent) => div(one.onset, beatOf(measure.meter).length);
  const inMeasure = (i: number) => events[i]?.played === played;
  /** From here on as long as what stands in the measure belongs to it. */
  const run = (belongs: (one: PlacedEvent) => boolean): readonly [number, number] => {
    let to = at;
    while (inMeasure(to) && belongs(events[to]!.event)) to++;
    return [at, to];
  };
  if (element === 'compound') return run(() => true);
  if (element === 'triplet') return run(({ tuplet }) => tuplet === event.tuplet);
  if (element === 'sixteenths') {
    const beat = (one: PlacedEvent) => Math.floor(toNumber(beats(one)));
    return run((one) => one.kind === 'note' && beat(one) === beat(event));
  }
  if (element === 'eighth-rest') {
    // The single eighth is in the same beat: after a rest on the beat, else before it.
    if (isWhole(beats(event)))
      return [at, inMeasure(at + 1) && events[at + 1]!.event.kind === 'note' ? at + 2 : at + 1];
    return [inMeasure(at - 1) && events[at - 1]!.event.kind === 'note' ? at - 1 : at, at + 1];
  }
  return [at, at + (LENGTHS[element] ?? 1)];
}
