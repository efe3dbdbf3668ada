import 'fake-indexeddb/auto';
import { expect, it } from 'vitest';
import type { TornTake } from './keptTakes.ts';
import { dropTorn, keepTorn, tornTakes } from './torn.ts';

const torn = (id: string, startedAt: number, onsets: number[], more: Partial<TornTake> = {}): TornTake => ({
  id,
  teacherId: 'ann',
  classId: 'gulls',
  childId: 'c',
  childName: 'Ada',
  patternId: 'p',
  title: 'Steps',
  patternText: '4/4 q q h',
  bpm: 60,
  free: false,
  source: 'tap',
  startedAt,
  taken: { onsets },
  ...more,
});

it('what was clapped so far is found again, the newest of each take, by its own teacher and class', async () => {
  void keepTorn(torn('late', 9, [0]));
  void keepTorn(torn('early', 4, [0]));
  void keepTorn(torn('late', 9, [0, 1.1]));
  void keepTorn(torn('hers', 1, [0], { teacherId: 'ben' }));
  void keepTorn(torn('other', 1, [0], { classId: 'terns' }));
  void keepTorn(torn('done', 2, [0]));
  void dropTorn('done');
  expect((await tornTakes('ann', 'gulls')).map(({ id, taken }) => [id, taken.onsets])).toEqual([
    ['early', [0]],
    ['late', [0, 1.1]],
  ]);
});
