import { perLanguage, t } from '../words/say.ts';
import { type Fraction, div, equal, isWhole } from './fraction.ts';
import { beatOf, meterKind } from './meter.ts';
import type { Pattern } from './pattern.ts';
import { type PlacedEvent, type PlacedMeasure, placePattern } from './place.ts';

type Look = (event: PlacedEvent, next: readonly PlacedEvent[], measure: PlacedMeasure) => boolean;

const is = (event: PlacedEvent | undefined, kind: PlacedEvent['kind'], value: string) =>
  event?.kind === kind && !event.tuplet && event.value.base + '.'.repeat(event.value.dots) === value;
const onBeat = (event: PlacedEvent, { meter }: PlacedMeasure) => isWhole(div(event.onset, beatOf(meter).length));
const syncopated: Look = (event, [a, b], measure) =>
  is(event, 'note', 'e') && onBeat(event, measure) && is(a, 'note', 'q') && is(b, 'note', 'e');

/**
 * The elements of rhythm in the order in which they usually come (rules §9), and where each stands in a pattern;
 * titles for `named`.
 */
export const ELEMENTS = perLanguage(
  () =>
    ({
      quarter: { title: '{q}', found: (event) => is(event, 'note', 'q') },
      'eighth-pair': {
        title: t`paired {e+}`,
        found: (event, [a], measure) => is(event, 'note', 'e') && is(a, 'note', 'e') && onBeat(event, measure),
      },
      'quarter-rest': { title: t`{q} rest`, found: (event) => is(event, 'rest', 'q') },
      half: { title: '{h}', found: (event) => is(event, 'note', 'h') },
      'half-rest': { title: t`{h} rest`, found: (event) => is(event, 'rest', 'h') },
      'dotted-half': { title: t`dotted {h}`, found: (event) => is(event, 'note', 'h.') },
      whole: { title: '{w}', found: (event) => is(event, 'note', 'w') },
      tie: { title: t`tie`, found: (event) => event.kind === 'tied' },
      'eighth-rest': { title: t`single {e} and {e} rest`, found: (event) => is(event, 'rest', 'e') },
      syncopation: { title: t`syncopation`, found: syncopated },
      'dotted-quarter': {
        title: t`dotted {q} and {e}`,
        found: (event, [a], { meter }) =>
          meterKind(meter) !== 'compound' && is(event, 'note', 'q.') && is(a, 'note', 'e'),
      },
      sixteenths: {
        title: '{s+}',
        found: (event, [a]) => is(event, 'note', 's') && (is(a, 'note', 's') || is(a, 'note', 'e')),
      },
      'dotted-eighth': {
        title: t`dotted {e} and {s}`,
        found: (event, [a]) => is(event, 'note', 'e.') && is(a, 'note', 's'),
      },
      compound: {
        title: t`compound meter`,
        found: (_event, _next, { meter, events: [first] }) => first === _event && meterKind(meter) === 'compound',
      },
      triplet: { title: t`triplet`, found: (event) => event.tuplet?.n === 3 && equal(event.onset, event.tuplet.onset) },
    }) as const satisfies Readonly<Record<string, { readonly title: string; readonly found: Look }>>,
);
export type ElementId = keyof ReturnType<typeof ELEMENTS>;
export const ELEMENT_IDS = Object.keys(ELEMENTS()) as readonly ElementId[];

/** Where something stands: the number of its measure on paper; its start from the bar line, part of a whole note. */
export interface WrittenPlace {
  readonly measure: number;
  readonly onset: Fraction;
}

/** The elements of a pattern, each with the places in which it stands, in order. */
export function elementPlaces(pattern: Pattern): ReadonlyMap<ElementId, readonly WrittenPlace[]> {
  const found = new Map<ElementId, WrittenPlace[]>();
  for (const measure of placePattern(pattern)) {
    measure.events.forEach((event, i) => {
      const next = measure.events.slice(i + 1, i + 3);
      for (const id of ELEMENT_IDS) {
        if (!ELEMENTS()[id].found(event, next, measure)) continue;
        const places = found.get(id) ?? [];
        if (places.length === 0) found.set(id, places);
        places.push({ measure: measure.number, onset: event.onset });
      }
    });
  }
  return found;
}

/** The elements of a pattern, each with the numbers of the measures in which it stands. */
export function elementsOf(pattern: Pattern): ReadonlyMap<ElementId, readonly number[]> {
  const measures = (places: readonly WrittenPlace[]) => [...new Set(places.map(({ measure }) => measure))];
  return new Map([...elementPlaces(pattern)].map(([id, places]) => [id, measures(places)]));
}
