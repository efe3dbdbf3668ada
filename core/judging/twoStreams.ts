import type { Pattern } from '../rhythm/pattern.ts';
import { beatsOf } from '../leading/countIn.ts';
import { align, tolerances } from './align.ts';
import { round } from './mark.ts';
import { type Windows, verdictOf } from './windows.ts';

/** How the feet kept the beat while the hands clapped, and how far the two were apart. */
export interface FeetResult {
  /** Steps that came on the beat, and the beats there were. */
  readonly onBeat: number;
  readonly beats: number;
  readonly extras: number;
  /** Where hands and feet fall together, how much later the hands came, in ms: on the whole, and how much that varies. */
  readonly handsLaterMs: number;
  readonly apartMs: number;
}

/**
 * Judges the second stream of a two-line performance: a step on every beat.
 * @param feet   seconds, rising, on the same clock as the hands
 * @param hands  seconds, rising
 * @param lag    seconds behind the click, as the hands were judged
 */
export function judgeFeet(pattern: Pattern, bpm: number, feet: readonly number[], hands: readonly number[], lag: number, windows: Windows): FeetResult {
  const beats = beatsOf(pattern, bpm).map(({ time }) => time + lag);
  const near = tolerances(beats, windows);
  const { hits } = align(beats, near, feet);
  const paired = beats.flatMap((beat, i) => (hits[i]! >= 0 ? [{ beat, step: feet[hits[i]!]!, tolerance: near[i]! }] : []));
  const onBeat = paired.filter(({ beat, step, tolerance }) => verdictOf(step - beat, tolerance.onTime) === 'on-time').length;
  const gaps = paired.flatMap(({ step, tolerance }) => {
    const hand = hands.find((time) => time >= step - tolerance.reach.early && time <= step + tolerance.reach.late);
    return hand === undefined ? [] : [hand - step];
  });
  const mean = gaps.reduce((sum, gap) => sum + gap, 0) / Math.max(1, gaps.length);
  const apart = Math.sqrt(gaps.reduce((sum, gap) => sum + (gap - mean) ** 2, 0) / Math.max(1, gaps.length - 1));
  return { onBeat, beats: beats.length, extras: feet.length - paired.length, handsLaterMs: round(mean * 1000, 10), apartMs: round(apart * 1000, 10) };
}
