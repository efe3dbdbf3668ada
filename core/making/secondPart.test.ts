import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { disagreements, sharedAttacks } from '../rhythm/score.ts';
import { printRhythm } from '../rhythm/text.ts';
import { SECOND_WAYS, secondPart } from './secondPart.ts';
import type { Level } from './level.ts';
import { EVERYTHING } from '../../scripts/test/trial.test-helper.ts';

const RHYTHMS = [
  '4/4 q q h | h h',
  '4/4 q e e q (q) | e e q q (q) | q q h | w',
  '3/4 q e e q | h q',
  '2/4 |: q q | h :| e e q',
  '6/8 q. q e | q. q.',
  '4/4 w | (M1) | w | w',
].map(patternOf);
const both = (first: (typeof RHYTHMS)[number], second: (typeof RHYTHMS)[number]) => ({
  parts: [
    { name: 'a', pattern: first },
    { name: 'b', pattern: second },
  ],
});

describe('a second part for a rhythm', () => {
  it.each(SECOND_WAYS)('that %s has its measures, adds up, and is the same again with the same seed', (way) => {
    fc.assert(
      fc.property(fc.constantFrom(...RHYTHMS), fc.nat(9999), fc.constantFrom<Level>(1, 2, 3), (first, seed, level) => {
        const second = secondPart(first, { way, level, shared: 2 }, seed)!;
        expect(barsAddUp(barCheck(second))).toBe(true);
        expect(disagreements(both(first, second))).toEqual([]);
        expect(secondPart(first, { way, level, shared: 2 }, seed)).toEqual(second);
        if (way === 'fills') expect(sharedAttacks(both(first, second)).shared).toBe(0);
      }),
      { numRuns: EVERYTHING ? 12 : 5 },
    );
  });

  it('meets the other at as many notes as are wanted', () => {
    const first = patternOf('4/4 q q h | q q q q');
    for (const shared of [1, 3, 5])
      for (const seed of [1, 2, 3, 4])
        expect(sharedAttacks(both(first, secondPart(first, { way: 'meets', level: 2, shared }, seed)!)).shared).toBe(
          shared,
        );
  });

  it.each([
    ['4/4 q q h | w | e e q h', '4/4 (M1) | q q h | w'],
    ['2/4 |: q q | h :|', '2/4 |: (M1) | q q :|'],
  ])('follows a measure later: %s', (first, second) =>
    expect(printRhythm(secondPart(patternOf(first), { way: 'follows', level: 2 }, 1)!)).toBe(second),
  );

  it('is another one with another seed', () => {
    const made = [1, 2, 3, 4].map((seed) => printRhythm(secondPart(RHYTHMS[1]!, { way: 'fills', level: 2 }, seed)!));
    expect(new Set(made).size).toBeGreaterThan(1);
  });

  it.each(['4/4 ^ q | h.', '4/4 w | 3/4 h.'])('is not made for %s', (text) =>
    expect(secondPart(patternOf(text), { way: 'fills', level: 2 }, 1)).toBeUndefined(),
  );
});
