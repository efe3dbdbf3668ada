import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { countIn } from './countIn.ts';
import { beatTimes } from '../timing/pulses.ts';

describe('count-in', () => {
  it.each([
    ['4/4 q q q q', 60, ['1', '2', 'ready', 'go'], [-4, -3, -2, -1]],
    ['3/4 q q q', 60, ['1', 'ready', 'go'], [-3, -2, -1]],
    ['6/8 q. q.', 60, ['ready', 'go'], [-2, -1]],
    ['4/4 ^ q | w', 60, ['4', '1', 'ready', 'go'], [-5, -4, -3, -2]],
    ['4/4 ^ e | w', 60, ['4', '1', 'ready', 'go'], [-5, -4, -3, -2]],
    ['2/2 w', 120, ['ready', 'go'], [-1, -0.5]],
    // One beat alone says no tempo.
    ['1/4 q | q', 60, ['ready', 'go'], [-2, -1]],
  ])('%s at %i', (text, bpm, words, times) => {
    const beats = countIn(patternOf(text), bpm);
    expect(beats.map(({ word }) => word)).toEqual(words);
    expect(beats.map(({ time }) => time)).toEqual(times);
  });
});

describe('beats', () => {
  it('click on every counted beat, repeats obeyed, accents on the first of a measure', () => {
    expect(beatTimes(patternOf('2/4 |: q q :|'), 60)).toEqual(
      [0, 1, 2, 3].map((time) => ({ time, accent: time % 2 === 0 })),
    );
    expect(beatTimes(patternOf('3/4 q q q | 6/8 q. q.'), 60).map(({ time }) => time)).toEqual([0, 1, 2, 3, 4.5]);
    expect(beatTimes(patternOf('4/4 ^ q | w'), 60).map(({ time }) => time)).toEqual([-1, 0, 1, 2, 3]);
  });
});
