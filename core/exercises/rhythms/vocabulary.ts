import { add, compare, div, floor, frac, isWhole } from '../../rhythm/fraction.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../../rhythm/elements.ts';
import { type Meter, beatOf, meterKind, sameMeter } from '../../rhythm/meter.ts';
import type { Pattern } from '../../rhythm/pattern.ts';
import { type PlacedEvent, type PlacedMeasure, placePattern } from '../../rhythm/place.ts';
import { valueText } from '../../rhythm/value.ts';

/** What rhythms may be made of: what a class has met, or what an answer is made of. */
export interface Vocabulary {
  readonly elements: ReadonlySet<ElementId>;
  /** "q" is a note, "(q)" a rest, "~" a tie, "3:2" a tuplet. */
  readonly signs: ReadonlySet<string>;
  /** Notes may start off the beat and sound through the next. */
  readonly syncopated: boolean;
  /** Notes and rests may cross the middle of 4/4. */
  readonly crossing: boolean;
}

/** The signs each element is written with; in compound meter, where a beat is dotted, in `compound`. */
const SIGNS: Readonly<Record<ElementId, { readonly plain: string; readonly compound?: string }>> = {
  quarter: { plain: 'q' },
  'eighth-pair': { plain: 'e' },
  'quarter-rest': { plain: '(q)', compound: '(q.)' },
  half: { plain: 'h' },
  'half-rest': { plain: '(h)' },
  'dotted-half': { plain: 'h.' },
  whole: { plain: 'w' },
  tie: { plain: '~' },
  'eighth-rest': { plain: 'e (e)' },
  syncopation: { plain: 'e q' },
  'dotted-quarter': { plain: 'q. e' },
  sixteenths: { plain: 's e' },
  'dotted-eighth': { plain: 'e. s' },
  compound: { plain: 'q. q e h.' },
  triplet: { plain: 'e 3:2' },
};

/** Compound meter comes later than these, and is written with them. */
const IN_COMPOUND: readonly ElementId[] = ['quarter', 'eighth-pair', 'compound'];

/** The vocabulary of a class that has met these elements. */
export function vocabularyOf(elements: Iterable<ElementId>, meter: Meter): Vocabulary {
  const compound = meterKind(meter) === 'compound';
  const known = new Set<ElementId>([...elements, ...(compound ? IN_COMPOUND : [])]);
  const signs = new Set<string>();
  for (const id of known) {
    const { plain, compound: dotted } = SIGNS[id];
    for (const sign of (compound && dotted !== undefined ? `${plain} ${dotted}` : plain).split(' ')) signs.add(sign);
  }
  return { elements: known, signs, syncopated: known.has('syncopation'), crossing: false };
}

/** The vocabulary a pattern is made of. */
export function vocabularyIn(pattern: Pattern): Vocabulary {
  const measures = placePattern(pattern);
  const look = (found: (event: PlacedEvent, measure: PlacedMeasure) => boolean) =>
    measures.some((measure) => measure.events.some((event) => found(event, measure)));
  return {
    elements: new Set(elementsOf(pattern).keys()),
    signs: new Set(measures.flatMap(({ events }) => events.flatMap(signsOf))),
    syncopated: look(isSyncopated),
    crossing: look(crossesMiddle),
  };
}

export function joined(a: Vocabulary, b: Vocabulary): Vocabulary {
  return {
    elements: new Set([...a.elements, ...b.elements]),
    signs: new Set([...a.signs, ...b.signs]),
    syncopated: a.syncopated || b.syncopated,
    crossing: a.crossing || b.crossing,
  };
}

/**
 * What a class that can read this has usually met before: every element up to its hardest, in the usual order; compound
 * meter only where it is in it.
 */
export function metBefore(elements: ReadonlySet<ElementId>, more = 0): ElementId[] {
  const hardest = Math.max(-1, ...[...elements].map((id) => ELEMENT_IDS.indexOf(id)));
  return ELEMENT_IDS.slice(0, hardest + 1 + more).filter((id) => id !== 'compound' || elements.has(id));
}

/** Whether a pattern is made of nothing else. */
export function fits(pattern: Pattern, vocabulary: Vocabulary): boolean {
  const allowed = (event: PlacedEvent, measure: PlacedMeasure) =>
    signsOf(event).every((sign) => vocabulary.signs.has(sign)) &&
    (vocabulary.syncopated || !isSyncopated(event, measure)) &&
    (vocabulary.crossing || !crossesMiddle(event, measure));
  return (
    placePattern(pattern).every((measure) => measure.events.every((event) => allowed(event, measure))) &&
    [...elementsOf(pattern).keys()].every((id) => vocabulary.elements.has(id))
  );
}

function signsOf({ kind, value, tiedToNext, tuplet, wholeMeasure }: PlacedEvent): string[] {
  const name = wholeMeasure ? 'M' : valueText(value);
  return [
    kind === 'rest' ? `(${name})` : name,
    ...(tiedToNext ? ['~'] : []),
    ...(tuplet ? [`${tuplet.n}:${tuplet.m}`] : []),
  ];
}

/** Starts off the beat and goes on over the next. */
function isSyncopated({ kind, onset, length, tuplet }: PlacedEvent, { meter }: PlacedMeasure): boolean {
  if (kind === 'rest' || tuplet) return false;
  const beat = beatOf(meter).length;
  const from = div(onset, beat);
  return !isWhole(from) && compare(div(add(onset, length), beat), frac(floor(from) + 1)) > 0;
}

/** A half on beat 2 of 4/4 hides beat 3; a dotted half there is usual. */
function crossesMiddle({ onset, length, wholeMeasure }: PlacedEvent, { meter }: PlacedMeasure): boolean {
  if (wholeMeasure || !sameMeter(meter, { upper: 4, lower: 4 })) return false;
  const end = add(onset, length);
  const crosses = compare(onset, frac(1, 2)) < 0 && compare(end, frac(1, 2)) > 0;
  return crosses && onset.n > 0 && compare(end, frac(1)) < 0;
}
