import { EPSILON } from '../timing/tolerance.ts';
import { type Schedule, playedPlace } from '../timing/schedule.ts';
import type { Seconds } from '../timing/units.ts';
import { type Spot, extraKind, spotAt } from './extras.ts';
import type { Hit } from './hit.ts';
import type { Follower } from './follower.ts';
import { round } from './mark.ts';
import { pairHits, tolerances } from './pairHits.ts';
import type { Extra, JudgedNote, Verdict } from './takeResult.ts';
import { type Windows, verdictOf } from './windows.ts';

export interface JudgedNotes {
  readonly notes: readonly JudgedNote[];
  /** Each note's hit, or -1. */
  readonly paired: Int32Array;
}

/** Each note where the child was followed to. */
export function judgeNotes(
  schedule: Schedule,
  follower: Follower,
  windows: Windows,
  hits: readonly Hit[],
): JudgedNotes {
  const due = schedule.notes
    .map(({ time }, note) => (follower.leftOut(time) ? undefined : { note, at: follower.heard(time) }))
    .filter((note) => note !== undefined)
    .sort((a, b) => a.at - b.at);
  const times = due.map(({ at }) => at);
  const near = tolerances(times, windows);
  const pairing = pairHits(
    times,
    near,
    hits.map(({ time }) => time),
  );
  const paired = new Int32Array(schedule.notes.length).fill(-1);
  const judged = new Map<number, { readonly verdict: Verdict; readonly errorMs: number; readonly onset: number }>();
  due.forEach(({ note, at }, i) => {
    const k = pairing.hits[i]!;
    if (k < 0) return;
    const { time, onset } = hits[k]!;
    paired[note] = k;
    judged.set(note, {
      verdict: verdictOf(time - at, near[i]!.onTime),
      errorMs: round((time - at) * 1000, 10),
      onset,
    });
  });
  const notes = schedule.notes.map(({ place }, index): JudgedNote => {
    const found = judged.get(index);
    return found ? { index, ...place, ...found } : { index, ...place, verdict: 'missed' };
  });
  return { notes, paired };
}

/** The hits that belong to no note, and where they fell. */
export function judgeExtras(
  schedule: Schedule,
  follower: Follower,
  hits: readonly Hit[],
  paired: Int32Array,
  onsets: readonly Seconds[],
  replayed: ReadonlySet<number>,
): Extra[] {
  const used = new Set([...paired, ...replayed]);
  let counted = -Infinity;
  return hits.flatMap(({ time, onset }, i): Extra[] => {
    if (used.has(i)) {
      counted = time;
      return [];
    }
    const written = follower.written(time);
    const spot = spotAt(schedule, written) ?? edgeSpot(schedule, written);
    const place = playedPlace(schedule.measures, spot.played, spot.onset);
    return [{ onset, seconds: onsets[onset]!, ...place, kind: extraKind(schedule, written, time - counted) }];
  });
}

/** Before the first written time the beginning, after the last the end. */
function edgeSpot({ measures, end }: Schedule, time: Seconds): Pick<Spot, 'played' | 'onset'> {
  const atEnd = time >= end / 2;
  const played = atEnd ? measures.length - 1 : 0;
  const { measure } = measures[played]!;
  return { played, onset: (atEnd ? measure.events.at(-1) : measure.events[0])?.onset ?? measure.onset };
}

/**
 * Part of the notes that came with the click, only the steady lead taken off.
 * @param schedule  at the tempo of the click
 * @param lag  seconds behind it
 */
export function partWithClick(
  { notes }: Schedule,
  lag: Seconds,
  windows: Windows,
  { onsets, start = 0 }: { readonly onsets: readonly Seconds[]; readonly start?: Seconds | undefined },
): number {
  if (notes.length === 0) return onsets.length === 0 ? 1 : 0;
  const times = notes.map(({ time }) => time + lag);
  const near = tolerances(times, windows);
  const moments = onsets.map((time) => time - start);
  const pairing = pairHits(times, near, moments);
  const together = times.filter((time, i) => {
    const hit = pairing.hits[i]!;
    return hit >= 0 && verdictOf(moments[hit]! - time, near[i]!.onTime) === 'on-time';
  });
  return together.length / times.length;
}

/**
 * For writing out what was heard: by the written clock, tempo and a late start taken off; what was on time where it is
 * written stands just there.
 */
export function straightened(
  schedule: Schedule,
  follower: Follower,
  hits: readonly Hit[],
  { notes, paired }: JudgedNotes,
): Seconds[] {
  const at = hits.map(({ time }) => follower.straight(time));
  for (const { verdict, index } of notes) {
    const { time } = schedule.notes[index]!;
    if (verdict === 'on-time' && Math.abs(follower.unshifted(time) - time) < EPSILON) at[paired[index]!] = time;
  }
  return at.sort((a, b) => a - b);
}
