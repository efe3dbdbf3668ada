import { describe, expect, it } from 'vitest';
import { judge } from '../judging/judge.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { concert } from './concert.ts';
import { laidOut } from './laidOut.ts';

const RATE = 8000;
const PATTERN = patternOf('4/4 q q e e q | h q q');

/** A take of the pattern as it was judged. */
function takeOf(onsets: readonly number[], bpm: number, free: boolean) {
  const judged = judge({ pattern: PATTERN, bpm, onsets, ...(free ? { free } : { start: 0 }) });
  if (!judged.ok) throw new Error('not judged');
  return { bpm, free, onsets, result: judged.result };
}
const written = (bpm: number) => scheduleOf(PATTERN, bpm).notes.map(({ time }) => time);

describe('a take among others', () => {
  it('to a click is as far off it in beats at any tempo', () => {
    const late = written(60).map((time, i) => time + (i === 3 ? 0.1 : 0));
    const laid = laidOut(PATTERN, takeOf(late, 60, false), 120)!;
    laid.forEach((time, i) => expect(time - written(120)[i]!).toBeCloseTo(i === 3 ? 0.05 : 0, 9));
  });

  it('without a click stands on its own beat, wherever it began', () => {
    const own = written(60).map((time) => 7 + time * 0.9);
    const laid = laidOut(PATTERN, takeOf(own, 60, true), 80)!;
    laid.forEach((time, i) => expect(time).toBeCloseTo(written(80)[i]!, 6));
  });

  it('without a click and with next to nothing in it has no place', () => {
    const take = takeOf(
      written(60).map((time) => 7 + time),
      60,
      true,
    );
    const first = (many: number) => ({ ...take, result: { notes: take.result.notes.slice(0, many) } });
    expect([0, 2].map((many) => laidOut(PATTERN, first(many), 60))).toEqual([undefined, undefined]);
    expect(laidOut(PATTERN, first(3), 60)).toHaveLength(take.onsets.length);
  });
});

const energy = (samples: Float32Array, from: number, to: number) =>
  samples.slice(Math.round(from * RATE), Math.round(to * RATE)).reduce((sum, one) => sum + one * one, 0);

describe('a concert', () => {
  const silence = new Float32Array(4 * RATE);

  it('has each child at its place, from left to right, as loud as the others', () => {
    const [left, right] = concert([[0.5], [1.5], [2.5]], silence, RATE);
    const heard = [0.5, 1.5, 2.5].map((at) => [energy(left, at, at + 0.2), energy(right, at, at + 0.2)] as const);
    expect(heard[0]![1]).toBeLessThan(1e-6);
    expect(heard[2]![0]).toBeLessThan(1e-6);
    expect(heard[1]![0] / heard[1]![1]).toBeCloseTo(1, 5);
    const loud = heard.map(([a, b]) => a + b);
    expect(Math.max(...loud) / Math.min(...loud)).toBeLessThan(2);
    // And nothing where nobody clapped.
    expect(energy(left, 0, 0.49) + energy(right, 3, 4)).toBe(0);
  });

  it('begins each clap on its very sample, and goes on with what sounds beneath', () => {
    const under = silence.map((_, i) => (i === 100 ? 0.5 : 0));
    const [left, right] = concert([[1]], under, RATE);
    expect([left[100], right[100]]).toEqual([0.5, 0.5]);
    expect([left[RATE - 1], left[RATE]! !== 0]).toEqual([0, true]);
  });

  it('of forty at once is not over full, and what lies outside is left out', () => {
    const sides = concert(
      Array.from({ length: 40 }, () => [-0.01, 1, 3.99, 9]),
      silence,
      RATE,
    );
    for (const side of sides) {
      expect(side).toHaveLength(silence.length);
      expect(Math.max(...side.map(Math.abs))).toBeLessThanOrEqual(1);
      expect(side.every(Number.isFinite)).toBe(true);
    }
  });

  it('has other hands for each child, the same each time', () => {
    const [one] = concert([[1], [2]], silence, RATE);
    const of = (at: number) => one.slice(at * RATE, at * RATE + 400).map((sample) => sample / (one[at * RATE] ?? 1));
    const apart = of(1).map((sample, i) => Math.abs(sample - of(2)[i]!));
    expect(Math.max(...apart)).toBeGreaterThan(0.1);
    expect(concert([[1], [2]], silence, RATE)[0]).toEqual(one);
  });
});
