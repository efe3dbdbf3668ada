import { describe, expect, it } from 'vitest';
import { CALIBRATION_CLICKS, TOO_WIDE, calibrationOf } from './calibration.ts';
import { CLICKS, Calibrator } from './calibrator.ts';
import { TapInput } from './tapInput.ts';

const BEATS = CLICKS.slice(4).map(({ time }) => time);

/** A run of the clicks in which everything stands `late` seconds after its click. */
async function calibrated(late: (i: number) => number, by: 'tap' | 'clap') {
  let now = -0.2;
  let stopped = 0;
  const times = CLICKS.map(({ time }, i) => time + late(i));
  const looks: (() => void)[] = [];
  const calibrator = new Calibrator({
    startClicks: () =>
      Promise.resolve({ now: () => now, at: (timeStamp: number) => timeStamp / 1000, stop: () => void stopped++ }),
    ready: () => Promise.resolve(),
    listen:
      by === 'clap'
        ? () => Promise.resolve({ onsets: () => times.filter((time) => time <= now), stop: () => void stopped++ })
        : undefined,
    later: (action) => void looks.push(action),
  });
  const counts: number[] = [];
  expect(calibrator.tap(0)).toBe(0);
  const done = calibrator.run((count) => counts.push(count));
  await new Promise((resolve) => setTimeout(resolve));
  if (by === 'tap') times.forEach((time) => calibrator.tap(time * 1000));
  for (now = 0; now < 14; now += 0.5) for (const look of looks.splice(0)) look();
  return { found: await done, counts, stopped };
}

describe('calibration', () => {
  it.each(['tap', 'clap'] as const)('finds how late a device is by a %s', async (by) => {
    const { found, counts, stopped } = await calibrated((i) => (i < 4 ? 0.25 : 0.06 + (i % 2 ? 0.004 : -0.004)), by);
    expect(found!.delay).toBeCloseTo(0.06, 2);
    expect(found!.spread).toBeLessThan(TOO_WIDE);
    expect(stopped).toBe(by === 'clap' ? 1 : 0);
    expect(counts.length > 3).toBe(by === 'clap');
  });
  it('finds nothing where nobody came with the click', async () =>
    expect((await calibrated((i) => (i % 3) * 0.19 - 0.2, 'tap')).found?.spread ?? 1).toBeGreaterThan(TOO_WIDE));
  it('counts only what came after the beat was found', () => {
    const early = CLICKS.slice(0, 4).map(({ time }) => time - 0.25);
    const heard = [...early, ...BEATS.map((time) => time + 0.03)];
    expect(BEATS).toHaveLength(CALIBRATION_CLICKS);
    expect(calibrationOf(heard, BEATS)!.delay).toBeCloseTo(0.03, 6);
    expect(calibrationOf([], BEATS)).toBeUndefined();
  });
});

describe('taps', () => {
  it('are told in their order, to a tenth of a millisecond', () => {
    const taps = new TapInput();
    taps.tap(1.000049, 'hands', 'a');
    taps.tap(0.5, 'hands', 'b');
    taps.tap(0.25, 'feet', 'f');
    expect(taps.count).toBe(2);
    expect(taps.taken('claps', 2)).toEqual({ onsets: [0.5, 1] });
    expect(taps.taken('feet', 2)).toEqual({ onsets: [0.5, 1], feet: [0.25] });
  });
  it('a finger lifts its own last tap, and no tap is let go before it was made', () => {
    const taps = new TapInput();
    taps.tap(0, 'hands', 'a');
    taps.tap(0.2, 'hands', 'b');
    taps.lift(0.7, 'b');
    taps.lift(0.9, 'a');
    taps.tap(1, 'hands', 'a');
    taps.lift(0.95, 'a');
    taps.lift(5, 'c');
    expect(taps.taken('held', 2)).toEqual({ onsets: [0, 0.2, 1], releases: [0.9, 0.7, 1] });
  });
});
