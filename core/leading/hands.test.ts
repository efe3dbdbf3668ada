import { describe, expect, it } from 'vitest';
import { plainCounts } from '../counting/count.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { beatOf } from '../rhythm/meter.ts';
import { toNumber } from '../rhythm/fraction.ts';
import { placePattern } from '../rhythm/place.ts';
import { beatsBefore, footOn, handsOf } from './hands.ts';

describe('hands and feet', () => {
  it.each([
    ['4/4 q e e (h)', 'clap clap clap (open)'],
    ['4/4 h. q~ | q q h', 'clap-push-push clap | -push clap clap-push'],
    ['6/8 q. q.', 'clap clap'],
    ['4/4 q. e~ e e q', 'clap-push clap -push clap clap'],
  ])('%s: %s', (text, hands) => expect(plainCounts(handsOf(patternOf(text)))).toBe(hands));
  /** The feet of each measure, from the beats that are in it. */
  const feetOf = (text: string) => {
    const placed = placePattern(patternOf(text));
    const before = beatsBefore(placed);
    return placed
      .map(({ meter, onset, length }, i) => {
        const beat = toNumber(beatOf(meter).length);
        const first = Math.ceil(toNumber(onset) / beat - 1e-9);
        const last = Math.ceil((toNumber(onset) + toNumber(length)) / beat - 1e-9);
        return Array.from({ length: last - first }, (_, k) => footOn(before[i]!, first + k)).join('');
      })
      .join(' ');
  };
  it.each([
    ['4/4 q q q q | w', 'RLRL RLRL'],
    ['3/4 q q q | h. | h.', 'RLR LRL RLR'],
    ['4/4 ^ q | q q q q | h.', 'L RLRL RLR'],
    ['3/4 ^ q | q q q | h', 'L RLR LR'],
    ['4/4 ^ q q q | w', 'LRL RLRL'],
    ['4/4 ^ e | w', ' RLRL'],
    ['4/4 w | 3/4 h. | 4/4 w', 'RLRL RLR LRLR'],
    ['6/8 q. q. | 3/4 h. | 6/8 h.', 'RL RLR LR'],
  ])('%s: steps alternate through, %s', (text, feet) => expect(feetOf(text)).toBe(feet));
});
