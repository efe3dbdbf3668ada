import { type Fraction, toNumber } from '../core/rhythm/fraction.ts';
import { beatOf, meterLength, meterText, sameMeter } from '../core/rhythm/meter.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../core/rhythm/place.ts';

/** On a desk, on a board, on a large board, and a pattern at a glance on its card. */
export const RULER_SIZES = ['card', 'desk', 'board', 'wall'] as const;
export type RulerSize = (typeof RULER_SIZES)[number];

/** A measure on the ruler; x in pixels from the left edge of its system. */
export interface RulerMeasure {
  readonly placed: PlacedMeasure;
  /** Index among all placed measures. */
  readonly index: number;
  /** Where its first event stands. */
  readonly x: number;
  readonly width: number;
  /** A meter sign stands before it. */
  readonly meterSign: boolean;
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  readonly last: boolean;
}

/** One line of the ruler. */
export interface RulerSystem {
  readonly measures: readonly RulerMeasure[];
  readonly width: number;
}

export interface RulerLayout {
  readonly size: RulerSize;
  /** Pixels of a whole note: the same everywhere on the ruler. */
  readonly scale: number;
  readonly systems: readonly RulerSystem[];
}

/**
 * Space in front of each line for the names of the lanes and the meter, before a change of meter, and after the end.
 */
const GUTTER: Readonly<Record<RulerSize, number>> = { desk: 104, board: 150, wall: 210, card: 34 };
const METER_GAP: Readonly<Record<RulerSize, number>> = { desk: 52, board: 84, wall: 120, card: 34 };
const END_GAP = 14;
/** Least pixels from one event to the next, so that notes and counts never touch; and of one letter of a count. */
const CLOSEST: Readonly<Record<RulerSize, number>> = { desk: 26, board: 52, wall: 74, card: 16 };
const LETTER: Readonly<Record<RulerSize, number>> = { desk: 11, board: 26, wall: 38, card: 0 };
/** A whole note is never drawn narrower. */
const LEAST_WHOLE: Readonly<Record<RulerSize, number>> = { desk: 200, board: 200, wall: 300, card: 96 };
/** How near things may stand: pixels. */
export interface Spacing {
  /** Least pixels from one event to the next. */
  readonly closest: number;
  /** Of one letter of a count. */
  readonly letter: number;
  /** A whole note is never drawn narrower. */
  readonly leastWhole: number;
}

function spacingOf(size: RulerSize): Spacing {
  return { closest: CLOSEST[size], letter: LETTER[size], leastWhole: LEAST_WHOLE[size] };
}

/** A quarter note is never drawn wider than this, else one short measure fills a wall. */
const WIDEST_QUARTER: Readonly<Record<RulerSize, number>> = { desk: 240, board: 480, wall: 640, card: 60 };

/**
 * Lays measures out on lines. Inside a line x is strictly proportional to time; only a change of meter opens a gap.
 * @param width   pixels to fill
 * @param tokens  the longest written count of each event, in letters, so that the counts have room; by measure and
 * event
 */
export function layoutRuler(
  pattern: Pattern,
  width: number,
  size: RulerSize,
  tokens: readonly (readonly number[])[] = [],
  spacing: Spacing = spacingOf(size),
): RulerLayout {
  const placed = placePattern(pattern);
  const usable = Math.max(200, width - GUTTER[size] - END_GAP);
  const needed = Math.max(spacing.leastWhole, ...placed.map((measure, i) => neededScale(measure, spacing, tokens[i])));
  // By full measures, not by what is in them just now: while a measure is being typed nothing else may jump.
  const nominal = Math.max(...placed.map(({ meter }) => toNumber(meterLength(meter))));
  const perLine = evenLines(placed.length, Math.max(1, Math.floor(usable / (nominal * needed))));
  const wanted = Math.min(usable / (perLine * nominal), Math.max(needed, WIDEST_QUARTER[size] * 4));
  const lines = breakLines(placed, perLine, usable, needed, METER_GAP[size]);
  // A line with an overfull measure, a pickup or changes of meter makes all of them a little narrower.
  const scale = Math.min(
    wanted,
    ...lines.map((line) => (usable - meterChanges(line) * METER_GAP[size]) / lineLength(line)),
  );
  const systems = lines.map((line): RulerSystem => {
    let x = GUTTER[size];
    const measures = line.map((measure, i): RulerMeasure => {
      const index = placed.indexOf(measure);
      const before = placed[index - 1];
      const changes = before !== undefined && !sameMeter(before.meter, measure.meter);
      if (changes && i > 0) x += METER_GAP[size];
      const at = x;
      const wide = toNumber(measure.length) * scale;
      x += wide;
      const written = pattern.measures[measure.written]!;
      const firstOfWritten = before?.written !== measure.written;
      const lastOfWritten = placed[index + 1]?.written !== measure.written;
      return {
        placed: measure,
        index,
        x: at,
        width: wide,
        meterSign: index === 0 || changes,
        repeatStart: firstOfWritten && written.repeatStart === true,
        repeatEnd: lastOfWritten && written.repeatEnd === true,
        last: index === placed.length - 1,
      };
    });
    return { measures, width: Math.max(x + END_GAP, GUTTER[size] + 60) };
  });
  return { size, scale, systems };
}

function neededScale(
  { events }: PlacedMeasure,
  { closest, letter }: Spacing,
  letters: readonly number[] | undefined,
): number {
  return Math.max(
    ...events.map((event, i) => Math.max(closest, ((letters?.[i] ?? 1) + 0.6) * letter) / toNumber(event.length)),
  );
}

/** As many measures a line as fit, of the numbers that phrases come in; it depends on nothing that is being typed. */
function evenLines(count: number, perLine: number): number {
  const most = [8, 6, 4, 3, 2, 1].find((n) => n <= perLine) ?? 1;
  return count <= perLine ? count : most;
}

function breakLines(
  placed: readonly PlacedMeasure[],
  perLine: number,
  usable: number,
  scale: number,
  gap: number,
): PlacedMeasure[][] {
  const lines: PlacedMeasure[][] = [];
  for (const measure of placed) {
    const line = lines.at(-1);
    const pickups = line?.[0] === placed[0] && placed[0]!.onset.n > 0 ? 1 : 0;
    const fits =
      line &&
      line.length < perLine + pickups &&
      lineLength([...line, measure]) * scale + meterChanges([...line, measure]) * gap <= usable + 1;
    if (fits) line.push(measure);
    else lines.push([measure]);
  }
  return lines;
}

function lineLength(line: readonly PlacedMeasure[]): number {
  return line.reduce((sum, { length }) => sum + toNumber(length), 0);
}

function meterChanges(line: readonly PlacedMeasure[]): number {
  return line.filter((measure, i) => i > 0 && !sameMeter(line[i - 1]!.meter, measure.meter)).length;
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

/** All that is drawn of a line, in short: two lines with the same key look the same at the same scale. */
export function systemKey(system: RulerSystem): string {
  const known = KEYS.get(system);
  if (known !== undefined) return known;
  const key = system.measures.reduce((text, measure) => text + measureKey(measure), system.width.toFixed(1));
  KEYS.set(system, key);
  return key;
}

function measureKey({ placed, index, x, width, meterSign, repeatStart, repeatEnd, last }: RulerMeasure): string {
  const { meter, number, onset, events } = placed;
  let key = `|${index} ${number} ${x.toFixed(1)} ${width.toFixed(1)} ${onset.n}/${onset.d}`;
  key += ` ${meterText(meter)} ${meterSign} ${repeatStart} ${repeatEnd} ${last}`;
  for (const { kind, value, onset: at, length, tiedToNext, tuplet, wholeMeasure } of events) {
    key += ` ${kind}${value.base}${value.dots}@${at.n}/${at.d}-${length.n}/${length.d}`;
    key += `${tiedToNext}${tuplet ? `${tuplet.n}:${tuplet.m}@${tuplet.onset.n}/${tuplet.onset.d}` : ''}${wholeMeasure}`;
  }
  return key;
}
