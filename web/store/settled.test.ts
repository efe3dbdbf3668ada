import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allSame, flat, settled, unflat } from './settled.ts';

const NONE = new Set<string>();

describe('what two have changed', () => {
  it('stays, each part as the one who changed it has it, and as it is chosen where both did', () => {
    const base = { title: 'a', bpm: 60, notes: ['x'], day: 1 };
    const theirs = { title: 'b', bpm: 70, notes: ['x'], day: 1 };
    const mine = { title: 'c', bpm: 60, notes: ['x', 'y'], day: 1 };
    expect(settled(base, theirs, mine, NONE)).toEqual({ title: 'c', bpm: 70, notes: ['x', 'y'], day: 1 });
    expect(settled(base, theirs, mine, new Set(['title']))).toEqual({ title: 'b', bpm: 70, notes: ['x', 'y'], day: 1 });
    expect(settled(undefined, theirs, mine, new Set(['title']))).toEqual({ ...mine, title: 'b' });
  });
  it('whichever is chosen, loses nothing that only one has changed', () => {
    const parts = fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd', 'e'), fc.integer({ min: 0, max: 2 }));
    fc.assert(
      fc.property(
        parts,
        parts,
        parts,
        fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e')),
        (base, theirs, mine, chosen) => {
          const out = settled(base, theirs, mine, new Set<string>(chosen));
          for (const part of ['a', 'b', 'c', 'd', 'e'] as const) {
            const [was, there, here] = [base[part], theirs[part], mine[part]];
            if (here === was) expect(out[part]).toBe(there);
            else if (there === was && !chosen.includes(part)) expect(out[part]).toBe(here);
            else expect(out[part]).toBe(chosen.includes(part) ? there : here);
          }
        },
      ),
    );
  });
  it('is the same in every part, or not; what is left out is nothing', () => {
    expect(allSame({ a: [1], b: null }, { a: [1] })).toBe(true);
    expect(allSame({ a: [1] }, { a: [2] })).toBe(false);
    expect(allSame({}, { a: 0 })).toBe(false);
  });
  it('of a column from paper has each mark as a part', () => {
    const column = { title: 'Quiz', outOf: 10, takenAt: 5, points: { ada: 4, bo: null } };
    expect(flat(column)).toEqual({ title: 'Quiz', outOf: 10, takenAt: 5, ada: 4, bo: null });
    expect(unflat(flat(column), column)).toEqual(column);
    expect(unflat({ name: 'Ben' }, { name: 'Bo' })).toEqual({ name: 'Ben' });
  });
});
