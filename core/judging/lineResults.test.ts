import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { judged } from './judged.test-helper.ts';
import { lineResults } from './lineResults.ts';

const PAGE = '4/4 "1" q q q q |: "2" q q h :| "3" h h';
const RIGHT = [0, 1, 2, 3, 4, 5, 6, 8, 9, 10, 12, 14];

describe('a result line by line', () => {
  const of = (onsets: readonly number[], text = PAGE) =>
    lineResults(patternOf(text), judged(text, 60, onsets)).map(({ line, from, to, right, notes, extras }) => [
      line,
      [from, to],
      [right, notes, extras],
    ]);
  it('counts what was on time in each, a repeat with its line', () =>
    expect(of(RIGHT)).toEqual([
      [1, [1, 1], [4, 4, 0]],
      [2, [2, 2], [6, 6, 0]],
      [3, [3, 3], [2, 2, 0]],
    ]));
  it('a note left out and a clap too many count where they were', () =>
    expect(
      of([...RIGHT.filter((at) => at !== 5), 12.5, 13].sort((a, b) => a - b)).map(([, , counts]) => counts),
    ).toEqual([
      [4, 4, 0],
      [5, 6, 0],
      [2, 2, 2],
    ]));
  it('is none where there are no lines', () => expect(of([0, 1, 2, 3], '4/4 q q q q')).toEqual([]));
});
