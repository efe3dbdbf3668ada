import { describe, expect, it } from 'vitest';
import { plainCounts } from '../counting/count.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { footOf, handsOf } from './hands.ts';

describe('hands and feet', () => {
  it.each([
    ['4/4 q e e (h)', 'clap clap clap (open)'],
    ['4/4 h. q~ | q q h', 'clap-push-push clap | -push clap clap-push'],
    ['6/8 q. q.', 'clap clap'],
    ['4/4 q. e~ e e q', 'clap-push clap -push clap clap'],
  ])('%s: %s', (text, hands) => expect(plainCounts(handsOf(patternOf(text)))).toBe(hands));
  it('steps right and left without stopping', () => {
    expect([0, 1, 2, 3].map((beat) => footOf({ upper: 4, lower: 4 }, 2, beat)).join('')).toBe('RLRL');
    expect([0, 1, 2].map((beat) => footOf({ upper: 3, lower: 4 }, 2, beat)).join('')).toBe('LRL');
  });
});
