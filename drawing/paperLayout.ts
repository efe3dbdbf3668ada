import { beams } from '../core/rhythm/beams.ts';
import { equal, toNumber } from '../core/rhythm/fraction.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../core/rhythm/place.ts';
import { VALUE } from '../core/rhythm/value.ts';
import { END_GAP, endOfLine, gapBefore, gapsOf, roomAtEnd } from './layout.ts';
import { cutAtNumbers, cutIntoLines, lineSizes } from './lineSizes.ts';
import {
  DOT_STEP,
  FLAG,
  HALF_HEAD,
  type MeasureSigns,
  type RulerMeasure,
  type RulerSize,
  type RulerSystem,
  ZOOM,
  isCentred,
  measureSigns,
  middleOf,
} from './system.ts';

export interface PaperOptions {
  readonly size: RulerSize;
  /** Pixels to fill. */
  readonly width: number;
  /** Pixels in front of the first beat of each line. */
  readonly before: number;
  /** Letters of what is written under each event, by measure and event; and how wide one is, pixels. */
  readonly letters?: readonly (readonly number[])[] | undefined;
  readonly letter?: number;
  /** Several measures of rest one by one, not as one sign with their number. */
  readonly eachRest?: boolean | undefined;
  /** How much a single line may be widened; more lines are all as wide as the paper. */
  readonly widest?: number;
}

/** In the engraver's units (a tenth of a space), as text books have them: room of a quarter at its closest, */
const QUARTER = 29;
/** of two events side by side, and how far the first note stands from where its beat would be. */
const CLOSEST = 21;
const FIRST_CLEAR = 5;
/** A note twice as long takes half as much again. */
const GROWTH = Math.log2(1.5);
/** Several measures of rest as one sign. */
const MANY_RESTS = 90;
/** How much a single line is widened at most. */
const WIDEST = 1.7;

/** What the room of a measure depends on. */
type Room = Pick<PaperOptions, 'size' | 'letters' | 'letter' | 'eachRest'>;

/** A measure before it is known how wide the line is. */
interface Unit {
  readonly signs: MeasureSigns;
  /** Room of each event at its closest. */
  readonly rooms: readonly number[];
  /** What is not widened, before the first of them. */
  readonly lead: number;
}

/**
 * Lays measures out as an engraver does: a note takes room by its value, not in proportion to it, the first stands
 * clear of the bar line, lines hold about as many measures and are as wide as each other.
 */
export function layoutPaper(pattern: Pattern, options: PaperOptions): RulerSystem[] {
  const { size } = options;
  const all = measureSigns(pattern, placePattern(pattern));
  const units = unitsOf(pattern, all, options);
  const usable = options.width - options.before - END_GAP;
  const pickups = pattern.pickup && units.length > 1 ? 1 : 0;
  const lines = cutAtNumbers(units, ({ signs }) => signs.placed).flatMap((part, i) =>
    linesOf(part, all, usable, i === 0 && part.length > 1 ? pickups : 0, size),
  );
  const most = lines.length > 1 ? Infinity : (options.widest ?? WIDEST);
  return lines.map((line) => {
    const fixed = fixedOf(line, all, size);
    const wider = Math.min(most, (usable - fixed) / flexibleOf(line));
    let x = options.before;
    const measures = line.map((unit, i): RulerMeasure => {
      const { signs, rooms, lead } = unit;
      if (i > 0) x += gapBefore(signs, line[i - 1]!.signs, size);
      const width = lead + flexibleOf([unit]) * wider;
      const measure = { ...signs, x, width, xs: xsOf(signs, rooms, { x, width, lead, wider, size }) };
      x += width;
      return measure;
    });
    return endOfLine(measures, all, x, size);
  });
}

/** Pixels of the narrowest line that holds all of a pattern. */
export function neededPixels(pattern: Pattern, options: Pick<PaperOptions, 'size' | 'before'>): number {
  const all = measureSigns(pattern, placePattern(pattern));
  const units = unitsOf(pattern, all, options);
  return options.before + fixedOf(units, all, options.size) + flexibleOf(units) + END_GAP;
}

function xsOf(
  { placed, rests }: MeasureSigns,
  rooms: readonly number[],
  { x, width, lead, wider, size }: { x: number; width: number; lead: number; wider: number; size: RulerSize },
): number[] {
  if (rests !== undefined || isCentred(placed)) return [middleOf(x, width, size)];
  let at = x + lead;
  return rooms.map((room) => {
    const here = at;
    at += room * wider;
    return here;
  });
}

/** Measures with the room they need; several measures of rest are one. */
function unitsOf(pattern: Pattern, all: readonly MeasureSigns[], options: Room): Unit[] {
  const zoom = ZOOM[options.size];
  const lead = FIRST_CLEAR * zoom;
  return all.flatMap((signs, i): Unit[] => {
    const { placed } = signs;
    const rests = options.eachRest ? 1 : (pattern.measures[placed.written]!.rests ?? 1);
    if (rests === 1) return [{ signs, rooms: roomsOf(placed, options, options.letters?.[i]), lead }];
    if (placed.restNumber !== 1) return [];
    const end = all[i + rests - 1]!;
    const one = { ...signs, rests, repeatEnd: end.repeatEnd, last: end.last };
    return [{ signs: one, rooms: [MANY_RESTS * zoom], lead }];
  });
}

function roomsOf(placed: PlacedMeasure, { size, letter = 0 }: Room, letters: readonly number[] | undefined): number[] {
  const zoom = ZOOM[size];
  const groups = beams(placed);
  const beamed = new Set(groups.flat());
  const { events } = placed;
  const rooms = events.map(({ kind, value, length }, i) => {
    const flagged = kind !== 'rest' && VALUE[value.base].flags > 0 && !beamed.has(i);
    const sign = 2 * HALF_HEAD + value.dots * DOT_STEP + (flagged ? FLAG : 0) + 4;
    const byValue = QUARTER * Math.pow(4 * toNumber(length), GROWTH);
    const text = letters?.[i] === undefined ? 0 : (letters[i] + 0.6) * letter;
    const atEnd = i === events.length - 1 ? roomAtEnd(placed, size) + value.dots * DOT_STEP * zoom : 0;
    return Math.max(byValue * zoom, CLOSEST * zoom, sign * zoom, text, atEnd);
  });
  return evened(rooms, groups, placed);
}

/** Notes under one beam that are alike stand evenly, whatever is written under them; before a bar line one may not. */
function evened(rooms: readonly number[], groups: readonly (readonly number[])[], { events }: PlacedMeasure): number[] {
  const even = [...rooms];
  for (const group of groups) {
    // After the last of them comes something else.
    const inside = group.slice(0, -1);
    for (const i of inside) {
      const alike = inside.filter((k) => equal(events[k]!.length, events[i]!.length));
      even[i] = Math.max(...alike.map((k) => rooms[k]!));
    }
  }
  return even;
}

function linesOf(
  units: readonly Unit[],
  all: readonly MeasureSigns[],
  usable: number,
  pickups: number,
  size: RulerSize,
): Unit[][] {
  const counted = units.length - pickups;
  for (let most = counted; most > 0; most--) {
    const lines = cutIntoLines(units, lineSizes(counted, most), pickups);
    if (most === 1 || lines.every((line) => fixedOf(line, all, size) + flexibleOf(line) <= usable)) return lines;
  }
  return [];
}

/** Pixels of a line that are never widened, and those that are. */
function fixedOf(line: readonly Unit[], all: readonly MeasureSigns[], size: RulerSize): number {
  const signs = line.map((unit) => unit.signs);
  return gapsOf(signs, all, size) + line.reduce((sum, { lead }) => sum + lead, 0);
}

function flexibleOf(line: readonly Unit[]): number {
  return line.reduce((sum, { rooms }) => sum + rooms.reduce((all, room) => all + room, 0), 0);
}
