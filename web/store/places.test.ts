import { describe, expect, it } from 'vitest';
import type { LineUp } from '../../contract/lineUp.ts';
import type { ClassRecords } from '../../contract/records.ts';
import type { Body, Change } from './changes.ts';
import { type UnsentTake, withChanges, withTakes } from './overlay.ts';
import { thingAt } from './places.ts';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const C = `/classes/${id(1)}`;
const change = (path: string, body?: Body, was?: Body): Change => ({
  id: path,
  teacherId: 'ann',
  path,
  body,
  was,
  at: 0,
});
const ROOM = { id: id(1), name: 'Gulls', ages: '6-7', role: 'owner', owner: 'Ann' };
const CHILD = { id: id(2), name: 'Ada', adaptations: { wider: 1.5 } };
const RECORDS: ClassRecords = {
  children: [id(2), id(3)],
  patterns: [{ key: id(5), title: 'Waves', lastAt: 10 }],
  marks: [{ child: 0, pattern: 0, takes: 1, best: 2, last: 2, average: 2 }],
  elements: [],
  paper: [{ id: id(9), title: 'Quiz', outOf: 10, takenAt: 5, points: [{ child: 0, points: 7 }] }],
};
const LINE = {
  id: id(7),
  title: 'Waves',
  settings: { patternIds: [id(5)] },
  startedAt: 1,
  turns: [{ childId: id(2), patternId: id(5), state: 'waiting', mark: null, takeId: null, slower: null, clash: null }],
  patterns: [],
} as unknown as LineUp;
const LESSON = { title: 'Halves', minutes: 40 };

/** What is changed, the answer it is shown in, and that answer with it. */
const SHOWN: readonly [string, Change[], string, unknown, unknown][] = [
  [
    'a new pattern stands at the end',
    [change(`/patterns/${id(4)}`, { title: 'Rope', text: 'q q' })],
    '/patterns',
    [{ id: id(5), title: 'Waves', text: 'h' }],
    [
      { id: id(5), title: 'Waves', text: 'h' },
      { id: id(4), title: 'Rope', text: 'q q' },
    ],
  ],
  [
    'a changed pattern stays where it lies',
    [change(`/patterns/${id(5)}`, { title: 'Rope', text: 'q q' })],
    '/patterns',
    [{ id: id(5), title: 'Waves', text: 'h', folder: 'Sea', archived: true }, { id: id(6) }],
    [{ id: id(5), title: 'Rope', text: 'q q', folder: 'Sea', archived: true }, { id: id(6) }],
  ],
  [
    'what is removed is not there',
    [change(`/plans/${id(5)}`)],
    '/plans',
    [{ id: id(5) }, { id: id(6) }],
    [{ id: id(6) }],
  ],
  [
    'patterns in another order, in a folder, and one that is not named',
    [change('/patterns/shelf', { patterns: [{ id: id(6), folder: 'Sea' }, { id: id(5) }] })],
    '/patterns',
    [
      { id: id(5), title: 'a', folder: 'Old' },
      { id: id(6), title: 'b' },
      { id: id(8), title: 'c' },
    ],
    [
      { id: id(6), title: 'b', folder: 'Sea' },
      { id: id(5), title: 'a' },
      { id: id(8), title: 'c' },
    ],
  ],
  [
    'a new class is its teacher’s own',
    [change(C, { name: 'Gulls', ages: '6-7' })],
    '/classes',
    [],
    [{ id: id(1), name: 'Gulls', ages: '6-7', children: 0, role: 'owner', owner: '' }],
  ],
  [
    'a new class can be opened, with its children',
    [change(C, { name: 'Gulls' }), change(`${C}/children/${id(2)}`, { name: 'Ada' })],
    C,
    undefined,
    { id: id(1), name: 'Gulls', role: 'owner', owner: '', children: [{ id: id(2), name: 'Ada', adaptations: null }] },
  ],
  ['a new class has no term', [change(C, { name: 'Gulls' })], `${C}/term-plan`, undefined, null],
  [
    'of a class that is known nothing is made up',
    [change(C, { name: 'Gulls' }, {})],
    `${C}/practice`,
    undefined,
    undefined,
  ],
  [
    'settings that are taken back are gone',
    [change(C, { name: 'Terns' }, {})],
    C,
    { ...ROOM, wordSet: 'fish', children: [CHILD] },
    { id: id(1), name: 'Terns', role: 'owner', owner: 'Ann', children: [CHILD] },
  ],
  [
    'a child that is renamed keeps what is made easier',
    [change(`${C}/children/${id(2)}`, { name: 'Ida' })],
    C,
    { ...ROOM, children: [CHILD] },
    { ...ROOM, children: [{ ...CHILD, name: 'Ida' }] },
  ],
  [
    'who leaves is not called',
    [change(`${C}/children/${id(2)}`)],
    C,
    { ...ROOM, children: [CHILD] },
    { ...ROOM, children: [] },
  ],
  [
    'a new child has a place in the grid',
    [change(`${C}/children/${id(4)}`, { name: 'Oli' })],
    `${C}/records`,
    RECORDS,
    { ...RECORDS, children: [id(2), id(3), id(4)] },
  ],
  [
    'a child that is renamed has the place it had',
    [change(`${C}/children/${id(3)}`, { name: 'Oli' })],
    `${C}/records`,
    RECORDS,
    RECORDS,
  ],
  [
    'marks on paper: given, taken back, left alone',
    [change(`${C}/paper/${id(9)}`, { title: 'Quiz 2', outOf: 10, takenAt: 5, points: { [id(3)]: 4 } })],
    `${C}/records`,
    RECORDS,
    {
      ...RECORDS,
      paper: [
        {
          ...RECORDS.paper[0]!,
          title: 'Quiz 2',
          points: [
            { child: 0, points: 7 },
            { child: 1, points: 4 },
          ],
        },
      ],
    },
  ],
  [
    'a mark that is taken back',
    [change(`${C}/paper/${id(9)}`, { points: { [id(2)]: null } })],
    `${C}/records`,
    RECORDS,
    { ...RECORDS, paper: [{ ...RECORDS.paper[0]!, points: [] }] },
  ],
  ['a column that is deleted', [change(`${C}/paper/${id(9)}`)], `${C}/records`, RECORDS, { ...RECORDS, paper: [] }],
  ['a lesson', [change(`${C}/lessons/${id(4)}`, LESSON)], `${C}/lessons`, [], [{ id: id(4), ...LESSON }]],
  ['a term', [change(`${C}/term-plan`, { from: '2026-09-01' })], `${C}/term-plan`, null, { from: '2026-09-01' }],
  [
    'a practice week',
    [change(`${C}/practice/${id(4)}`, { starts: '2026-09-01' })],
    `${C}/practice`,
    [],
    [{ id: id(4), starts: '2026-09-01', practised: [] }],
  ],
  [
    'a line-up, and whoever was heard in it',
    [
      change(`${C}/line-ups/${id(7)}`, {
        title: 'Waves',
        settings: LINE.settings,
        startedAt: 1,
        turns: [{ childId: id(2), patternId: id(5) }],
      }),
      change(`${C}/line-ups/${id(7)}/turns/${id(2)}`, { state: 'heard', mark: 3 }),
      change(`${C}/line-ups/${id(7)}/turns/${id(3)}`, { state: 'absent' }),
    ],
    `${C}/line-ups`,
    [],
    [
      {
        ...LINE,
        turns: [
          { ...LINE.turns[0], state: 'heard', mark: 3 },
          { ...LINE.turns[0], childId: id(3), state: 'absent' },
        ],
      },
    ],
  ],
  [
    'the mark of a take',
    [change(`/takes/${id(4)}/override`, { mark: 3, reason: 'late' })],
    `/takes/${id(4)}`,
    { id: id(4), override: null, overrideReason: '' },
    { id: id(4), override: 3, overrideReason: 'late' },
  ],
  [
    'what is changed elsewhere is not shown here',
    [change(`/plans/${id(4)}`, {})],
    '/sheets',
    [{ id: id(4) }],
    [{ id: id(4) }],
  ],
];

describe('what was changed without a network', () => {
  it.each(SHOWN)('%s', (_what, changes, path, answer, shown) => {
    const before = structuredClone(answer);
    expect(withChanges(path, answer, changes)).toEqual(shown);
    expect(answer).toEqual(before);
  });

  it.each([
    ['/patterns', { error: 'nothing' }, `/patterns/${id(5)}`],
    [`${C}/records`, { children: null }, `${C}/children/${id(2)}`],
    [`${C}/records`, {}, `${C}/paper/${id(9)}`],
    [`${C}/line-ups`, [{}], `${C}/line-ups/${id(7)}/turns/${id(2)}`],
  ])('an answer of %s that makes no sense stays as it is', (path, answer, changed) => {
    expect(withChanges(path, answer, [change(changed, {})])).toEqual(answer);
  });

  it('is read as it is sent, from where it stands', () => {
    const read = (path: string, answer: unknown) => thingAt(path)?.places[0]?.read?.(answer);
    expect(read(`${C}/children/${id(2)}`, { children: [CHILD] })).toEqual({ name: 'Ada', adaptations: { wider: 1.5 } });
    expect(read(C, { ...ROOM, children: [] })).toEqual({ name: 'Gulls', ages: '6-7' });
    expect(read(`/patterns/${id(5)}`, [{ id: id(5), title: 'a', folder: 'Sea', archived: true }])).toEqual({
      title: 'a',
      folder: 'Sea',
    });
    expect(read(`${C}/paper/${id(9)}`, RECORDS)).toEqual({
      title: 'Quiz',
      outOf: 10,
      takenAt: 5,
      points: { [id(2)]: 7 },
    });
    expect(read(`${C}/practice/${id(4)}`, [{ id: id(4), starts: 'x', practised: [] }])).toEqual({ starts: 'x' });
    expect(read(`${C}/term-plan`, null)).toBeUndefined();
  });

  it.each([
    '/session',
    '/staff/1',
    `${C}/shares`,
    `${C}/moves`,
    `/takes/${id(1)}`,
    `/takes/${id(1)}/onsets`,
    '/patterns/x',
  ])('%s needs the server', (path) => expect(thingAt(path)).toBeUndefined());
});

describe('takes on their way', () => {
  const take = (n: number, mark: number | undefined, more: Partial<UnsentTake['upload']> = {}): UnsentTake => ({
    id: id(100 + n),
    classId: id(1),
    ...(mark === undefined ? {} : { mark }),
    upload: { childId: id(2), patternId: id(5), title: 'Waves', takenAt: n, lineUpId: id(7), ...more },
  });

  it('are in the grid, the last of several last', () => {
    const shown = withTakes(`${C}/records`, RECORDS, [take(30, 1), take(20, 4)]) as ClassRecords;
    expect(shown.marks).toEqual([{ child: 0, pattern: 0, takes: 3, best: 4, last: 1, average: 2.33 }]);
    expect(shown.patterns[0]!.lastAt).toBe(30);
  });

  it('of a pattern that was never heard are a column of their own', () => {
    const shown = withTakes(`${C}/records`, RECORDS, [
      take(20, 3, { patternId: id(6), title: 'Rope' }),
    ]) as ClassRecords;
    expect(shown.patterns[1]).toEqual({ key: id(6), title: 'Rope', lastAt: 20 });
    expect(shown.marks[1]).toEqual({ child: 0, pattern: 1, takes: 1, best: 3, last: 3, average: 3 });
  });

  it('of another line-up leave this one as it is', () => {
    expect(withTakes(`${C}/line-ups`, [LINE], [take(20, 3, { lineUpId: id(8) })])).toEqual([LINE]);
  });

  it('were heard in their line-up', () => {
    const [line] = withTakes(`${C}/line-ups`, [LINE], [take(20, 3)]) as LineUp[];
    expect(line!.turns[0]).toMatchObject({ state: 'heard', mark: 3, takeId: id(120) });
  });

  it.each([
    ['of another class', { ...take(20, 3), classId: id(99) }],
    ['that are stored but for their sound', { ...take(20, 3), stored: true as const }],
    ['of an older page', take(20, undefined)],
    ['of a child who has left', take(20, 3, { childId: id(55), lineUpId: id(8) })],
  ])('%s change nothing', (_what, one) => {
    expect(withTakes(`${C}/records`, RECORDS, [one])).toEqual(RECORDS);
    expect(withTakes(`${C}/line-ups`, [LINE], [one])).toEqual([LINE]);
  });
});
