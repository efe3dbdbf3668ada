import { describe, expect, it } from 'vitest';
import { calibrationOf } from './calibration.ts';

const clicks = Array.from({ length: 16 }, (_, i) => 1 + i * 0.6);

describe('calibration of a device', () => {
  it('is the median of the taps, and how far they spread', () => {
    const found = calibrationOf(
      clicks.map((click, i) => click + 0.08 + (i % 2 === 0 ? 0.01 : -0.01)),
      clicks,
    )!;
    expect(found.delay).toBeCloseTo(0.08, 6);
    expect(found.spread).toBeCloseTo(0.01, 6);
  });
  it('does not mind a missed or a stray tap', () => {
    const taps = [...clicks.slice(3).map((click) => click + 0.05), 2.3];
    expect(
      calibrationOf(
        taps.sort((a, b) => a - b),
        clicks,
      )!.delay,
    ).toBeCloseTo(0.05, 6);
  });
  it.each([[[]], [clicks.slice(0, 7)]])('says nothing from too few taps', (taps) =>
    expect(calibrationOf(taps, clicks)).toBeUndefined(),
  );
});
