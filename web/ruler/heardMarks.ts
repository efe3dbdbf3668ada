import { tolerances } from '../../core/judging/pairHits.ts';
import type { TakeResult } from '../../core/judging/takeResult.ts';
import type { Windows } from '../../core/judging/windows.ts';
import { ONE, sub, toNumber } from '../../core/rhythm/fraction.ts';
import { beatOf } from '../../core/rhythm/meter.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { type Schedule, scheduleOf } from '../../core/timing/schedule.ts';
import type { Bpm, Seconds } from '../../core/timing/units.ts';
import type { HeardMark } from './HeardLane.tsx';

/**
 * Where everything heard stands on the ruler of the pattern as it is played. Lead and lag are taken off, as in judging,
 * so a mark in its window is a note on time.
 * @param pattern  as written; the marks count its measures in playing order
 */
export function heardMarks(
  pattern: Pattern,
  bpm: Bpm,
  result: Pick<TakeResult, 'notes' | 'extras' | 'tempo' | 'follow'>,
  windows: Windows,
  free = false,
): HeardMark[] {
  const schedule = scheduleOf(pattern, bpm);
  const { notes, whole } = schedule;
  const near = tolerances(
    notes.map(({ time }) => time),
    windows,
  );
  const judged = result.notes.map(({ index, played, verdict, errorMs = 0 }): HeardMark => {
    const written = toNumber(notes[index]!.event.onset);
    const { early, late } = near[index]!.onTime;
    const window = { early: early / whole, late: late / whole };
    return { measure: played, written, window, shape: verdict, onset: written + errorMs / 1000 / whole };
  });
  // Where the child was followed, or there was no click, an extra clap stands at its place in the rhythm, not by the
  // clock.
  const byPlace = free || result.follow.length > 0;
  const lead = result.tempo.leadMs / 1000;
  const extras = result.extras.map((extra): HeardMark => {
    const place = byPlace ? placeOf(schedule, extra) : momentOf(schedule, extra.seconds + lead);
    return { ...place, shape: 'extra' };
  });
  return [...judged, ...extras];
}

function placeOf({ measures }: Schedule, { played, beat }: TakeResult['extras'][number]) {
  const { meter } = measures[played]!.measure;
  return { measure: played, onset: toNumber(sub(beat, ONE)) * toNumber(beatOf(meter).length) };
}

function momentOf({ measures, whole }: Schedule, time: Seconds) {
  const at = time / whole;
  const played = Math.max(
    0,
    measures.findLastIndex((one) => toNumber(one.at) <= at),
  );
  const { at: from, measure } = measures[played]!;
  const inside = Math.min(Math.max(at - toNumber(from), -0.05), toNumber(measure.length) + 0.02);
  return { measure: played, onset: toNumber(measure.onset) + inside };
}
