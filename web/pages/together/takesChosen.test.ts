import { expect, it } from 'vitest';
import { takesChosen, usualBpm } from './takesChosen.ts';

const take = (childId: string, mark: number, accuracy: number, bpm = 60, onsets = [0, 1]) => ({
  id: `${childId} ${mark} ${accuracy}`,
  childId,
  takenAt: 0,
  bpm,
  mark,
  accuracy,
  onsets,
});
/** Newest first. */
const TAKES = [take('a', 2, 0.5, 60, [0, 1]), take('a', 4, 0.9, 80, [0, 0.75]), take('a', 4, 0.8), take('b', 1, 0.1)];

it.each([
  ['best', [0, 1]],
  ['last', [0, 1]],
] as const)('of each child its %s take, at one tempo', (counting, onsets) => {
  const chosen = takesChosen(TAKES, ['b', 'a', 'c'], counting, 60);
  expect(chosen).toEqual([
    { childId: 'b', onsets: [0, 1] },
    { childId: 'a', onsets },
  ]);
});

it('the best is by mark, then by how much was right; of equal ones the newest', () => {
  const by = (takes: typeof TAKES) => takesChosen(takes, ['a'], 'best', 60)[0]!.onsets;
  expect(by([take('a', 3, 0.9, 60, [1]), take('a', 4, 0.2, 60, [2])])).toEqual([2]);
  expect(by([take('a', 4, 0.2, 60, [1]), take('a', 4, 0.9, 60, [2])])).toEqual([2]);
  expect(by([take('a', 4, 0.9, 60, [1]), take('a', 4, 0.9, 60, [2])])).toEqual([1]);
  expect(takesChosen([take('a', 2, 0.5, 60, [1]), take('a', 4, 0.9, 60, [2])], ['a'], 'last', 60)[0]!.onsets).toEqual([
    1,
  ]);
});

it('stands at the tempo of most, of two as usual ones at the faster', () => {
  expect(usualBpm(TAKES)).toBe(60);
  expect(usualBpm([take('a', 1, 1, 72), take('b', 1, 1, 90)])).toBe(90);
  expect(usualBpm([])).toBeUndefined();
});
