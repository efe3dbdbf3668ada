import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everydayPattern, patternOf } from '../core/rhythm/arbitrary.test-helper.ts';
import { type Room, fitRuler, fitRulerBy, linesHeight } from './fit.ts';
import { COUNT_FONTS } from './heights.ts';

const LINE = { line: 250, between: 10 };
const room = (width: number, height: number): Room => ({ width, height, ...LINE });
const windows = fc.constantFrom(
  [358, 500, 844],
  [992, 420, 768],
  [1232, 430, 800],
  [1752, 700, 1080],
  [3500, 1500, 2160],
);

describe('a ruler that fits', () => {
  it('shows up to four measures at once, in its room, nothing closer than it may be', () => {
    fc.assert(
      fc.property(everydayPattern, windows, (pattern, [width, height, window]) => {
        const { layout, zoom, seen } = fitRuler(pattern, room(width, height), window);
        if (!layout.isRoomy) return;
        const count = pattern.measures.reduce((sum, { rests = 1 }) => sum + rests, pattern.pickup ? -1 : 0);
        if (count <= 4) expect(seen).toBe(layout.systems.length);
        else expect(seen).toBeGreaterThanOrEqual(Math.min(2, layout.systems.length));
        for (const system of layout.systems) expect(system.width * zoom).toBeLessThanOrEqual(width + 2);
        if (zoom > 0.3) expect(linesHeight(seen, LINE, zoom)).toBeLessThanOrEqual(height + 1);
      }),
      { numRuns: 60 },
    );
  });
  it('is larger in a larger room, up to a limit', () => {
    const two = patternOf('4/4 q e e h | q q h');
    const zooms = [600, 900, 1300, 2000].map((width) => fitRuler(two, room(width, 700), 1080).zoom);
    expect(zooms).toEqual(zooms.toSorted((a, b) => a - b));
    expect(fitRuler(patternOf('2/4 h'), room(5000, 5000), 1080).zoom * COUNT_FONTS.board).toBeLessThan(1080 / 6);
  });
  it('of a long rhythm shows all while it can be read from the back, else two lines', () => {
    const long = (measures: number) => patternOf(`4/4 ${Array(measures).fill('q q e e q').join(' | ')}`);
    const six = fitRuler(long(6), room(1752, 760), 1080);
    expect(six.seen).toBe(six.layout.systems.length);
    expect(six.zoom * COUNT_FONTS.board).toBeGreaterThanOrEqual(1080 / 18);
    const sixteen = fitRuler(long(16), room(1232, 430), 800);
    expect(sixteen.layout.systems.length).toBeGreaterThan(2);
    expect(sixteen.seen).toBe(2);
  });
  it('takes a line for a long count, not the next note', () => {
    const pattern = patternOf('4/4 s s s s s s s s s s s s s s s s');
    const few = fitRuler(pattern, room(1232, 430), 800);
    const words = fitRuler(pattern, { ...room(1232, 430), tokens: [Array(16).fill(5)] }, 800);
    expect(words.zoom).toBeLessThan(few.zoom);
    expect(words.layout.isRoomy).toBe(true);
  });
  it('can be larger or smaller than fits', () => {
    const pattern = patternOf('4/4 q q h | q q h | q q h | w');
    const fits = fitRuler(pattern, room(1232, 430), 800);
    expect(fitRulerBy(1, pattern, room(1232, 430), 800)).toEqual(fits);
    const larger = fitRulerBy(1.5, pattern, room(1232, 430), 800);
    expect(larger.zoom).toBeCloseTo(fits.zoom * 1.5);
    expect(larger.seen).toBeLessThanOrEqual(larger.layout.systems.length);
    expect(larger.seen).toBe(1);
    expect(fitRulerBy(0.5, pattern, room(1232, 430), 800).seen).toBe(
      fitRulerBy(0.5, pattern, room(1232, 430), 800).layout.systems.length,
    );
  });
});
