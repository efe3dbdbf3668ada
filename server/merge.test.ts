import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Problem } from './problem.ts';
import { merged } from './services/merge.ts';

const thing = fc.record({ a: fc.integer({ max: 3, min: 0 }), b: fc.integer({ max: 3, min: 0 }), c: fc.constant([1]) });

describe('two changes put together', () => {
  it('keep what only one of them changed, and are refused where both changed the same to something different', () => {
    fc.assert(
      fc.property(thing, thing, thing, (was, now, wanted) => {
        const clashes = (['a', 'b'] as const).filter(
          (part) => now[part] !== was[part] && wanted[part] !== was[part] && now[part] !== wanted[part],
        );
        if (clashes.length > 0) {
          let problem: Problem | undefined;
          try {
            merged(was, now, wanted);
          } catch (error) {
            problem = error as Problem;
          }
          expect(problem).toMatchObject({ status: 409, detail: { theirs: now, parts: clashes } });
          return;
        }
        const together = merged(was, now, wanted);
        for (const part of ['a', 'b'] as const)
          expect(together[part]).toBe(wanted[part] === was[part] ? now[part] : wanted[part]);
      }),
    );
  });
  it('take what is left out for nothing, and everything where it is not said what they were made from', () => {
    type Some = { a?: number | null; b?: number };
    expect(merged<Some>({ a: null }, {}, { b: 2 })).toEqual({ b: 2 });
    expect(merged<Some>({}, { a: 5 }, {})).toEqual({ a: 5 });
    expect(merged<Some>({ a: 1, b: 1 }, { b: 1 }, { a: 1, b: 2 })).toEqual({ b: 2 });
    expect(merged<Some>(undefined, { a: 5 }, { b: 1 })).toEqual({ b: 1 });
  });
});
