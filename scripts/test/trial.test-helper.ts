import { it } from 'vitest';

/** Everything is tried: `npm run trials`. */
export const EVERYTHING = process.env['TRIALS'] !== undefined;

/**
 * A test of what a journey that is tried each time leaves out: another way of the same journey, two devices, all views.
 * `npm run trials` does them all; `npm test` would take twice as long with them.
 */
export const trial = it.runIf(EVERYTHING);

/** So many of the cases of a law, the first, the last and some between: `npm run trials` tries it on all. */
export function few<T>(all: readonly T[], many: number): readonly T[] {
  if (EVERYTHING || many >= all.length) return all;
  return Array.from({ length: many }, (_, i) => all[Math.round((i * (all.length - 1)) / Math.max(1, many - 1))]!);
}
