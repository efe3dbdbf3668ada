import { pairHits, tolerances } from './pairHits.ts';
import { round } from './mark.ts';
import { LARGEST_LEAD, type Windows, verdictOf } from './windows.ts';

/** How the feet kept the beat while the hands clapped, and how far the two were apart. */
export interface FeetResult {
  /** Steps that came on the beat, and the beats there were. */
  readonly onBeat: number;
  readonly beats: number;
  readonly extras: number;
  /**
   * How far the steps were ahead of the beat on the whole, in ms; taken off before they are judged, as for the hands.
   */
  readonly leadMs: number;
  /**
   * Where hands and feet fall together, how much later the hands came, in ms: on the whole, and how much that varies.
   */
  readonly handsLaterMs: number;
  readonly apartMs: number;
}

/**
 * Judges the second stream of a two-line performance: a step on every beat.
 * @param beats  seconds, rising: when each beat was due
 * @param feet   seconds, rising, on the same clock
 * @param hands  seconds, rising, on the same clock
 */
export function judgeFeet(
  beats: readonly number[],
  feet: readonly number[],
  hands: readonly number[],
  windows: Windows,
): FeetResult {
  const lag = steadyLag(beats, feet, windows);
  const due = beats.map((time) => time + lag);
  const near = tolerances(due, windows);
  const paired = stepsOn(due, feet, windows).map(({ beat, step }) => ({
    beat: due[beat]!,
    step,
    tolerance: near[beat]!,
  }));
  const onBeat = paired.filter(
    ({ beat, step, tolerance }) => verdictOf(step - beat, tolerance.onTime) === 'on-time',
  ).length;
  const gaps = paired.flatMap(({ step, tolerance }) => {
    const together = hands.filter(
      (time) => time >= step - tolerance.reach.early && time <= step + tolerance.reach.late,
    );
    const nearest = together.reduce(
      (best, time) => (Math.abs(time - step) < Math.abs(best - step) ? time : best),
      Infinity,
    );
    return nearest === Infinity ? [] : [nearest - step];
  });
  const mean = gaps.reduce((sum, gap) => sum + gap, 0) / Math.max(1, gaps.length);
  const apart = Math.sqrt(gaps.reduce((sum, gap) => sum + (gap - mean) ** 2, 0) / Math.max(1, gaps.length - 1));
  return {
    onBeat,
    beats: beats.length,
    extras: feet.length - paired.length,
    leadMs: round(-lag * 1000, 10) || 0,
    handsLaterMs: round(mean * 1000, 10),
    apartMs: round(apart * 1000, 10),
  };
}

/** Which step was which beat. */
function stepsOn(due: readonly number[], feet: readonly number[], windows: Windows): { beat: number; step: number }[] {
  const { hits } = pairHits(due, tolerances(due, windows), feet);
  return due.flatMap((_, beat) => (hits[beat]! >= 0 ? [{ beat, step: feet[hits[beat]!]! }] : []));
}

/** How far the steps are behind the beat on the whole: the middle one, and no more than is taken off the hands. */
function steadyLag(beats: readonly number[], feet: readonly number[], windows: Windows): number {
  const late = stepsOn(beats, feet, windows)
    .map(({ beat, step }) => step - beats[beat]!)
    .sort((a, b) => a - b);
  const middle = late.length === 0 ? 0 : (late[(late.length - 1) >> 1]! + late[late.length >> 1]!) / 2;
  return Math.max(-LARGEST_LEAD, Math.min(LARGEST_LEAD, middle));
}
