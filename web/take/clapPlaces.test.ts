import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resultOf } from '../../core/judging/judged.test-helper.ts';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import { clapPlaces } from './clapPlaces.ts';

function placesOf(text: string, bpm: number, onsets: readonly number[], free = false) {
  const pattern = patternOf(text);
  return clapPlaces(pattern, { bpm, free, onsets, result: resultOf({ pattern, bpm, onsets, free }) });
}

describe('places of claps', () => {
  it('a clap on time stands at its note, a late one right of it', () => {
    const { placeOf } = placesOf('4/4 q q q q | q q h', 60, [0, 1, 2, 3.1, 4, 5, 6]);
    expect(placeOf(2).measure).toBe(0);
    expect(placeOf(2).onset).toBeCloseTo(0.5, 1);
    expect(placeOf(3.1).onset).toBeCloseTo(0.775, 2);
    expect(placeOf(5).measure).toBe(1);
    expect(placeOf(5).onset).toBeCloseTo(0.25, 2);
  });
  it('by the clock where nothing was heard, in the own time of a free take', () => {
    expect(placesOf('4/4 q q q q', 60, []).timeOf({ measure: 0, onset: 0.5 })).toBeCloseTo(2, 1);
    const free = placesOf('4/4 q q q q | q q h', 60, [10, 10.5, 11, 11.5, 12, 12.5, 13], true);
    expect(free.timeOf({ measure: 1, onset: 0.125 })).toBeCloseTo(12.25, 2);
  });
  it('what comes before the first measure stands before it', () =>
    expect(placesOf('4/4 q q q q', 60, [0, 1, 2, 3]).placeOf(-0.3)).toMatchObject({ measure: 0 }));
  it('there and back again, wherever a clap is put', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 8, noNaN: true }), { maxLength: 12 }),
        fc.integer({ min: 0, max: 1 }),
        fc.double({ min: 0, max: 0.95, noNaN: true }),
        fc.boolean(),
        (times, measure, onset, free) => {
          const { placeOf, timeOf } = placesOf(
            '4/4 q e e q (q) | h q. e',
            60,
            [...times].sort((a, b) => a - b),
            free,
          );
          const time = timeOf({ measure, onset });
          expect(Number.isFinite(time)).toBe(true);
          expect(Number.isFinite(placeOf(time).onset)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });
});
