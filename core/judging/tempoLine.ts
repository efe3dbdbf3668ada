import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { BOUNCE } from './windows.ts';
import { type TakeResult } from './takeResult.ts';

/** A clap of a take with its note. */
export interface Paired {
  readonly note: number;
  /** Seconds: as written at the set tempo, and as clapped. */
  readonly written: number;
  readonly heard: number;
}

/** Which onset each note that was heard got: what is left when the extra claps and bounces are taken away, in order. */
export function pairsOf(
  pattern: Pattern,
  bpm: number,
  { notes, extras }: Pick<TakeResult, 'notes' | 'extras'>,
  onsets: readonly number[],
): Paired[] {
  const extra = new Set(extras.map(({ time }) => time.toFixed(4)));
  const kept = onsets.filter((time) => !extra.has(time.toFixed(4)));
  const heard = notes.filter(({ verdict }) => verdict !== 'missed');
  const claps = kept.length > heard.length ? kept.filter((time, i) => i === 0 || time - kept[i - 1]! >= BOUNCE) : kept;
  const { notes: written } = scheduleOf(pattern, bpm);
  return heard.flatMap(({ index }, i) =>
    claps[i] === undefined || !written[index] ? [] : [{ note: index, written: written[index].time, heard: claps[i] }],
  );
}

/** Neighbours on either side that are taken together, so that one uneven clap does not look like another tempo. */
const SMOOTH = 2;

/**
 * The tempo from place to place: counted beats a minute, each taken from the claps around it.
 * @returns one point a note, `at` in seconds as written
 */
export function tempoLine(
  pattern: Pattern,
  bpm: number,
  result: Pick<TakeResult, 'notes' | 'extras'>,
  onsets: readonly number[],
): { readonly at: number; readonly bpm: number }[] {
  const pairs = pairsOf(pattern, bpm, result, onsets);
  return pairs.flatMap(({ written }, i) => {
    const from = pairs[Math.max(0, i - SMOOTH)]!;
    const to = pairs[Math.min(pairs.length - 1, i + SMOOTH)]!;
    const played = to.heard - from.heard;
    const tempo = (bpm * (to.written - from.written)) / played;
    return played > 0 && Number.isFinite(tempo) && tempo > 0 ? [{ at: written, bpm: Math.round(tempo * 10) / 10 }] : [];
  });
}
