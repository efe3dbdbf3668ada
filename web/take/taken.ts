import type { Seconds } from '../../core/timing/units.ts';
import type { Outline } from '../audio/listenMessages.ts';

/** What is asked of a child beside the claps: nothing, to hold the long notes, or to step the beat as well. */
export const TASKS = ['claps', 'held', 'feet'] as const;
/** Two parts at once are two keys: of two hands, or of two children. */
export type Task = (typeof TASKS)[number] | 'parts';
/** The feet, or the second of two parts. */
export type Limb = 'hands' | 'feet';

/** What a child did; times from beat 1 of measure 1. */
export interface Taken {
  readonly onsets: readonly Seconds[];
  /** Where the feet, or a second part, were heard too. */
  readonly feet?: readonly Seconds[];
  /** For each onset when it was let go, where that was asked. */
  readonly releases?: readonly Seconds[];
  readonly outline?: Outline;
  readonly sound?: Blob;
}
