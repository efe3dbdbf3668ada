import { cellsIn } from '../exercises/rhythms/cells.ts';
import { compare, div, frac, isWhole, mul, sum, toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Measure, Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { itemText } from '../rhythm/text.ts';

export type Level = 1 | 2 | 3 | 4 | 5;
export const LEVELS: readonly Level[] = [1, 2, 3, 4, 5];

/** What makes a rhythm hard to read (handbook §11). */
export interface Difficulty {
  /** Different cells: what stands between two beats that nothing sounds over. */
  readonly cells: number;
  /** How often a cell is not the one before it, 0 to 1. */
  readonly changes: number;
  /** Sounded notes a beat. */
  readonly notesABeat: number;
  /** Sounded notes that start off the beat, a beat. */
  readonly offbeats: number;
  /** All of it in one number, from 0. */
  readonly score: number;
  readonly level: Level;
}

/** What each adds to the score; set so that the starter patterns of the five ages fall into their levels. */
const WEIGHTS = { cells: 0.5, changes: 1, notes: 0.8, offbeats: 1.4 } as const;
/** More different cells than these are not harder to read. */
const MOST_CELLS = 8;
/** Where the levels 2 to 5 begin. */
export const LEVEL_BORDERS: readonly number[] = [1.4, 2.2, 3.1, 4.1];

function cellTexts({ items, meter }: Measure): string[] {
  return cellsIn(items, beatOf(meter).length).map((cell) => cell.map(itemText).join(' '));
}

/** How hard a pattern is to read; the measures are counted as they are written. */
export function difficultyOf(pattern: Pattern): Difficulty {
  const texts = pattern.measures.flatMap(cellTexts);
  const cells = new Set(texts).size;
  const changes =
    texts.length < 2 ? 0 : texts.filter((text, i) => i > 0 && text !== texts[i - 1]).length / (texts.length - 1);
  let [beats, notes, off] = [0, 0, 0];
  for (const { meter, length, events } of placePattern(pattern)) {
    const beat = beatOf(meter).length;
    beats += toNumber(div(length, beat));
    for (const { kind, onset } of events) {
      if (kind !== 'note') continue;
      notes++;
      if (!isWhole(div(onset, beat))) off++;
    }
  }
  const notesABeat = beats === 0 ? 0 : notes / beats;
  const offbeats = beats === 0 ? 0 : off / beats;
  const score =
    WEIGHTS.cells * (Math.min(cells, MOST_CELLS) - 1) +
    WEIGHTS.changes * changes +
    WEIGHTS.notes * Math.max(0, notesABeat - 1) +
    WEIGHTS.offbeats * offbeats;
  const level = (1 + LEVEL_BORDERS.filter((border) => score >= border).length) as Level;
  return { cells, changes, notesABeat, offbeats, score: Math.max(0, score), level };
}

/** The score to aim at: the middle of a level. */
export function middleOf(level: Level): number {
  const from = LEVEL_BORDERS[level - 2] ?? 0.5;
  const to = LEVEL_BORDERS[level - 1] ?? 5.5;
  return (from + to) / 2;
}

/** A quarter or longer at the end, on a beat; or a rest on the last beat (handbook §11). */
export function endsWell(pattern: Pattern, level: Level): boolean {
  const last = placePattern(pattern).at(-1);
  const event = last?.events.at(-1);
  if (!last || !event) return false;
  const beat = beatOf(last.meter).length;
  const onBeat = isWhole(div(event.onset, beat));
  if (event.kind === 'rest') return level >= 2 && onBeat && compare(event.length, mul(beat, frac(2))) <= 0;
  const least = compare(beat, frac(1, 4)) < 0 ? beat : frac(1, 4);
  return onBeat && compare(event.length, least) >= 0;
}

/** Of all the time no more than this is rests, else there is nothing to clap. */
const MOST_REST = frac(3, 8);

/** No more than two rests in a row, none at the start below level 3, no measure of nothing else. */
export function restsWell(pattern: Pattern, level: Level): boolean {
  const placed = placePattern(pattern);
  const events = placed.flatMap((measure) => measure.events);
  const kinds = events.map(({ kind }) => kind);
  if (level < 3 && kinds[0] === 'rest') return false;
  if (placed.some((measure) => measure.events.every(({ kind }) => kind === 'rest'))) return false;
  const rests = sum(events.filter(({ kind }) => kind === 'rest').map(({ length }) => length));
  if (compare(rests, mul(sum(placed.map(({ length }) => length)), MOST_REST)) > 0) return false;
  return !kinds.some((kind, i) => kind === 'rest' && kinds[i + 1] === 'rest' && kinds[i + 2] === 'rest');
}
