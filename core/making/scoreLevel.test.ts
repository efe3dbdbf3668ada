import { expect, it } from 'vitest';
import { scoreOfText } from '../rhythm/arbitraryScore.test-helper.ts';
import { scoreDifficulty } from './scoreLevel.ts';
import { difficultyOf } from './level.ts';

const of = (text: string) => scoreDifficulty(scoreOfText(text));

it('is that of its one part', () => {
  const score = scoreOfText('4/4 q. e q q | e q e h');
  expect(scoreDifficulty(score)).toMatchObject({
    score: difficultyOf(score.parts[0]!.pattern).score,
    independence: 0,
  });
});

it('rises the less the parts have together', () => {
  const rhythm = 'q. e q q | e q e h';
  const same = of(`4/4 [a] ${rhythm} [b] ${rhythm}`);
  const beat = of(`4/4 [a] ${rhythm} [b]* q q q q`);
  const other = of(`4/4 [a] ${rhythm} [b] (e) e (q) e e (q) | (q) e e (e) q e`);
  expect(same.independence).toBe(0);
  expect(beat.independence).toBeCloseTo(0.5, 1);
  expect(other.independence).toBeGreaterThan(beat.independence);
  expect([same, beat, other].map(({ score }) => score)).toEqual(
    [same, beat, other].map(({ score }) => score).toSorted((a, b) => a - b),
  );
  expect(beat.score - of(`4/4 ${rhythm}`).score).toBeLessThan(1);
  expect(other.level).toBeGreaterThan(of(`4/4 ${rhythm}`).level);
});

it('rises with each part that sounds alone', () => {
  const two = of('4/4 [a] q (q) q (q) [b] (q) q (q) q');
  const three = of('4/4 [a] q (q) q (q) [b] (q) q (q) q [c] (e) e (q) (e) e (q)');
  expect(two.independence).toBe(1);
  expect(three.independence).toBe(1);
  expect(three.score).toBeGreaterThan(two.score);
  expect(of('4/4 [a] (M1) [b] (M1)')).toMatchObject({ independence: 0, level: 1 });
});
