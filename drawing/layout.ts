import { toNumber } from '../core/rhythm/fraction.ts';
import { meterLength } from '../core/rhythm/meter.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../core/rhythm/place.ts';
import { VALUE } from '../core/rhythm/value.ts';
import { beams } from '../core/rhythm/beams.ts';
import { cutAtNumbers, cutIntoLines, lineSizes } from './lineSizes.ts';
import {
  BAR_BEFORE,
  FLAG,
  HALF_HEAD,
  type MeasureSigns,
  REPEAT_GAP,
  type RulerMeasure,
  type RulerSize,
  type RulerSystem,
  ZOOM,
  measureSigns,
  timeXs,
} from './system.ts';

export interface RulerLayout {
  readonly size: RulerSize;
  /** Pixels of a whole note: the same everywhere on the ruler. */
  readonly scale: number;
  readonly systems: readonly RulerSystem[];
  /** Nothing runs into what is next to it: the ruler is as wide as its shortest notes and longest counts need. */
  readonly isRoomy: boolean;
}

/** Space in front of each line for the names of the lanes and the meter, and after the end. */
const GUTTER: Readonly<Record<RulerSize, number>> = { desk: 104, board: 150, wall: 210, card: 34 };
export const END_GAP = 14;
/** Before a change of meter, in the engraver's units. */
export const METER_GAP = 45;
/** Least pixels from one event to the next, so that notes and counts never touch; and of one letter of a count. */
const CLOSEST: Readonly<Record<RulerSize, number>> = { desk: 26, board: 52, wall: 74, card: 16 };
const LETTER: Readonly<Record<RulerSize, number>> = { desk: 11, board: 26, wall: 38, card: 0 };
/** So much of a line is for time, however narrow: an enlarged page has 320 pixels. */
const LEAST_USABLE = 170;
/** A whole note is never drawn narrower. */
const LEAST_WHOLE: Readonly<Record<RulerSize, number>> = { desk: 200, board: 200, wall: 300, card: 96 };
/** A quarter note is never drawn wider than this, else one short measure fills a wall. */
const WIDEST_QUARTER: Readonly<Record<RulerSize, number>> = { desk: 240, board: 480, wall: 640, card: 60 };
/** A pickup stands on the line of its measure, unless all would have to stand closer than this. */
const CLOSER_FOR_PICKUP = 0.75;
/** Between a flag and the bar line after it. */
const FLAG_CLEAR = 2;

/** How near things may stand: pixels. */
export interface Spacing {
  /** Least pixels from one event to the next. */
  readonly closest: number;
  /** Of one letter of a count. */
  readonly letter: number;
  /** A whole note is never drawn narrower. */
  readonly leastWhole: number;
}

/** A further part on the same axis: its measures, and the letters of its counts. */
export interface PartBeside {
  readonly placed: readonly PlacedMeasure[];
  readonly tokens?: readonly (readonly number[])[];
}

function spacingOf(size: RulerSize): Spacing {
  return { closest: CLOSEST[size], letter: LETTER[size], leastWhole: LEAST_WHOLE[size] };
}

/** Pixels that signs of meter and repeat take before a measure inside a line; before the first there is room. */
export function gapBefore({ meterSign, repeatStart }: MeasureSigns, before: MeasureSigns, size: RulerSize): number {
  const repeats = (repeatStart ? 1 : 0) + (before.repeatEnd ? 1 : 0);
  return ((meterSign ? METER_GAP : 0) + repeats * REPEAT_GAP) * ZOOM[size];
}

/** What comes after the last measure of a line, where it is in another meter: that is said ahead. */
function otherMeterAfter(last: MeasureSigns, all: readonly MeasureSigns[]): MeasureSigns | undefined {
  const next = all[last.index + (last.rests ?? 1)];
  return next?.meterSign ? next : undefined;
}

/** Pixels after the last measure of a line: for the meter of the next. */
function courtesyGap(last: MeasureSigns, all: readonly MeasureSigns[], size: RulerSize): number {
  const next = otherMeterAfter(last, all);
  return next ? gapBefore({ ...next, repeatStart: false }, last, size) : 0;
}

/** Whether a flag of its own stands beside the stem of the last note of a measure. */
export function endsInFlag(measure: PlacedMeasure): boolean {
  const last = measure.events.at(-1);
  if (!last || last.kind === 'rest' || VALUE[last.value.base].flags === 0) return false;
  return !beams(measure).some((group) => group.includes(measure.events.length - 1));
}

/** Pixels from the middle of the last head of a measure to the next beat: nothing is printed over a bar line. */
export function roomAtEnd(measure: PlacedMeasure, size: RulerSize): number {
  return (HALF_HEAD + (endsInFlag(measure) ? FLAG : 0) + FLAG_CLEAR + BAR_BEFORE) * ZOOM[size];
}

/**
 * Lays measures out on lines. Inside a line x is strictly proportional to time; only signs of meter and of repeat open
 * gaps between measures.
 * @param width   pixels to fill
 * @param tokens  the longest written count of each event, in letters, so that the counts have room; by measure and
 * event
 * @param beside  further parts of the same measures, which have to have room on the same axis
 */
export function layoutRuler(
  pattern: Pattern,
  width: number,
  size: RulerSize,
  tokens: readonly (readonly number[])[] = [],
  spacing: Spacing = spacingOf(size),
  beside: readonly PartBeside[] = [],
): RulerLayout {
  const all = measureSigns(pattern, placePattern(pattern));
  const usable = Math.max(LEAST_USABLE, width - GUTTER[size] - END_GAP);
  const needed = Math.max(
    spacing.leastWhole,
    ...all.map(({ placed }, i) => neededScale(placed, spacing, roomAtEnd(placed, size), tokens[i])),
    ...beside.flatMap((part) =>
      part.placed.map((placed, i) => neededScale(placed, spacing, roomAtEnd(placed, size), part.tokens?.[i])),
    ),
  );
  // By full measures, not by what is in them just now: while a measure is being typed nothing else may jump.
  const nominal = Math.max(...all.map(({ placed }) => toNumber(meterLength(placed.meter))));
  const pickups = pattern.pickup && all.length > 1 ? 1 : 0;
  const most = Math.max(1, Math.floor(usable / (nominal * needed)));
  const parts = cutAtNumbers(all, ({ placed }) => placed).map((part, i) => {
    const before = i === 0 && part.length > 1 ? pickups : 0;
    return { part, breaking: { sizes: lineSizes(part.length - before, most), pickups: before, usable, needed, size } };
  });
  const fullest = Math.max(...parts.map(({ breaking }) => breaking.sizes[0]!));
  const wanted = Math.min(usable / (fullest * nominal), Math.max(needed, WIDEST_QUARTER[size] * 4));
  const lines = parts.flatMap(({ part, breaking }) => breakLines(part, all, breaking));
  // A line with a pickup or changes of meter makes all of them a little narrower; an overfull measure goes on its own.
  const scale = Math.min(
    wanted,
    ...lines.map((line) => (usable - gapsOf(line, all, size)) / lineLength(line, fullLength)),
    ...all.map((measure) => (usable - gapsOf([measure], all, size)) / lineLength([measure])),
  );
  const fits = (line: readonly MeasureSigns[]) => lineLength(line) * scale + gapsOf(line, all, size) <= usable + 1;
  const shown = lines.flatMap((line) => filled(line, fits));
  const isRoomy = scale >= needed - 1e-6;
  return { size, scale, isRoomy, systems: shown.map((line) => systemOf(line, all, size, scale)) };
}

function systemOf(
  line: readonly MeasureSigns[],
  all: readonly MeasureSigns[],
  size: RulerSize,
  scale: number,
): RulerSystem {
  let x = GUTTER[size];
  const measures = line.map((signs, i): RulerMeasure => {
    if (i > 0) x += gapBefore(signs, line[i - 1]!, size);
    const wide = toNumber(signs.placed.length) * scale;
    const xs = timeXs(signs.placed, { x, width: wide, scale, size });
    const measure = { ...signs, x, width: wide, xs };
    x += wide;
    return measure;
  });
  return endOfLine(measures, all, Math.max(x, GUTTER[size] + 60), size);
}

/** A line with what stands after it. */
export function endOfLine(
  measures: readonly RulerMeasure[],
  all: readonly MeasureSigns[],
  right: number,
  size: RulerSize,
): RulerSystem {
  const last = measures.at(-1)!;
  const courtesy = otherMeterAfter(last, all)?.placed.meter;
  return { measures, width: right + END_GAP + courtesyGap(last, all, size), ...(courtesy ? { courtesy } : {}) };
}

function neededScale(
  { events }: PlacedMeasure,
  { closest, letter }: Spacing,
  atEnd: number,
  letters: readonly number[] | undefined,
): number {
  return Math.max(
    ...events.map((event, i) => {
      const least = Math.max(closest, i === events.length - 1 ? atEnd : 0);
      return Math.max(least, ((letters?.[i] ?? 1) + 0.6) * letter) / toNumber(event.length);
    }),
  );
}

interface Breaking {
  readonly sizes: readonly number[];
  /** 1 where a pickup stands before the measures that are counted off. */
  readonly pickups: number;
  readonly usable: number;
  readonly needed: number;
  readonly size: RulerSize;
}

/** By the numbers that were worked out, or, where measures are too unlike for that, as many as fit. */
function breakLines(part: readonly MeasureSigns[], all: readonly MeasureSigns[], breaking: Breaking): MeasureSigns[][] {
  const { sizes, pickups, usable, needed, size } = breaking;
  const fits = (line: readonly MeasureSigns[], closer = 1) =>
    lineLength(line) * needed * closer + gapsOf(line, all, size) <= usable + 1;
  const even = cutIntoLines(part, sizes, pickups);
  const closer = (i: number) => (i === 0 && pickups === 1 ? CLOSER_FOR_PICKUP : 1);
  if (even.every((line, i) => fits(line, closer(i)))) return even;
  return filled(part, (line) => {
    const withPickup = pickups === 1 && line[0] === part[0];
    const room = line.length <= sizes[0]! + (withPickup ? 1 : 0);
    return room && fits(line, withPickup && line.length === 2 ? CLOSER_FOR_PICKUP : 1);
  });
}

/** As many on each line as fit. */
function filled(measures: readonly MeasureSigns[], fits: (line: readonly MeasureSigns[]) => boolean): MeasureSigns[][] {
  const lines: MeasureSigns[][] = [];
  for (const measure of measures) {
    const line = lines.at(-1);
    if (line && fits([...line, measure])) line.push(measure);
    else lines.push([measure]);
  }
  return lines;
}

function lineLength(
  line: readonly MeasureSigns[],
  lengthOf: (measure: PlacedMeasure) => number = ({ length }) => toNumber(length),
): number {
  return line.reduce((sum, { placed }) => sum + lengthOf(placed), 0);
}

/** Of an overfull measure what it should be. */
function fullLength({ length, meter }: PlacedMeasure): number {
  return Math.min(toNumber(length), toNumber(meterLength(meter)));
}

/** Pixels of a line that are no time: for signs of meter and repeat. */
export function gapsOf(line: readonly MeasureSigns[], all: readonly MeasureSigns[], size: RulerSize): number {
  const inside = line.slice(1).reduce((sum, signs, i) => sum + gapBefore(signs, line[i]!, size), 0);
  return inside + courtesyGap(line.at(-1)!, all, size);
}
