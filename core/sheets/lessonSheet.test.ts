import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { TermStep } from '../planning/term.ts';
import { BOOKLET_KINDS, elementsOf, lessonSeed, lessonSheet } from './lessonSheet.ts';
import { makeSheet } from './sheet.ts';

const READ_TIE: TermStep = { element: 'tie', step: 'read' };
const NEW_HALF: TermStep = { element: 'half', step: 'meet' };

describe('a sheet for a lesson', () => {
  it.each<[string, readonly TermStep[], readonly ('whole' | 'half')[], readonly string[] | undefined]>([
    ['is about what is new', [NEW_HALF, READ_TIE], ['whole'], ['quarter', 'half', 'tie']],
    ['else about what comes back', [], ['whole', 'half'], ['quarter', 'whole', 'half']],
    ['else about what is usual', [], [], undefined],
  ])('%s', (_, steps, again, elements) => {
    const [part] = lessonSheet({ steps, again }, [], { kinds: ['counts'], level: 2 });
    expect(part).toEqual({ key: 0, kind: 'counts', level: 2, count: 5, ...(elements ? { elements } : {}) });
    expect(elementsOf({ steps, again })).toEqual(elements?.slice(1) ?? []);
  });
  it('takes the patterns of the lesson where a kind is made of patterns', () => {
    const parts = lessonSheet({ steps: [NEW_HALF], again: [] }, ['4/4 h h'], {
      kinds: ['counts', 'true-false', 'bar-lines'],
      level: 1,
    });
    expect(parts.map(({ kind, patterns }) => [kind, patterns])).toEqual([
      ['counts', ['4/4 h h']],
      ['true-false', undefined],
      ['bar-lines', ['4/4 h h']],
    ]);
  });
  it('has fewer questions of each kind the more kinds there are, and something of each', () => {
    const counts = (many: number) =>
      lessonSheet({ steps: [], again: [] }, [], { kinds: BOOKLET_KINDS.slice(0, many), level: 2 }).map(
        ({ count }) => count,
      );
    expect([counts(1), counts(2), counts(3), counts(5)]).toEqual([[5], [4, 4], [3, 3, 2], [2, 2, 2, 2, 2]]);
    const parts = lessonSheet({ steps: [NEW_HALF], again: [] }, [], { kinds: BOOKLET_KINDS, level: 3 });
    const sheet = { title: 'a', seed: 4, paper: 'a4', large: false, versions: false, bpm: 72, parts } as const;
    for (const { questions } of makeSheet(sheet, { school: 'numbers' }).parts) expect(questions).toHaveLength(2);
  });
  it('has a seed of its own every day and hour, the same whenever it is printed again', () => {
    const at = (day: string, starts: string, variant = 0) => lessonSeed({ day, starts }, variant);
    expect(at('2026-12-01', '09:40')).toBe(at('2026-12-01', '09:40'));
    const others = [
      at('2026-12-01', '09:40'),
      at('2026-12-01', '10:40'),
      at('2026-12-02', '09:40'),
      at('2026-12-08', '09:40'),
      at('2026-12-01', '09:40', 1),
    ];
    expect(new Set(others).size).toBe(5);
    fc.assert(
      fc.property(fc.nat(400), (variant) => {
        const seed = at('2026-12-01', '09:40', variant);
        expect(Number.isInteger(seed) && seed >= 0 && seed < 10_000).toBe(true);
      }),
    );
  });
});
