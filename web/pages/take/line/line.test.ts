import { describe, expect, it } from 'vitest';
import type { LineUp } from '../../../../contract/lineUp.ts';
import { lineTime, planLine, readPatterns, heardByOf, secondInPair } from './linePlan.ts';
import { mergedTurns } from './useLine.ts';
import { quietWatch } from './useQuiet.ts';

describe('a line-up in pairs', () => {
  const [pattern, alone] = readPatterns([
    { id: 'a', title: 'Quay', text: '4/4 [clap] q q h [stamp] h h' },
    { id: 'b', title: 'Rope', text: '4/4 h h' },
  ]);
  it.each([
    [pattern!, { pairs: true, heardBy: 'tap' }, 'Quay · stamp'],
    [pattern!, { pairs: true, heardBy: 'microphone' }, undefined],
    [pattern!, { pairs: false, heardBy: 'tap' }, undefined],
    [pattern!, { heardBy: 'tap' }, undefined],
    [alone!, { pairs: true, heardBy: 'tap' }, undefined],
  ] as const)('%j %j: %s', (own, settings, title) => {
    expect(secondInPair(own, settings)?.saved.title).toBe(title);
    expect([pattern!.title, pattern!.text, alone!.title]).toEqual(['Quay · clap', '4/4 q q h', 'Rope']);
  });
});

describe('when the room is quiet', () => {
  /** At which of these levels, a tenth of a second each, it is quiet for long enough. */
  const heardAt = (levels: readonly number[]) => {
    const isQuiet = quietWatch();
    return levels.findIndex((level, i) => isQuiet(level, i * 100));
  };
  const hum = (count: number, level: number) => Array.from({ length: count }, () => level);
  it('the child has time to come, and quiet must last', () => {
    expect(heardAt(hum(60, 0.01))).toBe(30);
    expect(heardAt([...hum(25, 0.01), ...hum(10, 0.5), ...hum(40, 0.01)])).toBe(47);
  });
  it('quiet is what this room calls quiet; a loud one never begins', () => {
    expect(heardAt([...hum(20, 0.3), ...hum(40, 0.1)])).toBe(30);
    expect(heardAt([0.02, ...hum(100, 0.4)])).toBe(-1);
  });
});

const PATTERNS = readPatterns([
  { id: 'p', title: 'First', text: '4/4 q q q q' },
  { id: 'x', title: 'Unreadable', text: '4/4 z' },
  { id: 'q', title: 'Second', text: '4/4 w | w' },
]);
const CHILDREN = ['Bo', 'Ada', 'Cy'].map((name) => ({ id: name, name, adaptations: null }));

describe('the plan of a line-up', () => {
  it('knows when each child comes, and how long all take', () => {
    const [first] = PATTERNS;
    const children = [{ ...CHILDREN[0]!, adaptations: { slower: 0.5, moreTries: 1 } }, ...CHILDREN.slice(1)];
    const turns = planLine(children, [first!], { order: 'list', seed: 1, bpm: 60 }, new Set());
    expect(turns.map(({ child, bpm, from }) => [child.name, bpm, from])).toEqual([
      ['Bo', 30, 0],
      ['Ada', 60, 25],
      ['Cy', 60, 42],
    ]);
    expect(lineTime(turns, 2)).toEqual({ once: 59, most: 3 * 25 + 2 * 17 + 2 * 17 });
  });
  it('deals out what can be read', () => {
    const turns = planLine(CHILDREN, PATTERNS, { order: 'name', seed: 4, bpm: 60 }, new Set());
    expect(turns.map(({ child }) => child.name)).toEqual(['Ada', 'Bo', 'Cy']);
    expect(turns[0]!.pattern.id).not.toBe(turns[1]!.pattern.id);
    expect(turns[1]!.pattern.id).not.toBe(turns[2]!.pattern.id);
  });
});

describe('turns', () => {
  const turn = (childId: string, state: LineUp['turns'][number]['state'], mark: number | null = null) => ({
    childId,
    patternId: 'p',
    state,
    mark,
    takeId: null,
    slower: null,
    clash: null,
  });
  const lineUp: LineUp = {
    id: 'l',
    title: 'First',
    settings: { patternIds: ['p'], seed: 1, bpm: 60, heardBy: 'tap', tries: 1, order: 'list', startsItself: false },
    startedAt: 1,
    turns: [turn('a', 'waiting'), turn('b', 'heard', 2), turn('c', 'waiting')],
    patterns: [],
  };
  it('are those of the server with what this device knows better, and whoever came late', () => {
    const merged = mergedTurns(
      lineUp,
      { a: { state: 'absent' }, b: { state: 'heard', mark: 4 }, d: { state: 'waiting', patternId: 'q' } },
      new Map([
        ['c', 3],
        ['b', 1],
      ]),
    );
    expect(merged.map(({ childId, state, mark }) => [childId, state, mark])).toEqual([
      ['a', 'absent', null],
      ['b', 'heard', 4],
      ['c', 'heard', 3],
      ['d', 'waiting', null],
    ]);
    expect(merged[3]).toMatchObject({ patternId: 'q' });
  });
});

describe('who taps where the others clap', () => {
  it.each([
    [null, 'microphone', 'microphone'],
    [{ hands: 'tapping' as const }, 'microphone', 'tap'],
    [{ hands: 'one-hand' as const }, 'microphone', 'microphone'],
    [{ hands: 'tapping' as const }, 'tap', 'tap'],
  ] as const)('made easier by %j, heard by %s: %s', (adaptations, heardBy, by) => {
    expect(heardByOf({ id: 'a', name: 'Ada', adaptations }, heardBy)).toBe(by);
  });
});
