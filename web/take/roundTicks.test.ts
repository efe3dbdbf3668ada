import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everyFew, roundTicks } from './roundTicks.ts';

describe('ticks', () => {
  it.each([
    [
      [71, 74],
      [71, 72, 73, 74],
    ],
    [
      [66, 72, 81.4],
      [65, 70, 75, 80, 85],
    ],
    [[60], [60, 61]],
    [
      [40, 300],
      [0, 100, 200, 300],
    ],
  ])('of %j are %j', (values, ticks) => expect(roundTicks(values)).toEqual(ticks));
  it('hold every value, and are few and even', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 20, max: 400, noNaN: true }), { minLength: 1, maxLength: 20 }),
        (values) => {
          const ticks = roundTicks(values);
          expect(ticks[0]).toBeLessThanOrEqual(Math.min(...values));
          expect(ticks.at(-1)).toBeGreaterThanOrEqual(Math.max(...values));
          expect(ticks.length).toBeLessThanOrEqual(7);
          expect(new Set(ticks.slice(1).map((tick, i) => tick - ticks[i]!)).size).toBe(1);
        },
      ),
    );
  });
  it('of many measures every few are named', () => {
    expect(everyFew([1, 2, 3], 16)).toEqual([1, 2, 3]);
    expect(
      everyFew(
        Array.from({ length: 64 }, (_, i) => i + 1),
        16,
      ),
    ).toHaveLength(16);
  });
});
