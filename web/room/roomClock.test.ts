import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { followClock } from './roomClock.ts';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

it('asks twenty-four times at once, then now and then, and is known after twelve', async () => {
  let asked = 0;
  const known = vi.fn();
  const clock = followClock(known, () => {
    asked++;
    const at = performance.now();
    return Promise.resolve({ sent: at, there: at + 5000, back: at });
  });
  await vi.advanceTimersByTimeAsync(40 * 10);
  expect([asked, clock.known(), clock.here(5000), known.mock.calls.length]).toEqual([11, false, undefined, 0]);
  await vi.advanceTimersByTimeAsync(40 * 13);
  expect([asked, clock.known(), known.mock.calls.length]).toEqual([24, true, 1]);
  expect(clock.room(1000)).toBeCloseTo(6000, 3);
  expect(clock.here(6000)).toBeCloseTo(1000, 3);
  await vi.advanceTimersByTimeAsync(9_000);
  expect(asked).toBe(27);
  clock.stop();
  await vi.advanceTimersByTimeAsync(9_000);
  expect(asked).toBe(27);
});

it('goes on when the server does not answer for a while', async () => {
  let asked = 0;
  const clock = followClock(
    () => undefined,
    () => {
      asked++;
      if (asked < 4) return Promise.reject(new Error('away'));
      const at = performance.now();
      return Promise.resolve({ sent: at, there: at, back: at });
    },
  );
  await vi.advanceTimersByTimeAsync(3_000 + 12 * 40);
  expect(clock.known()).toBe(true);
  clock.stop();
});
