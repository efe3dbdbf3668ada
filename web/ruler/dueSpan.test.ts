import { expect, it } from 'vitest';
import { dueSpan } from './dueSpan.ts';

/** In quarters of 4/4 at so many beats a minute. */
const due = (inside: number, bpm: number, onset = 0, length = 4) => {
  const { from, to } = dueSpan(inside / 4, onset / 4, length / 4, 1 / 4, (4 * 60) / bpm);
  return [from * 4, to * 4];
};

it.each<[number, number, readonly [number, number]]>([
  [0, 60, [0, 1]],
  [0.99, 60, [0, 1]],
  [1, 60, [1, 2]],
  [3.5, 60, [3, 4]],
  [2.999_999_999_9, 60, [3, 4]],
  [1.5, 180, [1, 2]],
  [1.5, 181, [0, 2]],
  [2.5, 240, [2, 4]],
  [3.5, 400, [3, 4]],
])('at %f quarters, %i a minute: %j', (inside, bpm, span) => expect(due(inside, bpm)).toEqual(span));

it('a pickup has the last beats of its measure, and is no longer than what is written', () => {
  expect(due(0, 60, 3, 1)).toEqual([0, 1]);
  expect(due(0, 60, 2.5, 1.5)).toEqual([0, 0.5]);
  expect(due(0.6, 60, 2.5, 1.5)).toEqual([0.5, 1.5]);
});

it('never changes more than three times a second', () => {
  for (const bpm of [30, 60, 120, 179, 200, 300, 400]) {
    const seen = Array.from({ length: 400 }, (_, i) => due((i * 4) / 400, bpm)[0]);
    const changes = new Set(seen).size;
    const seconds = (4 * 60) / bpm;
    expect([bpm, (changes - 1) / seconds <= 3]).toEqual([bpm, true]);
  }
});
