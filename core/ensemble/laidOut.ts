import { pairsOf } from '../judging/tempoLine.ts';
import type { TakeResult } from '../judging/takeResult.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { lineThrough } from './line.ts';

/** A single take as far as it can stand beside others. */
export interface TakeOfOne {
  readonly bpm: Bpm;
  /** Nobody clicked: it goes at a tempo of its own, from wherever it began. */
  readonly free: boolean;
  /** Seconds from beat 1 of measure 1; where it is free from anywhere. */
  readonly onsets: readonly Seconds[];
  readonly result: Pick<TakeResult, 'notes'>;
}

/** Fewer notes of a free take say neither where it began nor how fast it went. */
const FEWEST_PLACED = 3;

/**
 * The claps of a take beside those of others: seconds from beat 1 of measure 1, at a tempo for all of them. What was
 * clapped to a click stays as far off it as it was, in parts of a beat; a free take stands on its own beat.
 * @returns undefined for a free take of which too little was right to place it
 */
export function laidOut(pattern: Pattern, { bpm, free, onsets, result }: TakeOfOne, at: Bpm): Seconds[] | undefined {
  if (!free) return onsets.map((onset) => (onset * bpm) / at);
  const pairs = pairsOf(pattern, at, result, onsets);
  if (pairs.length < FEWEST_PLACED) return undefined;
  const line = lineThrough(
    pairs.map(({ written }) => written),
    pairs.map(({ heard }) => heard),
  );
  return line.slope > 0 ? onsets.map((onset) => (onset - line.at) / line.slope) : undefined;
}
