import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add, ceil, compare, div, equal, floor, frac, mixed, mul, sub, sum, toNumber } from './fraction.ts';

const fraction = fc
  .record({ n: fc.integer({ min: -5000, max: 5000 }), d: fc.integer({ min: 1, max: 5000 }) })
  .map(({ n, d }) => frac(n, d));

describe('fractions', () => {
  it('are in lowest terms with a positive denominator', () => {
    expect(frac(6, -8)).toEqual({ n: -3, d: 4 });
    expect(frac(0, 5)).toEqual({ n: 0, d: 1 });
  });
  it('obey the laws of arithmetic', () => {
    fc.assert(
      fc.property(fraction, fraction, fraction, (a, b, c) => {
        expect(add(a, b)).toEqual(add(b, a));
        expect(sub(add(a, b), b)).toEqual(a);
        expect(mul(a, add(b, c))).toEqual(add(mul(a, b), mul(a, c)));
        if (b.n !== 0) expect(mul(div(a, b), b)).toEqual(a);
        expect(Math.sign(compare(a, b))).toBe(Math.sign(toNumber(a) - toNumber(b)));
        expect(floor(a) <= toNumber(a) && toNumber(a) <= ceil(a) && ceil(a) - floor(a) <= 1).toBe(true);
      }),
    );
  });
  it.each([
    [frac(3, 2), '1 1/2'],
    [frac(4), '4'],
    [frac(1, 2), '1/2'],
    [frac(-5, 4), '-1 1/4'],
    [frac(0), '0'],
  ])('%o is written %s', (value, text) => expect(mixed(value)).toBe(text));
  it('sums a measure exactly', () => expect(equal(sum([frac(1, 3), frac(1, 3), frac(1, 3)]), frac(1))).toBe(true));
  it('refuses what is no fraction', () => {
    expect(() => frac(1, 0)).toThrow(RangeError);
    expect(() => frac(0.5)).toThrow(RangeError);
    expect(() => frac(2 ** 60)).toThrow(RangeError);
  });
});
