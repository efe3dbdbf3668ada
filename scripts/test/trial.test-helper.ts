import { it } from 'vitest';

/** Everything is tried: `npm run trials`. */
export const EVERYTHING = process.env['TRIALS'] !== undefined;

/**
 * A test of what a journey that is tried each time leaves out: another way of the same journey, two devices, all views.
 * `npm run trials` does them all; `npm test` would take twice as long with them.
 */
export const trial = it.runIf(EVERYTHING);
