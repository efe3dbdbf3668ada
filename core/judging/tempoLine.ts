import { toNumber } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import type { TakeResult } from './takeResult.ts';

/** A clap of a take with its note. */
export interface Paired {
  readonly note: number;
  /** Seconds: as written at the set tempo, and as clapped. */
  readonly written: number;
  readonly heard: number;
}

/** The notes that were heard, each with its clap. */
export function pairsOf(
  pattern: Pattern,
  bpm: Bpm,
  { notes }: Pick<TakeResult, 'notes'>,
  onsets: readonly Seconds[],
): Paired[] {
  const { notes: written } = scheduleOf(pattern, bpm);
  return notes.flatMap(({ index, onset }) =>
    onset === undefined ? [] : [{ note: index, written: written[index]!.time, heard: onsets[onset]! }],
  );
}

/** Neighbours on either side that are taken together, so that one uneven clap does not look like another tempo. */
const SMOOTH = 2;

/** The beats by which the child was ahead at a note. */
function aheadAt(follow: TakeResult['follow'], note: number): number {
  const since = follow.findLast(({ fromNote }) => fromNote <= note);
  return since ? toNumber(since.beatsAhead) : 0;
}

/**
 * The tempo from place to place: counted beats a minute, each taken from the claps around it. The child is followed: a
 * rest that was given no time is no faster tempo.
 * @returns one point a note, `at` in seconds as written
 */
export function tempoLine(
  pattern: Pattern,
  bpm: Bpm,
  result: Pick<TakeResult, 'notes' | 'follow' | 'tempo'>,
  onsets: readonly Seconds[],
): { readonly at: number; readonly bpm: number }[] {
  const beat = 60 / (result.tempo.bpm || bpm);
  const pairs = pairsOf(pattern, bpm, result, onsets).map((pair) => ({
    ...pair,
    heard: pair.heard + aheadAt(result.follow, pair.note) * beat,
  }));
  return pairs.flatMap(({ written }, i) => {
    const from = pairs[Math.max(0, i - SMOOTH)]!;
    const to = pairs[Math.min(pairs.length - 1, i + SMOOTH)]!;
    const played = to.heard - from.heard;
    const tempo = (bpm * (to.written - from.written)) / played;
    return played > 0 && Number.isFinite(tempo) && tempo > 0 ? [{ at: written, bpm: Math.round(tempo * 10) / 10 }] : [];
  });
}
