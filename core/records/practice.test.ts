import { describe, expect, it } from 'vitest';
import { parseRhythm } from '../rhythm/text.ts';
import { practiceMinutes, practiceSeconds } from './practice.ts';

function item(text: string, bpm: number, times: number, days: readonly number[]) {
  const read = parseRhythm(text);
  if (!read.ok) throw new Error(text);
  return { pattern: read.pattern, bpm, times, days };
}

describe('practice at home', () => {
  it.each([
    // Four beats of count-in, eight of the pattern, a breath of 4 s: at 60 that is 16 s each time.
    ['4/4 q q q q | h h', 60, 1, 16],
    ['4/4 q q q q | h h', 60, 5, 80],
    ['4/4 q q q q | h h', 120, 1, 10],
    ['6/8 q. q.', 60, 1, 8],
    // What is played twice takes twice as long.
    ['4/4 |: w :|', 60, 1, 16],
  ])('%s at %i, %i times, takes %i s', (text, bpm, times, seconds) => {
    expect(practiceSeconds([item(text, bpm, times, [0])])[0]).toBeCloseTo(seconds, 6);
  });

  it('adds up day by day, in whole minutes that are never too few', () => {
    const items = [item('4/4 q q q q | h h', 60, 3, [0, 2]), item('4/4 w', 60, 2, [2, 6])];
    expect(practiceSeconds(items)).toEqual([48, 0, 72, 0, 0, 0, 24]);
    expect(practiceMinutes(items)).toEqual([1, 0, 2, 0, 0, 0, 1]);
  });
});
