import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { hearTimes } from './hearTimes.ts';

const round = (times: readonly number[]) => times.map((time) => Math.round(time * 100) / 100);

describe('when a pattern is heard and clapped back', () => {
  it('once, after a count-in', () => {
    const { beats, claps, words, plays, turn, end } = hearTimes(patternOf('2/4 q e e'), 60, 1, false);
    expect(round(beats.map(({ time }) => time))).toEqual([-2, -1, 0, 1]);
    expect(beats.map(({ accent }) => accent)).toEqual([true, false, true, false]);
    expect(round(claps)).toEqual([0, 1, 1.5]);
    expect(words).toEqual([
      { time: -2, word: 'ready' },
      { time: -1, word: 'go' },
    ]);
    expect([plays, turn, end]).toEqual([[-0], undefined, 2]);
  });

  it('twice, then the class: the beat never stops, the claps do', () => {
    const { beats, claps, plays, turn, end } = hearTimes(patternOf('2/4 q q'), 120, 2, true);
    expect(round(beats.map(({ time }) => time))).toEqual([-3, -2.5, -2, -1.5, -1, -0.5, 0, 0.5]);
    expect(round(claps)).toEqual([-2, -1.5, -1, -0.5]);
    expect([plays, turn, end]).toEqual([[-2, -1], 0, 1]);
  });

  it('a pickup stands before its beat 1 each time', () => {
    const { beats, claps, end } = hearTimes(patternOf('3/4 ^ q | h'), 60, 1, true);
    expect(round(claps)).toEqual([-4, -3]);
    const times = round(beats.map(({ time }) => time));
    expect(times.slice(-3)).toEqual([-1, 0, 1]);
    times.slice(1).forEach((time, i) => expect(time - times[i]!).toBeCloseTo(1));
    expect(end).toBe(2);
  });

  it('never more than three times', () => expect(hearTimes(patternOf('2/4 q q'), 60, 9, true).plays).toHaveLength(3));
});
