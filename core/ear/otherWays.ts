import { type Fraction, ZERO, add, compare, div, equal, floor, frac, isWhole, mul, sub } from '../rhythm/fraction.ts';
import { type Beat, beatOf } from '../rhythm/meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from '../rhythm/pattern.ts';
import { contentLength, itemLength } from '../rhythm/place.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { spell } from '../rhythm/spell.ts';
import { printRhythm } from '../rhythm/text.ts';
import { VALUES, type NoteValue, type ValueLetter, lengthOf, valueOfLength } from '../rhythm/value.ts';

/** A stretch of a measure from one clap to the next, and the ways to write it. */
interface Stretch {
  readonly measure: number;
  readonly from: Fraction;
  readonly length: Fraction;
  /** A clap at its start; else what went before is held on, or it is silent. */
  readonly clapped: boolean;
  /** It is kept as written: tuplets, and what is held on from them. */
  readonly kept?: readonly Item[];
  readonly label?: string;
}

interface Way {
  readonly items: readonly Item[];
  /** It sounds to its end, so that the next stretch may be tied to it. */
  readonly full: boolean;
  /** Tied to the stretch before. */
  readonly tiedIn: boolean;
  readonly cost: number;
}

/** How many ways are worth showing. */
const MOST = 12;
/** Ways to write a longer pattern would be a list of nearly the same. */
const MOST_STRETCHES = 400;

/** What makes writing harder to read: each sign, and more for ties, dots, rests and fast values. */
const TIE = 1.2;
const DOT = 0.6;
const REST = 0.1;
const FAST: Partial<Record<ValueLetter, number>> = { e: 0.05, s: 0.3, t: 0.6 };

function costOf(items: readonly Item[]): number {
  return items.reduce((cost, item) => {
    if (item.kind === 'tuplet') return cost + 1 + costOf(item.events);
    const { base, dots } = item.value;
    const tie = item.kind === 'note' && item.tied ? TIE : 0;
    return cost + 1 + tie + dots * DOT + (FAST[base] ?? 0) + (item.kind === 'rest' ? REST : 0);
  }, 0);
}

/** Where one measure is cut; `held` says that what goes before sounds on into it. */
function stretchesIn(measure: Measure, index: number, start: Fraction, held: boolean): [Stretch[], held: boolean] {
  if (measure.rests !== undefined) return [[{ measure: index, ...nothing(measure), kept: [] }], false];
  const stretches: Stretch[] = [];
  let at = start;
  let tied = held;
  let fixed = false;
  for (const item of measure.items) {
    const length = itemLength(item);
    const last = stretches.at(-1);
    if (item.kind === 'tuplet') {
      stretches.push({ measure: index, from: at, length, clapped: false, kept: [item] });
      const end = item.events.at(-1);
      tied = end?.kind === 'note' && end.tied === true;
      fixed = tied;
    } else if (item.kind === 'note' && !tied) {
      stretches.push({ measure: index, from: at, length, clapped: true, ...(item.label ? { label: item.label } : {}) });
      tied = item.tied === true;
      fixed = false;
    } else {
      // What is tied to a tuplet stays as it is, with the tie.
      if (fixed && tied) stretches.push({ measure: index, from: at, length, clapped: false, kept: [item] });
      else if (last && !last.kept) stretches[stretches.length - 1] = { ...last, length: add(last.length, length) };
      else stretches.push({ measure: index, from: at, length, clapped: false });
      tied = item.kind === 'note' && item.tied === true;
      fixed = fixed && tied;
    }
    at = add(at, length);
  }
  return [stretches, tied];
}

function nothing(measure: Measure): Pick<Stretch, 'from' | 'length' | 'clapped'> {
  return { from: ZERO, length: contentLength(measure), clapped: false };
}

function rests(from: Fraction, length: Fraction, beat: Beat): Rest[] {
  return spell(from, length, beat, 'rest').map((value): Rest => ({ kind: 'rest', value }));
}

/** Tied together. */
function tiedNotes(values: readonly NoteValue[]): Note[] {
  return values.map((value, i) => ({ kind: 'note', value, ...(i + 1 < values.length ? { tied: true as const } : {}) }));
}

/** One sound of these lengths; undefined where one of them is no single sign. */
function notes(lengths: readonly Fraction[]): Note[] | undefined {
  const values = lengths.map(valueOfLength);
  return values.every((value) => value !== undefined) ? tiedNotes(values) : undefined;
}

/** The ways to write one sound of a length: in one sign, and tied where it is cut at a beat. */
function sounding(from: Fraction, length: Fraction, beat: Beat): Note[][] {
  const place = div(from, beat.length);
  const toBeat = mul(sub(frac(floor(place) + 1), place), beat.length);
  const half = mul(length, frac(1, 2));
  const cuts: Fraction[][] = [[length]];
  if (compare(toBeat, length) < 0) cuts.push([toBeat, sub(length, toBeat)]);
  if (isWhole(div(half, beat.length)) && isWhole(place) && !equal(half, toBeat)) cuts.push([half, half]);
  const made = cuts.flatMap((cut) => {
    const tied = notes(cut);
    return tied ? [tied] : [];
  });
  return made.length === 0 ? [spelled(from, length, beat)] : made;
}

function spelled(from: Fraction, length: Fraction, beat: Beat): Note[] {
  return tiedNotes(spell(from, length, beat, 'note'));
}

/** The shorter sounds there are, each of one plain or dotted sign. */
const LENGTHS: readonly Fraction[] = VALUES.filter(({ letter }) => letter !== 't')
  .flatMap(({ letter }) => ([0, 1] as const).map((dots) => lengthOf({ base: letter, dots })))
  .sort((a, b) => compare(b, a));
const MOST_RESTS = 2;

function way(items: readonly Item[], full: boolean, tiedIn: boolean): Way {
  return { items, full, tiedIn, cost: costOf(items) };
}

/** The ways to write a stretch: how long it sounds is free, when it starts is not. */
function waysOf(stretch: Stretch, { meter }: Measure): Way[] {
  const { from, length, clapped, kept, label } = stretch;
  if (kept) {
    const last = kept.at(-1);
    return [way(kept, last?.kind === 'note' && last.tied === true, false)];
  }
  const beat = beatOf(meter);
  const silent = clapped ? [] : [way(rests(from, length, beat), false, false)];
  const whole = sounding(from, length, beat).map((items) => way(items, true, !clapped));
  const cut = LENGTHS.filter((one) => compare(one, length) < 0).flatMap((one): Way[] => {
    const rest = rests(add(from, one), sub(length, one), beat);
    // Dotted rests are for beats of three.
    const odd = beat.division === 2 && rest.some(({ value }) => value.dots > 0);
    return odd || rest.length > MOST_RESTS ? [] : [way([...spelled(from, one, beat), ...rest], false, !clapped)];
  });
  const ways = [...silent, ...whole, ...cut];
  return label === undefined
    ? ways
    : ways.map((one) => ({ ...one, items: [labelled(one.items, label), ...one.items.slice(1)] }));
}

function labelled([first]: readonly Item[], label: string): Item {
  return { ...(first as Note), label };
}

interface Route {
  readonly ways: readonly Way[];
  readonly cost: number;
}

/** The cheapest ways through all stretches, best first; only what goes on from a full sound can be tied to it. */
function cheapest(stretches: readonly Stretch[], measures: readonly Measure[]): Route[] {
  let best: Route[] = [{ ways: [], cost: 0 }];
  for (const stretch of stretches) {
    const ways = waysOf(stretch, measures[stretch.measure]!);
    const next = best.flatMap((one) =>
      ways
        .filter(({ tiedIn }) => !tiedIn || canTie(one.ways.at(-1)))
        .map((add): Route => ({ ways: [...one.ways, add], cost: one.cost + add.cost + (add.tiedIn ? TIE : 0) })),
    );
    next.sort((a, b) => a.cost - b.cost);
    const keep = (full: boolean) => next.filter(({ ways: made }) => made.at(-1)!.full === full).slice(0, MOST + 1);
    best = [...keep(true), ...keep(false)];
  }
  return best.sort((a, b) => a.cost - b.cost);
}

function canTie(before: Way | undefined): boolean {
  return before !== undefined && before.full && before.items.at(-1)?.kind === 'note';
}

function written(pattern: Pattern, stretches: readonly Stretch[], { ways }: Route): Pattern {
  const measures = pattern.measures.map((measure, m): Measure => {
    if (measure.rests !== undefined) return measure;
    const items = stretches.flatMap((stretch, i) => {
      if (stretch.measure !== m) return [];
      const { items: own } = ways[i]!;
      const last = own.at(-1);
      return ways[i + 1]?.tiedIn && last?.kind === 'note'
        ? [...own.slice(0, -1), { ...last, tied: true as const }]
        : own;
    });
    return { ...measure, items };
  });
  return { ...pattern, measures };
}

/**
 * Other ways to write a pattern that sound the same when clapped (rules §7), the simplest first: they differ in how
 * long notes last, not in when they start. Tuplets stay as they are.
 * @example otherWays("4/4 q q h") // "4/4 q q q (q)", "4/4 q e (e) h", …
 */
export function otherWays(pattern: Pattern): Pattern[] {
  const stretches: Stretch[] = [];
  let held = false;
  const full = pattern.measures[0]!;
  pattern.measures.forEach((measure, m) => {
    const start = m === 0 && pattern.pickup ? pickupOnset(full) : ZERO;
    const [own, on] = stretchesIn(measure, m, start, held);
    stretches.push(...own);
    held = on;
  });
  if (stretches.length > MOST_STRETCHES) return [];
  const [own, sound] = [printRhythm(pattern), soundKey(pattern)];
  const seen = new Set([own]);
  const others: Pattern[] = [];
  for (const made of cheapest(stretches, pattern.measures)) {
    const other = written(pattern, stretches, made);
    const text = printRhythm(other);
    if (seen.has(text) || soundKey(other) !== sound) continue;
    seen.add(text);
    others.push(other);
  }
  return others.slice(0, MOST);
}

/** A pickup stands before the bar line by as much as it is long. */
function pickupOnset(measure: Measure): Fraction {
  const short = sub(frac(measure.meter.upper, measure.meter.lower), contentLength(measure));
  return compare(short, ZERO) > 0 ? short : ZERO;
}
