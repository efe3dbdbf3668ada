import type { Seconds } from '../timing/units.ts';

/** Children tap a little ahead of the click (rules §8: by 20 to 60 ms). */
export const USUAL_LAG: Seconds = -0.025;
