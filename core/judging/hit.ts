import type { Seconds } from '../timing/units.ts';

/** One clap of a take as it is judged: bounces merged, the time from beat 1 of measure 1. */
export interface Hit {
  readonly time: Seconds;
  /** Index of its onset in the take. */
  readonly onset: number;
}
