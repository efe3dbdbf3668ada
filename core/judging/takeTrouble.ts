import { type BarReport, barCheck, isLegal } from '../rhythm/barCheck.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { TextError } from '../rhythm/text.ts';
import { FASTEST_BPM, MOST_ONSETS, SLOWEST_BPM } from '../timing/limits.ts';
import type { Bpm, Seconds } from '../timing/units.ts';

/** Why a take cannot be judged. */
export type TakeTrouble =
  | { readonly code: 'unreadable'; readonly at: TextError }
  | { readonly code: 'measure'; readonly report: BarReport }
  | { readonly code: 'too-many-onsets'; readonly count: number }
  | { readonly code: 'tempo' | 'too-much' | 'start' | 'onsets' | 'onset-order' | 'steps' | 'releases' };

interface Given {
  readonly pattern: Pattern;
  readonly bpm: Bpm;
  readonly onsets: readonly Seconds[];
  readonly start?: Seconds | undefined;
  readonly feet?: readonly Seconds[] | undefined;
  readonly releases?: readonly (Seconds | null)[] | undefined;
}

const isNumber = (time: Seconds) => Number.isFinite(time);

function isRising(times: readonly Seconds[]): boolean {
  return times.every((time, i) => i === 0 || time >= times[i - 1]!);
}

/** What is wrong with a take; undefined when it can be judged. */
export function takeTrouble({ pattern, bpm, onsets, start = 0, feet = [], releases }: Given): TakeTrouble | undefined {
  if (!(bpm >= SLOWEST_BPM && bpm <= FASTEST_BPM)) return { code: 'tempo' };
  if (!isNumber(start)) return { code: 'start' };
  if (onsets.length > MOST_ONSETS) return { code: 'too-many-onsets', count: onsets.length };
  if (!onsets.every(isNumber)) return { code: 'onsets' };
  if (!isRising(onsets)) return { code: 'onset-order' };
  if (feet.length > MOST_ONSETS || !feet.every(isNumber) || !isRising(feet)) return { code: 'steps' };
  const after = (time: Seconds | null, i: number) => time === null || time >= onsets[i]!;
  if (releases && (releases.length !== onsets.length || !releases.every(after))) return { code: 'releases' };
  const report = barCheck(pattern).find((one) => !isLegal(one));
  return report && { code: 'measure', report };
}
