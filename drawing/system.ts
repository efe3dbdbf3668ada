import { beatsBefore as beatsBeforeEach } from '../core/leading/hands.ts';
import { compare, toNumber, type Fraction } from '../core/rhythm/fraction.ts';
import { type Meter, beatOf, meterLength, meterText, sameMeter } from '../core/rhythm/meter.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import type { PlacedMeasure } from '../core/rhythm/place.ts';

/** On a desk, on a board, on a large board, and a pattern at a glance on its card. */
export const RULER_SIZES = ['card', 'desk', 'board', 'wall'] as const;
export type RulerSize = (typeof RULER_SIZES)[number];

/** How large the signs are drawn: pixels of the engraver's unit, a tenth of a space. */
export const ZOOM: Readonly<Record<RulerSize, number>> = { desk: 1.15, board: 2, wall: 2.8, card: 0.66 };

/** In the engraver's units: how far a bar line stands before its beat, and what signs of repeat take beside it. */
export const BAR_BEFORE = 13;
export const REPEAT_GAP = 13;
/** Half a head, and a flag beside its stem: what is right of the middle of a note that has one. */
export const HALF_HEAD = 6;
export const FLAG = 11;
/** From one dot of a note to the next. */
export const DOT_STEP = 6.5;

/** A measure on the ruler; x in pixels from the left edge of its system. */
export interface RulerMeasure {
  readonly placed: PlacedMeasure;
  /** Index among all placed measures. */
  readonly index: number;
  /** Where its first beat stands. */
  readonly x: number;
  readonly width: number;
  /** The middle of the head of each of its notes and rests. */
  readonly xs: readonly number[];
  /** A meter sign stands before it. */
  readonly meterSign: boolean;
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  readonly last: boolean;
  /** Beats from the first full measure: feet and hands alternate through. */
  readonly beatsBefore: number;
  /** On paper: so many measures of rest that are drawn as one sign. */
  readonly rests?: number;
}

/** One line of the ruler. */
export interface RulerSystem {
  readonly measures: readonly RulerMeasure[];
  readonly width: number;
  /** The meter of the next line, said at the end of this one where it is another. */
  readonly courtesy?: Meter | undefined;
}

/** What stands about a measure, wherever it is drawn. */
export type MeasureSigns = Pick<
  RulerMeasure,
  'placed' | 'index' | 'beatsBefore' | 'meterSign' | 'repeatStart' | 'repeatEnd' | 'last' | 'rests'
>;

/** The signs of all measures, in their order. */
export function measureSigns({ measures }: Pattern, placed: readonly PlacedMeasure[]): MeasureSigns[] {
  const steps = beatsBeforeEach(placed);
  return placed.map((measure, index) => {
    const before = placed[index - 1];
    const written = measures[measure.written]!;
    return {
      placed: measure,
      index,
      beatsBefore: steps[index]!,
      meterSign: before === undefined || !sameMeter(before.meter, measure.meter),
      repeatStart: before?.written !== measure.written && written.repeatStart === true,
      repeatEnd: placed[index + 1]?.written !== measure.written && written.repeatEnd === true,
      last: index === placed.length - 1,
    };
  });
}

/** A rest that is all of its measure stands in the middle, as a whole-measure rest does. */
export function isCentred({ events, meter }: PlacedMeasure): boolean {
  const [only, more] = events;
  if (!only || more || only.kind !== 'rest') return false;
  return only.wholeMeasure === true || compare(only.length, meterLength(meter)) === 0;
}

/** The middle between the bar lines of a measure. */
export function middleOf(x: number, width: number, size: RulerSize): number {
  return x + width / 2 - BAR_BEFORE * ZOOM[size];
}

/** The middles of the heads where each stands at its time. */
export function timeXs(
  placed: PlacedMeasure,
  { x, width, scale, size }: { x: number; width: number; scale: number; size: RulerSize },
): number[] {
  if (isCentred(placed)) return [middleOf(x, width, size)];
  const from = toNumber(placed.onset);
  return placed.events.map(({ onset }) => x + (toNumber(onset) - from) * scale);
}

/** What a head looks like: two parts share one where it is the same. */
const headOf = ({ value: { base, dots } }: PlacedMeasure['events'][number]) =>
  `${base === 'w' || base === 'h' ? base : 'solid'} ${dots}`;

/**
 * The lower of two parts on one line: where both sound at once with heads that are not alike, its own stands right
 * beside the other one's.
 */
export function headsApart(upper: RulerSystem, lower: RulerSystem, size: RulerSize): RulerSystem {
  const measures = lower.measures.map((measure, m) => {
    const above = upper.measures[m]!.placed.events.filter(({ kind }) => kind !== 'rest');
    const xs = measure.xs.map((x, i) => {
      const event = measure.placed.events[i]!;
      if (event.kind === 'rest') return x;
      const other = above.find(({ onset }) => compare(onset, event.onset) === 0);
      return other && headOf(other) !== headOf(event) ? x + 2 * HALF_HEAD * ZOOM[size] : x;
    });
    return { ...measure, xs };
  });
  return { ...lower, measures };
}

/** A line of the ruler with other notes in its measures: a further part, or what was heard. */
export function withPlaced(
  system: RulerSystem,
  others: readonly PlacedMeasure[],
  { scale, size }: { readonly scale: number; readonly size: RulerSize },
): RulerSystem {
  const measures = system.measures.map((measure) => {
    const placed = others[measure.index] ?? measure.placed;
    return { ...measure, placed, xs: timeXs(placed, { ...measure, scale, size }) };
  });
  return { ...system, measures };
}

/** x of a place in a measure; `onset` from the bar line, part of a whole note. */
export function xOf(measure: RulerMeasure, onset: Fraction | number, scale: number): number {
  const at = typeof onset === 'number' ? onset : toNumber(onset);
  return measure.x + (at - toNumber(measure.placed.onset)) * scale;
}

/** The x of every counted beat in a measure, the first of them at the bar line. */
export function beatXs(measure: RulerMeasure, scale: number): { x: number; first: boolean }[] {
  const beat = toNumber(beatOf(measure.placed.meter).length);
  const from = toNumber(measure.placed.onset);
  const to = from + toNumber(measure.placed.length);
  const xs: { x: number; first: boolean }[] = [];
  for (let k = Math.ceil(from / beat - 1e-9); k * beat < to - 1e-9; k++)
    xs.push({ x: xOf(measure, k * beat, scale), first: k === 0 });
  return xs;
}

const KEYS = new WeakMap<RulerSystem, string>();

/** All that is drawn of a line, in short: two lines with the same key look the same at the same size. */
export function systemKey(system: RulerSystem): string {
  const known = KEYS.get(system);
  if (known !== undefined) return known;
  const { width, courtesy } = system;
  const head = `${width.toFixed(1)} ${courtesy ? meterText(courtesy) : ''}`;
  const key = system.measures.reduce((text, measure) => text + measureKey(measure), head);
  KEYS.set(system, key);
  return key;
}

function measureKey({
  placed,
  index,
  beatsBefore,
  x,
  xs,
  width,
  meterSign,
  repeatStart,
  repeatEnd,
  last,
  rests,
}: RulerMeasure): string {
  const { meter, number, onset, events } = placed;
  let key = `|${index} ${beatsBefore} ${number} ${x.toFixed(1)} ${width.toFixed(1)} ${onset.n}/${onset.d}`;
  key += ` ${meterText(meter)} ${meterSign} ${repeatStart} ${repeatEnd} ${last} ${rests}`;
  events.forEach(({ kind, value, onset: at, length, tiedToNext, tuplet, wholeMeasure }, i) => {
    key += ` ${kind}${value.base}${value.dots}@${at.n}/${at.d}-${length.n}/${length.d}x${xs[i]?.toFixed(1)}`;
    key += `${tiedToNext}${tuplet ? `${tuplet.n}:${tuplet.m}@${tuplet.onset.n}/${tuplet.onset.d}` : ''}${wholeMeasure}`;
  });
  return key;
}
