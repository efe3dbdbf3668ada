import type { Seconds } from '../timing/units.ts';

/** What of the counts is left, a step a pass: all, those of the first measure, the beat numbers, nothing. */
export const FADES = ['all', 'first', 'beats', 'none'] as const;
export type Fade = (typeof FADES)[number];

/** @param pass  how often these measures were gone through before, from 0 */
export function fadeAt(pass: number): Fade {
  return FADES[Math.min(pass, FADES.length - 1)]!;
}

/** Whether a measure still has its counts. @param measure  its index in what is led, from 0 */
export function hasCounts(fade: Fade, measure: number): boolean {
  return fade === 'all' || (fade === 'first' && measure <= 0);
}

/** Longer and a class no longer looks. */
export const LONGEST_STUDY: Seconds = 60;
