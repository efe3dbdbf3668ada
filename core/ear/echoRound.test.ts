import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { countInFrom, echoRound } from './echoRound.ts';

describe('an echo for all at once', () => {
  it('is counted in, clapped by the app, counted in again, and then it is the class’s turn', () => {
    const { sounds, from } = echoRound(patternOf('4/4 q q h'), 60);
    expect(from).toBe(-12);
    const at = (struck: string) => sounds.flatMap((one) => (one.struck === struck ? [one.time] : []));
    expect(at('clap')).toEqual([-8, -7, -6]);
    expect(at('wood')).toEqual([-12, -8]);
    expect(at('low-wood')).toEqual([-11, -10, -9, -7, -6, -5]);
    expect(countInFrom(patternOf('4/4 q q h'), 60)).toBe(-4);
  });
  it('all of it is over when the second count-in begins, in every meter', () => {
    for (const text of ['3/4 q e e q | h.', '6/8 q. e e e', '4/4 ^ q | q q e e q | h.', '2/4 |: q q :| h']) {
      const pattern = patternOf(text);
      const { sounds, from } = echoRound(pattern, 84);
      const begins = countInFrom(pattern, 84);
      expect(Math.min(...sounds.map(({ time }) => time))).toBe(from);
      expect(Math.max(...sounds.map(({ time }) => time))).toBeLessThan(begins - 0.05);
    }
  });
});
