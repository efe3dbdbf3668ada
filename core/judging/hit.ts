import type { Seconds } from '../timing/units.ts';

/** One clap of a take as it is judged: bounces merged, the time from beat 1 of measure 1. */
export interface Hit {
  readonly time: Seconds;
  /** Index of its onset in the take. */
  readonly onset: number;
  /** Index of the last onset merged into it; its own where nothing bounced. */
  readonly lastOnset: number;
}
