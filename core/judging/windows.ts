/** Ages a class can have, youngest first; `musician` judges strictest (rules §8). */
export const AGES = ['5-6', '7-8', '9-10', '11-13', 'musician'] as const;
export type Ages = (typeof AGES)[number];

/** What counts as on time, and as the same note at all. */
export interface Windows {
  /** On time within ± so many seconds. */
  readonly onTime: number;
  /** … but never more than this part of the gap to the neighbouring written onset. */
  readonly onTimeOfGap: number;
  /** Early or late up to so many seconds … */
  readonly reach: number;
  /** … and up to this part of the gap. */
  readonly reachOfGap: number;
}

/** Rules §8: ± 130, 110, 90, 70, 45 ms; 40 % of the gap; early or late up to half the gap and 250 ms. */
const ON_TIME: Readonly<Record<Ages, number>> = {
  '5-6': 0.13,
  '7-8': 0.11,
  '9-10': 0.09,
  '11-13': 0.07,
  musician: 0.045,
};

export const DEFAULT_AGES: Ages = '9-10';

export function windowsFor(ages: Ages): Windows {
  return { onTime: ON_TIME[ages], onTimeOfGap: 0.4, reach: 0.25, reachOfGap: 0.5 };
}

/**
 * What a teacher can change for a class: what is on time, in milliseconds either way; null is as usual for the ages.
 */
export interface WindowSettings {
  readonly ages: Ages;
  readonly onTimeMs?: number | null | undefined;
  /** For a child for whom it is made easier: windows so many times as wide; the neighbouring notes bound them still. */
  readonly wider?: number | undefined;
}

export function windowsOf({ ages, onTimeMs, wider = 1 }: WindowSettings): Windows {
  const usual = windowsFor(ages);
  const onTime = (typeof onTimeMs === 'number' ? onTimeMs / 1000 : usual.onTime) * wider;
  return { ...usual, onTime, reach: Math.max(usual.reach, onTime) };
}

/** Two hits closer than this (seconds), and than this part of the shortest written gap, are one (rules §8). */
export const BOUNCE = 0.08;
export const BOUNCE_OF_GAP = 0.4;

/** A hit that belongs to no note, so soon (seconds) after one that does, is a bounce of the same clap. */
export const SAME_CLAP = 0.12;

/** A steady lead or lag up to this (seconds) is taken off before judging (rules §8). */
export const LARGEST_LEAD = 0.08;

/** What a clap so far off its note is called; `onTime` are both positive. */
export function verdictOf(
  error: number,
  onTime: { readonly early: number; readonly late: number },
): 'on-time' | 'early' | 'late' {
  const early = error < 0;
  return Math.abs(error) <= (early ? onTime.early : onTime.late) + 1e-9 ? 'on-time' : early ? 'early' : 'late';
}
