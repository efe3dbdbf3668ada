import { describe, expect, it } from 'vitest';
import { judged } from '../../core/judging/judged.test-helper.ts';
import { windowsFor } from '../../core/judging/windows.ts';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import { heardMarks } from './heardMarks.ts';

function marks(text: string, bpm: number, onsets: readonly number[]) {
  return heardMarks(patternOf(text), bpm, judged(text, bpm, onsets), windowsFor('9-10'));
}

describe('marks on the ruler', () => {
  it('stand where they were heard: a late clap to the right of its note, by as much as it was late', () => {
    const [, , late] = marks('4/4 q q q q | q q q q', 60, [0, 1, 2.2, 3, 4, 5, 6, 7]);
    expect(late).toMatchObject({ shape: 'late', measure: 0, written: 0.5 });
    expect(late!.onset).toBeGreaterThan(0.5);
    expect(late!.onset).toBeLessThan(0.56);
  });
  it('show a missed note at its place, with its window', () => {
    const missed = marks('4/4 q q q q', 60, [0, 1, 3]).find(({ shape }) => shape === 'missed');
    expect(missed).toMatchObject({ onset: 0.5, written: 0.5 });
    expect(missed!.window!.early).toBeCloseTo(0.09 / 4, 5);
  });
  it('show a clap too many in the measure where it fell', () => {
    const extra = marks('4/4 q q q q | h (h)', 60, [0, 1, 2, 3, 4, 6]).find(({ shape }) => shape === 'extra');
    expect(extra).toMatchObject({ measure: 1 });
    expect(extra!.onset).toBeCloseTo(0.5, 2);
  });
  it('place a clap before a pickup at the beginning, and one after the end at the end', () => {
    const shown = marks('4/4 ^ q | q q h', 60, [-1.9, -1, 0, 1, 2, 9]).filter(({ shape }) => shape === 'extra');
    expect(shown.map(({ measure }) => measure)).toEqual([0, 1]);
    for (const { onset } of shown) expect(onset).toBeLessThan(1.1);
  });
});
