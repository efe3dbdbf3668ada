import { cellsIn } from '../exercises/rhythms/cells.ts';
import { div, isWhole, toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Measure, Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { itemText } from '../rhythm/text.ts';

export type Level = 1 | 2 | 3 | 4 | 5;
export const LEVELS: readonly Level[] = [1, 2, 3, 4, 5];

/** What makes a rhythm hard to read (rules §11). */
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
  const counted = { cells, changes, notesABeat, offbeats };
  const score = scoreOf(counted);
  return { ...counted, score, level: levelOf(score) };
}

/** Where the first level begins and the last one ends, for what lies in the middle of them. */
const EASIEST = 0.5;
const HARDEST = 5.5;

export function levelOf(score: number): Level {
  return (1 + LEVEL_BORDERS.filter((border) => score >= border).length) as Level;
}

/** The score to aim at: the middle of a level. */
export function middleOf(level: Level): number {
  const from = LEVEL_BORDERS[level - 2] ?? EASIEST;
  const to = LEVEL_BORDERS[level - 1] ?? HARDEST;
  return (from + to) / 2;
}

/** From where a level begins to where it ends, as a score. */
export function wayAcross(level: Level): number {
  return (LEVEL_BORDERS[level - 1] ?? HARDEST) - (LEVEL_BORDERS[level - 2] ?? EASIEST);
}

/** All of it in one number (see `Difficulty`), from what was counted. */
export function scoreOf({ cells, changes, notesABeat, offbeats }: Omit<Difficulty, 'score' | 'level'>): number {
  const score =
    WEIGHTS.cells * (Math.min(cells, MOST_CELLS) - 1) +
    WEIGHTS.changes * changes +
    WEIGHTS.notes * Math.max(0, notesABeat - 1) +
    WEIGHTS.offbeats * offbeats;
  return Math.max(0, score);
}

/**
 * The level with its fraction: 1 at the easiest, 2 where level 2 begins, 2.5 in its middle; up to 5.99.
 * @param score  of a difficulty
 */
export function exactLevel(score: number): number {
  const level = levelOf(score);
  const from = LEVEL_BORDERS[level - 2] ?? EASIEST;
  const to = LEVEL_BORDERS[level - 1] ?? HARDEST;
  return level + Math.min(0.99, Math.max(0, (score - from) / (to - from)));
}
