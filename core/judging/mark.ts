import { t } from '../words/say.ts';
import { EPSILON } from '../timing/tolerance.ts';
import { type MarkBorder, type Scale, USUAL_SCALE, belowBorders, highestOf, isFull, usualBorders } from './scale.ts';

/** Why borders cannot work, in one sentence; undefined when they can. */
export function bordersTrouble(borders: readonly MarkBorder[], scale: Scale = USUAL_SCALE): string | undefined {
  const falling = borders.every(
    ({ mark, accuracy }, i) => i === 0 || (mark < borders[i - 1]!.mark && accuracy < borders[i - 1]!.accuracy),
  );
  if (!falling) return t`each lower mark needs a lower border`;
  if (borders.some(({ mark }) => mark <= belowBorders(scale) || mark > highestOf(scale)))
    return t`they are borders of marks that this scale does not have`;
  return borders.every(({ accuracy, driftPct = 0 }) => accuracy > 0 && accuracy <= 1 && driftPct >= 0)
    ? undefined
    : t`borders lie above 0 and up to 100 per cent`;
}

/** What a mark looks at besides accuracy and drift. */
export interface MarkedTake {
  /** Something was clapped, or nothing is written. */
  readonly heard: boolean;
  /** Somewhere the rhythm was misread, a note missing or a clap among them added: then it has not the best mark. */
  readonly flawed?: boolean | undefined;
  /** The class counts the click too, and it was not kept: one mark less, down to 1. */
  readonly offClick?: boolean;
  readonly borders?: readonly MarkBorder[] | undefined;
  /** The scale of the class. */
  readonly scale?: Scale | undefined;
  /** There was no click to keep the tempo by. */
  readonly free?: boolean | undefined;
}

/** Without a click the tempo may drift so much more: 8 instead of 4 %, 12 instead of 8 (rules §8). */
const FREE_DRIFT_PCT = 4;

/** How far the tempo may drift for a mark, in per cent either way; Infinity where it is not looked at. */
export function driftAllowed({ driftPct = Infinity }: MarkBorder, free: boolean = false): number {
  return driftPct + (free ? FREE_DRIFT_PCT : 0);
}

/** So much of a hundred is taken off where the click counts and was not kept. */
const OFF_CLICK_PERCENT = 10;

/**
 * The highest mark whose borders are met; accuracy is compared to a millionth, so that 19/20 is .95.
 * @returns a step of the scale
 */
export function markOf(
  accuracy: number,
  driftPct: number,
  { heard, flawed, offClick = false, scale = USUAL_SCALE, borders = usualBorders(scale), free }: MarkedTake,
): number {
  if (!heard) return 0;
  const barred = (border: MarkBorder) =>
    (flawed && isFull(border.mark, scale)) || Math.abs(driftPct) > driftAllowed(border, free);
  if (scale === 'percent') {
    const most = borders.filter(barred);
    const whole = Math.min(Math.floor((accuracy + EPSILON) * 100), ...most.map(({ mark }) => mark - 1));
    return Math.max(0, whole - (offClick ? OFF_CLICK_PERCENT : 0));
  }
  const met = borders.find((border) => !barred(border) && accuracy >= border.accuracy - EPSILON);
  const lowest = belowBorders(scale);
  return Math.max(lowest, (met?.mark ?? lowest) - (offClick ? 1 : 0));
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
