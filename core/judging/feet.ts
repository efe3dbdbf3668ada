import { pairHits, tolerances } from './pairHits.ts';
import type { Seconds } from '../timing/units.ts';
import { round } from './mark.ts';
import { LARGEST_LEAD, type Windows, verdictOf } from './windows.ts';

/** How the feet kept the beat while the hands clapped, and how far the two were apart. */
export interface FeetResult {
  /** Steps that came on the beat, and the beats there were. */
  readonly onBeat: number;
  readonly beats: number;
  readonly extras: number;
  /**
   * How far the steps were ahead of the beat on the whole, in ms; taken off before they are judged, as far as it is for
   * the hands.
   */
  readonly leadMs: number;
  /**
   * Where hands and feet fall together, how much later the hands came, in ms: on the whole, and how much that varies.
   */
  readonly handsLaterMs: number;
  readonly apartMs: number;
}

/** A beat as it was due, in seconds, and the clap of the note that is written on it, if there was one. */
export interface SteppedBeat {
  readonly time: Seconds;
  readonly hand: Seconds | undefined;
}

/**
 * Judges the second stream of a two-line performance: a step on every beat.
 * @param beats  rising
 * @param feet   seconds, rising, on the same clock
 */
export function judgeFeet(beats: readonly SteppedBeat[], feet: readonly Seconds[], windows: Windows): FeetResult {
  const times = beats.map(({ time }) => time);
  const behind = middleLag(times, feet, windows);
  const lag = Math.max(-LARGEST_LEAD, Math.min(LARGEST_LEAD, behind));
  const due = times.map((time) => time + lag);
  const near = tolerances(due, windows);
  const paired = stepsOn(due, feet, windows).map(({ beat, step }) => ({
    beat: due[beat]!,
    hand: beats[beat]!.hand,
    step,
    tolerance: near[beat]!,
  }));
  const onBeat = paired.filter(
    ({ beat, step, tolerance }) => verdictOf(step - beat, tolerance.onTime) === 'on-time',
  ).length;
  // A hand that went elsewhere was no partner of this step.
  const gaps = paired.flatMap(({ hand, step, tolerance: { reach } }) =>
    hand !== undefined && hand >= step - reach.early && hand <= step + reach.late ? [hand - step] : [],
  );
  const mean = gaps.reduce((sum, gap) => sum + gap, 0) / Math.max(1, gaps.length);
  const apart = Math.sqrt(gaps.reduce((sum, gap) => sum + (gap - mean) ** 2, 0) / Math.max(1, gaps.length - 1));
  return {
    onBeat,
    beats: beats.length,
    extras: feet.length - paired.length,
    leadMs: round(-behind * 1000, 10) || 0,
    handsLaterMs: round(mean * 1000, 10),
    apartMs: round(apart * 1000, 10),
  };
}

/** Which step was which beat. */
function stepsOn(due: readonly number[], feet: readonly number[], windows: Windows): { beat: number; step: number }[] {
  const { hits } = pairHits(due, tolerances(due, windows), feet);
  return due.flatMap((_, beat) => (hits[beat]! >= 0 ? [{ beat, step: feet[hits[beat]!]! }] : []));
}

/** How far the steps are behind the beat on the whole: the middle one. */
function middleLag(beats: readonly number[], feet: readonly number[], windows: Windows): number {
  const late = stepsOn(beats, feet, windows)
    .map(({ beat, step }) => step - beats[beat]!)
    .sort((a, b) => a - b);
  return late.length === 0 ? 0 : (late[(late.length - 1) >> 1]! + late[late.length >> 1]!) / 2;
}
