import type { TakeResult } from '../../contract/take.ts';
import { tolerances } from '../../core/judging/pairHits.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { type Windows } from '../../core/judging/windows.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import { beatOf } from '../../core/rhythm/meter.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { HeardMark } from './HeardLane.tsx';

/**
 * Where on the ruler of an unfolded pattern everything heard stands. Lead and lag are taken off, as in judging,
 * so a mark in its window is a note on time.
 */
export function heardMarks(
  unfolded: Pattern,
  bpm: number,
  result: Pick<TakeResult, 'notes' | 'extras' | 'tempo' | 'follow'>,
  windows: Windows,
  free = false,
): HeardMark[] {
  const { measures, notes, whole } = scheduleOf(unfolded, bpm);
  const near = tolerances(
    notes.map(({ time }) => time),
    windows,
  );
  const indexOf = new Map(measures.map(({ measure }, i) => [measure, i] as const));
  const judged = result.notes.flatMap(({ index, verdict, errorMs = 0 }): HeardMark[] => {
    const note = notes[index];
    if (!note) return [];
    const written = toNumber(note.event.onset);
    const { onTime } = near[index]!;
    const window = { early: onTime.early / whole, late: onTime.late / whole };
    return [
      { measure: indexOf.get(note.measure)!, written, window, shape: verdict, onset: written + errorMs / 1000 / whole },
    ];
  });
  // Where the child was followed, or there was no click, an extra clap stands at its place in the rhythm, not by the clock.
  const byPlace = free || result.follow.length > 0;
  const extras = result.extras.map(({ time, measure: number, beat }): HeardMark => {
    const named = byPlace ? measures.findIndex(({ measure }) => measure.number === number) : -1;
    if (named >= 0)
      return {
        measure: named,
        shape: 'extra',
        onset: (beatNumber(beat) - 1) * toNumber(beatOf(measures[named]!.measure.meter).length),
      };
    const at = (time + result.tempo.leadMs / 1000) / whole;
    const found = measures.findLastIndex((played) => toNumber(played.at) <= at);
    const index = Math.max(0, found);
    const { at: from, measure } = measures[index]!;
    const inside = Math.min(Math.max(at - toNumber(from), -0.05), toNumber(measure.length) + 0.02);
    return { measure: index, shape: 'extra', onset: toNumber(measure.onset) + inside };
  });
  return [...judged, ...extras];
}

/** "2 1/2" as a number. */
function beatNumber(beat: string): number {
  return beat.split(' ').reduce((sum, part) => {
    const [n, d = '1'] = part.split('/');
    return sum + Number(n) / Number(d);
  }, 0);
}
