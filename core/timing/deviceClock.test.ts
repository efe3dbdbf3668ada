import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Random, randomFrom } from '../random.ts';
import { DeviceClock, type Exchange, FEWEST_EXCHANGES, clockOffset } from './deviceClock.ts';

/** Ways there and back of one question, milliseconds. */
type Ways = (random: Random) => readonly [there: number, back: number];

const between = (random: Random, low: number, high: number) => low + random.next() * (high - low);
const tail = (random: Random, mean: number) => -Math.log(1 - random.next()) * mean;

const NETWORKS: Readonly<Record<string, Ways>> = {
  'a cable': (random) => [0.4 + tail(random, 0.3), 0.4 + tail(random, 0.3)],
  'a far room': (random) => [80 + tail(random, 8), 80 + tail(random, 8)],
  'a full network': (random) => [5 + tail(random, 25), 5 + tail(random, 25)],
  'ways of 5 to 80 by lot': (random) => [between(random, 5, 80), between(random, 5, 80)],
};

/** A device whose clock is off and drifts; `at` is the device's time. */
function device(offset: number, drift: number, random: Random, ways: Ways) {
  const room = (at: number) => at + offset + drift * at;
  const ask = (sent: number): Exchange => {
    const [there, back] = ways(random);
    return { sent, there: room(sent + there), back: sent + there + back };
  };
  return { room, ask };
}

const p95 = (errors: readonly number[]) => [...errors].sort((a, b) => a - b)[Math.floor(errors.length * 0.95)]!;

describe('the clock of a room', () => {
  it('is where the shortest question and the shortest answer leave it, whichever exchanges they were in', () => {
    expect(clockOffset([], 0)).toBeUndefined();
    expect(clockOffset([{ sent: 100, there: 1130, back: 140 }], 140)).toMatchObject({ offset: 1010, within: 20 });
    const exchanges = [
      { sent: 0, there: 1002, back: 60 },
      { sent: 100, there: 1160, back: 162 },
    ];
    expect(clockOffset(exchanges, 162)).toMatchObject({ offset: 1000, within: 2 });
  });

  it.each(Object.entries(NETWORKS))('is found within 10 ms over %s (p95)', (_name, ways) => {
    const errors = Array.from({ length: 150 }, (_, seed) => {
      const random = randomFrom(seed);
      const { room, ask } = device(between(random, -1e9, 1e9), between(random, -8e-5, 8e-5), random, ways);
      const clock = new DeviceClock();
      let at = between(random, 0, 1e6);
      for (let asked = 0; asked < 2 * FEWEST_EXCHANGES; asked++) {
        const exchange = ask(at);
        clock.add(exchange);
        at = exchange.back + 60;
      }
      return Math.abs(clock.room(at + 3000)! - room(at + 3000));
    });
    expect(p95(errors)).toBeLessThan(10);
  });

  it('follows a clock that drifts, over a lesson', () => {
    const errors = Array.from({ length: 20 }, (_, seed) => {
      const random = randomFrom(seed);
      const { room, ask } = device(5000, between(random, -2e-4, 2e-4), random, NETWORKS['a full network']!);
      const clock = new DeviceClock();
      for (let i = 0; i < 20; i++) clock.add(ask(i * 100));
      for (let i = 0; i < 45 * 60; i += 3) clock.add(ask(2000 + i * 1000));
      const at = 2000 + 45 * 60_000 + 8000;
      return Math.abs(clock.room(at)! - room(at));
    });
    expect(p95(errors)).toBeLessThan(5);
  });

  it('begins anew when the device slept, and does not mind one answer that is wrong', () => {
    const random = randomFrom(7);
    const { room, ask } = device(100, 0, random, NETWORKS['a cable']!);
    const clock = new DeviceClock();
    for (let i = 0; i < 20; i++) clock.add(ask(i * 100));
    const before = clock.room(3000)!;
    clock.add({ sent: 3000, there: 90_000, back: 3002 });
    expect(clock.room(3000)).toBe(before);
    // Its clock stood still for a minute.
    const late = (sent: number): Exchange => ({ ...ask(sent), there: room(sent) + 60_001 });
    clock.add(late(4000));
    expect(clock.room(5000)! - room(5000)).toBeCloseTo(0, 0);
    clock.add(late(4100));
    expect(clock.room(5000)! - room(5000)).toBeCloseTo(60_000, -1);
    expect(clock.count).toBe(2);
  });

  it('takes no answer that came before its question', () => {
    const clock = new DeviceClock();
    clock.add({ sent: 10, there: 5, back: 9 });
    expect([clock.count, clock.room(10), clock.here(10)]).toEqual([0, undefined, undefined]);
  });

  it('keeps few exchanges, however long a lesson is', () => {
    const random = randomFrom(3);
    const { ask } = device(0, 0, random, NETWORKS['a cable']!);
    const clock = new DeviceClock();
    for (let i = 0; i < 3000; i++) clock.add(ask(i * 100));
    expect(clock.count).toBeLessThanOrEqual(200);
    expect(clock.count).toBeGreaterThan(50);
  });

  it('is the same there and back', () =>
    fc.assert(
      fc.property(fc.integer(), fc.double({ min: -2e-4, max: 2e-4, noNaN: true }), (seed, drift) => {
        const random = randomFrom(seed >>> 0);
        const { ask } = device(1234, drift, random, NETWORKS['a cable']!);
        const clock = new DeviceClock();
        for (let i = 0; i < 30; i++) clock.add(ask(i * 500));
        expect(clock.here(clock.room(20_000)!)).toBeCloseTo(20_000, 6);
      }),
    ));
});
