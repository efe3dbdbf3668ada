import type { TakeResult } from '../../core/judging/takeResult.ts';
import type { Windows } from '../../core/judging/windows.ts';
import type { Bpm, Seconds } from '../../core/timing/units.ts';
import type { Outline } from '../audio/listenMessages.ts';

/** A judged take as it is shown: new or from the past. */
export interface ShownTake {
  readonly patternId: string | null;
  readonly patternText: string;
  readonly bpm: Bpm;
  readonly free: boolean;
  readonly windows: Windows;
  readonly onsets: readonly Seconds[];
  readonly result: TakeResult;
  /** The outline of its sound, while this page knows it. */
  readonly outline?: Outline | undefined;
}
