import { EPSILON } from '../timing/tolerance.ts';
/** What a mark needs at least. */
export interface MarkBorder {
  readonly mark: number;
  readonly accuracy: number;
  /** Drift allowed, in per cent either way; a mark without it does not look at drift. */
  readonly driftPct?: number;
}

/** Handbook §8: 4 from .95 and drift within 4 %, 3 from .80 and 8 %, 2 from .60, 1 below, 0 when nothing was heard. */
export const MARK_BORDERS: readonly MarkBorder[] = [
  { mark: 4, accuracy: 0.95, driftPct: 4 },
  { mark: 3, accuracy: 0.8, driftPct: 8 },
  { mark: 2, accuracy: 0.6 },
];
export const HIGHEST_MARK = 4;

/** Why borders cannot work, in one sentence; undefined when they can. */
export function bordersTrouble(borders: readonly MarkBorder[]): string | undefined {
  const falling = borders.every(
    ({ mark, accuracy }, i) => i === 0 || (mark < borders[i - 1]!.mark && accuracy < borders[i - 1]!.accuracy),
  );
  if (!falling) return 'each lower mark needs a lower border';
  return borders.every(
    ({ mark, accuracy, driftPct = 0 }) =>
      mark >= 2 && mark <= HIGHEST_MARK && accuracy > 0 && accuracy <= 1 && driftPct >= 0,
  )
    ? undefined
    : 'borders lie above 0 and up to 100 per cent';
}

/** What a mark looks at besides accuracy and drift. */
export interface MarkedTake {
  /** Something was clapped, or nothing is written. */
  readonly heard: boolean;
  /** The rhythm was misread somewhere: then it is no 4. */
  readonly misread?: boolean;
  /** The class counts the click too, and it was not kept: one mark less, down to 1. */
  readonly offClick?: boolean;
  readonly borders?: readonly MarkBorder[] | undefined;
}

/** The best mark there is. */
export const FULL_MARK = 4;

/** The highest mark whose borders are met; accuracy is compared to a millionth, so that 19/20 is .95. */
export function markOf(
  accuracy: number,
  driftPct: number,
  { heard, misread = false, offClick = false, borders = MARK_BORDERS }: MarkedTake,
): number {
  if (!heard) return 0;
  const met = borders.find(
    (border) =>
      !(misread && border.mark >= FULL_MARK) &&
      accuracy >= border.accuracy - EPSILON &&
      Math.abs(driftPct) <= (border.driftPct ?? Infinity),
  );
  return Math.max(1, (met?.mark ?? 1) - (offClick ? 1 : 0));
}

/**
 * (on time + half of early or late − half of the extras − one for each slip that nothing of it costs, not below 0) ÷
 * notes written. A pattern of rests is right when nothing is clapped.
 */
export function accuracyOf(
  written: number,
  onTime: number,
  earlyOrLate: number,
  extras: number,
  slips: number = 0,
): number {
  if (written === 0) return extras === 0 ? 1 : 0;
  return Math.max(0, onTime + earlyOrLate / 2 - extras / 2 - slips) / written;
}

/** Rounded to a part, and never minus zero. */
export function round(value: number, parts: number): number {
  return Math.round(value * parts) / parts || 0;
}
