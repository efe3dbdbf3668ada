import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resultOf } from '../judging/judged.test-helper.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../rhythm/elements.ts';
import { classStanding, hardElements, needsOf } from './classStanding.ts';
import { type HeardElement, heardElements, packElements, unpackElements } from './heardElements.ts';
import { DUE_AFTER_MS, type ElementRecord, type Mastery, masteryOf, recordsOf, stateOf, withTake } from './mastery.ts';
import { hardestMeasure, nextStep, nextStepOf } from './nextStep.ts';

describe('the next step', () => {
  it.each([
    [[], { kind: 'again' }],
    [[{ bpm: 60, mark: 4 }], { kind: 'again' }],
    [
      [
        { bpm: 60, mark: 3 },
        { bpm: 60, mark: 4 },
      ],
      { kind: 'again' },
    ],
    [
      [
        { bpm: 60, mark: 4 },
        { bpm: 60, mark: 4 },
      ],
      { kind: 'faster', bpm: 76 },
    ],
    [
      [
        { bpm: 108, mark: 4 },
        { bpm: 108, mark: 4 },
      ],
      { kind: 'next-pattern' },
    ],
    [
      [
        { bpm: 76, mark: 2 },
        { bpm: 76, mark: 1 },
      ],
      { kind: 'half-speed', bpm: 38 },
    ],
    [
      [
        { bpm: 76, mark: 2 },
        { bpm: 76, mark: 2, hardest: 3 },
      ],
      { kind: 'measure', measure: 3, bpm: 60 },
    ],
    [
      [
        { bpm: 76, mark: 2 },
        { bpm: 76, mark: 3 },
      ],
      { kind: 'again' },
    ],
  ] as const)('after %j: %j', (takes, step) => expect(nextStep(takes)).toEqual(step));
  it('finds the measure that cost most', () => {
    const pattern = patternOf('4/4 q q q q | q (q) q q | q q q q');
    expect(hardestMeasure(resultOf({ pattern, bpm: 60, onsets: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11] }))).toBe(2);
    expect(hardestMeasure(resultOf({ pattern, bpm: 60, onsets: [0, 1, 2, 3, 4, 6, 7, 8, 9, 10, 11] }))).toBeUndefined();
  });
});

describe('elements and mastery', () => {
  it.each([
    ['4/4 q e e h', ['quarter', 'eighth-pair', 'half']],
    ['4/4 e q e (q) e (e)', ['quarter', 'quarter-rest', 'eighth-rest', 'syncopation']],
    ['4/4 q. e e. s q~ | w', ['quarter', 'tie', 'dotted-quarter', 'dotted-eighth']],
    ['6/8 q e q.', ['quarter', 'compound']],
    ['4/4 3{e e e} s s s s (h)', ['half-rest', 'sixteenths', 'triplet']],
  ])('%s has %j', (text, elements) =>
    expect([...elementsOf(patternOf(text)).keys()].sort()).toEqual([...elements].sort()),
  );
  it('is known by element, newer takes weigh more', () => {
    const pattern = patternOf('4/4 q q q q | e e e e h');
    const right = [0, 1, 2, 3, 4, 4.5, 5, 5.5, 6];
    const missing = right.filter((time) => time !== 4.5);
    const take = (onsets: number[], takenAt: number) => ({
      elements: heardElements(pattern, resultOf({ pattern, bpm: 60, onsets })),
      takenAt,
    });
    const known = (...takes: Parameters<typeof recordsOf>[0]) => masteryOf(recordsOf(takes), 0);
    const [quarter, pair] = known(take(right, 2), take(missing, 1));
    expect(quarter).toEqual({ element: 'quarter', heard: 2, right: 1, state: 'new', lastSeen: 2 });
    expect(pair!.right).toBe(0.5556);
    expect(known(take(right, 1), take(missing, 2))[1]!.right).toBe(0.4444);
  });
  it('a habit is wrong in each measure it is named in', () => {
    const pattern = patternOf('4/4 q. e h | q. e h | q. e h | q q q q');
    const result = resultOf({ pattern, bpm: 60, onsets: [0, 1.5, 2, 4, 5.5, 6, 8, 9.5, 10, 12, 13, 14, 15] });
    const measure = { time: 1, played: 0, at: { n: 0, d: 1 } } as never as object;
    const habit = { code: 'dot-too-short', measure: 1, event: 0, again: [{ ...measure, measure: 3 }] } as never;
    const dotted = (misreadings: never[]) =>
      heardElements(pattern, { ...result, misreadings }).find(({ element }) => element === 'dotted-quarter');
    expect(dotted([])!.right).toBeCloseTo(2.44, 9);
    expect(dotted([habit])!.right).toBeCloseTo(0.8, 9);
    expect(dotted([{ ...(habit as object), instead: true } as never])!.right).toBeCloseTo(2.44, 9);
  });
});

/** Each measure on its own, 1 for right, oldest first. */
const measures = (rights: readonly number[], element: ElementId = 'tie'): HeardElement[] =>
  rights.map((right) => ({ element, measures: 1, right }));
const DAY = 86_400_000;
const recordOf = (rights: readonly number[], days = 2): ElementRecord => ({
  ...measures(rights).reduce<ElementRecord | undefined>((so, one) => withTake(so, one, 0), undefined)!,
  days,
});

describe('how an element stands', () => {
  it.each([
    [[1, 1, 1, 1], 2, 'firm'],
    [[1, 1, 1, 1], 1, 'growing'],
    [[1, 1, 1], 2, 'growing'],
    [[1, 1], 2, 'new'],
    [[0, 0], 2, 'new'],
    [[0, 1, 1, 1], 2, 'growing'],
    [[1, 1, 0], 2, 'shaky'],
    [[1, 1, 1, 0], 2, 'shaky'],
    [[0, 1, 1, 1, 1, 1, 1, 1], 2, 'firm'],
    [[0, 1, 1, 1, 1], 2, 'growing'],
  ] as const)('%j right on %i days: %s', (rights, days, state) =>
    expect(stateOf(recordOf(rights, days), 0)).toBe(state),
  );
  it('what is firm is due after three weeks, nothing else is', () => {
    const firm = recordOf([1, 1, 1, 1]);
    expect(stateOf(firm, DUE_AFTER_MS - 1)).toBe('firm');
    expect(stateOf(firm, DUE_AFTER_MS)).toBe('due');
    expect(stateOf(recordOf([1, 1, 1]), 10 * DUE_AFTER_MS)).toBe('growing');
  });
  it('two takes on one day are one day, over midnight two', () => {
    const at = (...moments: number[]) =>
      recordsOf(moments.map((takenAt) => ({ elements: measures([1]), takenAt }))).get('tie')!.days;
    expect([at(0, DAY - 1), at(DAY - 1, DAY), at(0, DAY, DAY + 1)]).toEqual([1, 2, 2]);
    const noon = (moment: number) => Math.floor((moment + DAY / 2) / DAY);
    const takes = [DAY / 4, DAY].map((takenAt) => ({ elements: measures([1]), takenAt }));
    expect(recordsOf(takes, noon).get('tie')!.days).toBe(2);
  });

  const taken = fc.record({
    takenAt: fc.integer({ min: 0, max: 90 * DAY }),
    rights: fc.array(fc.integer({ min: 0, max: 1 }), { minLength: 1, maxLength: 9 }),
  });
  it('is by the definition, whatever the order in which takes arrive', () => {
    fc.assert(
      fc.property(fc.uniqueArray(taken, { minLength: 1, maxLength: 12, selector: (one) => one.takenAt }), (takes) => {
        const heard = takes.map(({ takenAt, rights }) => ({
          takenAt,
          elements: [
            {
              element: 'half' as const,
              measures: rights.length,
              right: rights.reduce<number>((so, right) => so * 0.8 + right, 0),
            },
          ],
        }));
        const sorted = [...takes].sort((a, b) => a.takenAt - b.takenAt);
        const all = sorted.flatMap(({ rights }) => rights).reverse();
        const part =
          all.reduce((sum, right, back) => sum + right * 0.8 ** back, 0) /
          all.reduce((sum, _right, back) => sum + 0.8 ** back, 0);
        const now = 95 * DAY;
        const [known] = masteryOf(recordsOf(heard), now);
        const days = new Set(takes.map(({ takenAt }) => Math.floor(takenAt / DAY))).size;
        const last = sorted.at(-1)!.takenAt;
        expect(known!.right).toBeCloseTo(part, 3);
        expect([known!.heard, known!.lastSeen]).toEqual([all.length, last]);
        const firm = part >= 0.9 - 1e-6 && all.length >= 4 && days >= 2;
        const other = part < 0.75 - 1e-6 && all.length >= 3 ? 'shaky' : all.length < 3 ? 'new' : 'growing';
        expect(known!.state).toBe(firm ? (now - last >= 21 * DAY ? 'due' : 'firm') : other);
      }),
    );
  });
  it('is the same after it was packed beside the take', () => {
    const one = fc.record({
      element: fc.constantFrom(...ELEMENT_IDS),
      measures: fc.integer({ min: 1, max: 2000 }),
      right: fc.double({ min: 0, max: 5, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 15 }), (heard) => {
        const back = unpackElements(packElements(heard));
        expect(back.map(({ right: _right, ...rest }) => rest)).toEqual(heard.map(({ right: _right, ...rest }) => rest));
        for (const [i, { right }] of heard.entries()) expect(Math.abs(back[i]!.right - right)).toBeLessThan(1e-8);
      }),
    );
    expect(unpackElements('')).toEqual([]);
    expect(unpackElements('quintuplet 3 2,tie 1 1')).toEqual([{ element: 'tie', measures: 1, right: 1 }]);
  });
});

describe('a class', () => {
  const FIRM: Mastery = { element: 'half', heard: 5, right: 1, state: 'firm', lastSeen: 0 };
  const child = (childId: string, ...mastery: Partial<Mastery>[]) => ({
    childId,
    mastery: mastery.map((one) => ({ ...FIRM, ...one })),
  });
  it('has an element when three quarters of those heard are firm, has met it when half were heard', () => {
    const firm = (id: string) => child(id, {});
    const shaky = (id: string) => child(id, { state: 'shaky' });
    const never = ['x', 'y', 'z', 'w'].map((id) => child(id));
    expect(classStanding([firm('a'), firm('b'), firm('c'), shaky('d')])).toMatchObject([{ has: true, met: true }]);
    expect(classStanding([firm('a'), firm('b'), shaky('d')])).toMatchObject([{ has: false, met: true }]);
    expect(classStanding([firm('a'), firm('b'), firm('c'), shaky('d'), ...never])).toMatchObject([
      { element: 'half', heard: 4, firm: 3, met: true, has: true },
    ]);
    expect(classStanding([firm('a'), ...never])).toMatchObject([{ met: false, has: true }]);
    expect(classStanding([child('a', { state: 'due' }), firm('b')])).toMatchObject([
      { has: true, states: { due: 1, firm: 1 } },
    ]);
    expect(classStanding(never)).toEqual([]);
  });
  it('is grouped by what each child needs most, the most urgent first', () => {
    const groups = needsOf([
      child('a', { state: 'growing', right: 0.8 }),
      child('b', { state: 'shaky', right: 0.5 }, { element: 'tie', state: 'shaky', right: 0.2 }),
      child('c', { element: 'tie', state: 'shaky', right: 0.7 }, { state: 'due' }),
      child('d', { state: 'due', lastSeen: 5 }, { element: 'whole', state: 'due', lastSeen: 2 }),
      child('e', { state: 'shaky', right: 0.1 }),
      child('f'),
      child('g', {}),
    ]);
    expect(groups).toEqual([
      { kind: 'shaky', element: 'tie', children: ['b', 'c'] },
      { kind: 'shaky', element: 'half', children: ['e'] },
      { kind: 'due', element: 'whole', children: ['d'] },
      { kind: 'growing', element: 'half', children: ['a'] },
    ]);
    // Each element once, and no more than are practised at once.
    expect(hardElements(groups)).toEqual(['tie', 'half', 'whole']);
    const more = [{ kind: 'shaky', element: 'quarter', children: [] } as const, ...groups];
    expect(hardElements(more)).toEqual(['quarter', 'tie', 'half']);
  });
});

describe('the next step of a child', () => {
  it('is that of the pattern it was heard on last', () => {
    const take = (pattern: string, takenAt: number, mark: number) => ({ pattern, takenAt, mark, bpm: 60 });
    expect(nextStepOf([])).toBeUndefined();
    expect(nextStepOf([take('a', 3, 4), take('b', 2, 1), take('a', 1, 4)])).toEqual({
      pattern: 'a',
      step: { kind: 'faster', bpm: 76 },
    });
    expect(nextStepOf([take('a', 1, 4), take('a', 2, 4), take('b', 3, 4)])).toEqual({
      pattern: 'b',
      step: { kind: 'again' },
    });
  });
});
