import type { Random } from '../../random.ts';
import type { ElementId } from '../../rhythm/elements.ts';
import { type Fraction, ZERO, add, compare, div, equal, frac, isWhole, sum } from '../../rhythm/fraction.ts';
import { type Meter, beamGroups, beatOf, meterKind, meterLength } from '../../rhythm/meter.ts';
import type { Item, Note, Pattern } from '../../rhythm/pattern.ts';
import { contentLength, itemLength } from '../../rhythm/place.ts';
import { parseRhythm } from '../../rhythm/text.ts';
import { type Vocabulary, fits, vocabularyOf } from './vocabulary.ts';

/** What rhythms are put together from: a few notes and rests that teachers say as one. */
export interface Cell {
  readonly items: readonly Item[];
  readonly length: Fraction;
  /** What a class must have met to read it. */
  readonly needs: readonly ElementId[];
}

const CELL_TEXTS: readonly (readonly [text: string, ...needs: ElementId[]])[] = [
  ['q', 'quarter'],
  ['e e', 'eighth-pair'],
  ['(q)', 'quarter-rest'],
  ['h', 'half'],
  ['(h)', 'half-rest'],
  ['h.', 'dotted-half'],
  ['w', 'whole'],
  ['e (e)', 'eighth-rest'],
  ['(e) e', 'eighth-rest'],
  ['e q e', 'syncopation'],
  ['q. e', 'dotted-quarter'],
  ['s s s s', 'sixteenths'],
  ['e s s', 'sixteenths'],
  ['s s e', 'sixteenths'],
  ['e. s', 'dotted-eighth'],
  ['3{e e e}', 'triplet'],
];

/** In compound meter over 8; over 16 half as long. */
const COMPOUND_TEXTS: typeof CELL_TEXTS = [
  ['q.'],
  ['e e e'],
  ['q e'],
  ['(q.)', 'quarter-rest'],
  ['q (e)', 'eighth-rest'],
  ['e (e) e', 'eighth-rest'],
  ['e e (e)', 'eighth-rest'],
  ['h.', 'dotted-half'],
  ['e s s e', 'sixteenths'],
  ['e e s s', 'sixteenths'],
];

/** In meters that are counted in eighths: what fills a group of two or three. */
const EIGHTHS_TEXTS: typeof CELL_TEXTS = [
  ['q', 'quarter'],
  ['e e', 'eighth-pair'],
  ['e e e', 'eighth-pair'],
  ['q e', 'quarter', 'eighth-pair'],
  ['e q', 'quarter', 'eighth-pair'],
  ['q.', 'dotted-quarter'],
  ['e (e)', 'eighth-rest'],
  ['e s s', 'sixteenths'],
];

function cellsFrom(texts: typeof CELL_TEXTS): Cell[] {
  return texts.map(([text, ...needs]) => {
    const items = itemsFrom(text);
    return { items, length: contentLength({ meter: { upper: 4, lower: 4 }, items }), needs };
  });
}

/** Notes and rests of a line of rhythm text, without meter or bars. */
export function itemsFrom(text: string): readonly Item[] {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new RangeError(`no rhythm: ${text}`);
  return parsed.pattern.measures[0]!.items;
}

const SIMPLE = cellsFrom(CELL_TEXTS);
const COMPOUND = cellsFrom(COMPOUND_TEXTS);
const EIGHTHS = cellsFrom(EIGHTHS_TEXTS);

function tableOf(meter: Meter): readonly Cell[] {
  if (meterKind(meter) === 'compound') return COMPOUND;
  return meter.lower >= 8 ? EIGHTHS : SIMPLE;
}

/** Where cells may not cross: the middle of 4/4, the groups of an unequal meter; else only the bar line. */
function bordersOf(meter: Meter): Fraction[] {
  if (meter.lower >= 8 && meterKind(meter) === 'unequal') {
    let at = ZERO;
    return beamGroups(meter).map((size) => (at = add(at, size)));
  }
  return meter.upper === 4 && meter.lower === 4 ? [frac(1, 2)] : [];
}

/**
 * Whether a cell may start at a place in the measure.
 * @param over  notes may cross the middle of 4/4 here: quarter, half, quarter is known to everybody
 */
export function mayStand({ length, items }: Cell, at: Fraction, meter: Meter, over = false): boolean {
  const end = add(at, length);
  if (compare(end, meterLength(meter)) > 0) return false;
  if (items.length === 1 && items[0]!.kind === 'rest' && length.n * 2 === length.d) return isWhole(div(at, frac(1, 2)));
  if (over && meterKind(meter) === 'simple') return true;
  const crosses = bordersOf(meter).some((border) => compare(at, border) < 0 && compare(end, border) > 0);
  // A dotted half on beat 2 and a whole are read at a glance.
  return !crosses || (items.length === 1 && compare(length, frac(3, 4)) >= 0);
}

/** The cells of a meter that a class with this vocabulary can read. */
export function cellsFor(meter: Meter, { elements }: Pick<Vocabulary, 'elements'>): Cell[] {
  const half = meter.lower === 16 && meterKind(meter) === 'compound';
  const beat = beatOf(meter).length;
  return tableOf(meter)
    .filter(({ needs }) => needs.every((id) => elements.has(id)))
    .filter(({ length }) => !half || equal(length, beat));
}

/** What a rhythm is made of. */
export interface RhythmWanted {
  readonly elements: readonly ElementId[];
  readonly meter: Meter;
  /** Counted beats. */
  readonly beats: number;
}

/**
 * The meter and the measures of so many beats: whole measures, or one short one in a meter of its own (two beats of 4/4
 * are 2/4); undefined where the beats do not fill measures.
 */
export function measuresFor({
  meter,
  beats,
}: Pick<RhythmWanted, 'meter' | 'beats'>): { readonly meter: Meter; readonly count: number } | undefined {
  if (!Number.isInteger(beats) || beats < 1) return undefined;
  const beat = beatOf(meter).length;
  const inMeasure = div(meterLength(meter), beat);
  if (!isWhole(inMeasure)) return undefined;
  if (beats % inMeasure.n === 0) return { meter, count: beats / inMeasure.n };
  if (beats > inMeasure.n || meterKind(meter) !== 'simple') return undefined;
  return { meter: { upper: beats, lower: meter.lower }, count: 1 };
}

/** How often to begin anew before it is said that nothing fits. */
const TRIES = 40;
const TIE_CHANCE = 0.5;

/** A rhythm of chosen elements from a seed; undefined where they fill no such measures. */
export function rhythmFrom(wanted: RhythmWanted, random: Random): Pattern | undefined {
  const measured = measuresFor(wanted);
  if (!measured) return undefined;
  const { meter, count } = measured;
  const vocabulary = vocabularyOf(wanted.elements, meter);
  const cells = cellsFor(meter, vocabulary);
  for (let tries = 0; tries < TRIES; tries++) {
    const measures = Array.from({ length: count }, () => filledMeasure(meter, cells, random));
    if (!measures.every((items) => items !== undefined)) continue;
    const plain: Pattern = { pickup: false, measures: measures.map((items) => ({ meter, items })) };
    const ties = vocabulary.elements.has('tie') && random.next() < TIE_CHANCE;
    const pattern = ties ? tiedSomewhere(plain, random) : plain;
    if (fits(pattern, vocabulary) && sounds(pattern)) return pattern;
  }
  return undefined;
}

function sounds({ measures }: Pattern): boolean {
  return measures.some(({ items }) => items.some(({ kind }) => kind !== 'rest'));
}

function filledMeasure(meter: Meter, cells: readonly Cell[], random: Random): readonly Item[] | undefined {
  const full = meterLength(meter);
  const items: Item[] = [];
  let at = ZERO;
  while (compare(at, full) < 0) {
    const fitting = cells.filter((cell) => mayStand(cell, at, meter));
    if (fitting.length === 0) return undefined;
    const cell = random.pick(fitting);
    items.push(...cell.items);
    at = add(at, cell.length);
  }
  return items;
}

/** One tie from a note to the next, over a bar line where there is one. */
function tiedSomewhere(pattern: Pattern, random: Random): Pattern {
  const places = pattern.measures.flatMap(({ items, meter }, m) =>
    items.flatMap((item, i) => {
      const next = items[i + 1] ?? pattern.measures[m + 1]?.items[0];
      if (item.kind !== 'note' || next?.kind !== 'note') return [];
      const end = sum(items.slice(0, i + 1).map(itemLength));
      const over = i === items.length - 1;
      const onBeat = isWhole(div(end, beatOf(meter).length));
      return over || onBeat ? [{ m, i, over }] : [];
    }),
  );
  const over = places.filter((place) => place.over);
  if (places.length === 0) return pattern;
  const { m, i } = random.pick(over.length > 0 ? over : places);
  const tie = (item: Item, at: number): Item => (at === i ? { ...(item as Note), tied: true } : item);
  return {
    ...pattern,
    measures: pattern.measures.map((measure, at) =>
      at === m ? { ...measure, items: measure.items.map(tie) } : measure,
    ),
  };
}

/** The measure cut where every beat starts and nothing sounds through: its cells, in order. */
export function cellsIn(items: readonly Item[], beat: Fraction): (readonly Item[])[] {
  const cells: Item[][] = [[]];
  let at = ZERO;
  items.forEach((item, i) => {
    cells.at(-1)!.push(item);
    at = add(at, itemLength(item));
    const tied = item.kind === 'note' && item.tied === true;
    if (i < items.length - 1 && isWhole(div(at, beat)) && !tied) cells.push([]);
  });
  return cells;
}

/** Where each item of a measure starts. */
export function itemStarts(items: readonly Item[]): Fraction[] {
  let at = ZERO;
  return items.map((item) => {
    const start = at;
    at = add(at, itemLength(item));
    return start;
  });
}
