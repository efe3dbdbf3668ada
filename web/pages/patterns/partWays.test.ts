import { describe, expect, it } from 'vitest';
import { patternOf } from '../../../core/rhythm/arbitrary.test-helper.ts';
import { scoreOfText } from '../../../core/rhythm/arbitraryScore.test-helper.ts';
import type { Joined } from '../../../core/making/partsOf.ts';
import { printScore } from '../../../core/rhythm/scoreText.ts';
import { laidMeasures } from './StripsPart.tsx';
import { addWay, canonWay, joinWay, secondWay, splitWay } from './partWays.ts';

const textOf = (joined: Joined) => (joined.ok ? printScore(joined.score) : joined.trouble.code);
const ONE = scoreOfText('4/4 q q h | h (h)');

it.each([
  [1, [1]],
  [2, [1, 2]],
  [6, [1, 2, 3]],
  [8, [1, 2, 4]],
  [7, [1]],
])('of %i measures so many can be laid in strips: %j', (measures, laid) =>
  expect(laidMeasures(measures)).toEqual(laid),
);

describe('what one press makes of a rhythm', () => {
  it.each<[string, Joined, string]>([
    ['shared by two groups', splitWay(ONE, 'measures'), '4/4 [A] q q h | (M1) [B] (M1) | h (h)'],
    ['the beat', addWay(ONE, 'beat'), '4/4 [clap] q q h | h (h) [stamp]* q q q q'],
    ['the free beats', addWay(ONE, 'missing'), '4/4 [clap] q q h | h (h) [stamp] (h) (q) q | (q) q q q'],
    ['an empty part', addWay(ONE, 'rests'), '4/4 [clap] q q h | h (h) [stamp] (M1) | (M1)'],
    ['another rhythm', joinWay(ONE, patternOf('4/4 w | h h')), '4/4 [clap] q q h | h (h) [stamp] w | h h'],
    ['one that comes again', joinWay(ONE, patternOf('4/4 h h')), '4/4 [clap] q q h | h (h) [stamp]* h h'],
    ['one that does not fit', joinWay(ONE, patternOf('4/4 w | w | w')), 'measures'],
    ['one in another meter', joinWay(ONE, patternOf('3/4 h. | h.')), 'frame'],
    ['a canon', canonWay(scoreOfText('4/4 q q h'), 2, 4), '4/4 [A] q q h | (M1) [B] (M1) | q q h'],
    [
      'one a measure later',
      secondWay(ONE, { way: 'follows', level: 2 }, 1),
      '4/4 [clap] q q h | h (h) [stamp] (M1) | q q h',
    ],
    ['a made one with a pickup', secondWay(scoreOfText('4/4 ^ q | h.'), { way: 'fills', level: 2 }, 1), 'not-made'],
    [
      'a third one',
      addWay(scoreOfText('4/4 [clap] q q h [pat] w'), 'beat'),
      '4/4 [clap] q q h [pat] w [stamp] q q q q',
    ],
  ])('%s', (_name, joined, text) => expect(textOf(joined)).toBe(text));
});
