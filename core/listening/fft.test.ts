import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PowerSpectrum } from './fft.ts';

/** By the definition, slowly. */
function slow(frame: readonly number[]): number[] {
  return Array.from({ length: frame.length / 2 + 1 }, (_, k) => {
    const [x, y] = frame.reduce(
      ([re, im], sample, n) => [
        re + sample * Math.cos((2 * Math.PI * k * n) / frame.length),
        im - sample * Math.sin((2 * Math.PI * k * n) / frame.length),
      ],
      [0, 0],
    );
    return x * x + y * y;
  });
}

describe('power spectrum', () => {
  it.each([16, 32, 64, 256])('of %i samples is as the definition says', (size) => {
    const spectrum = new PowerSpectrum(size);
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: size, maxLength: size }),
        (frame) => {
          const out = new Float64Array(size / 2 + 1);
          spectrum.of(Float64Array.from(frame), out);
          slow(frame).forEach((power, k) => expect(Math.abs(out[k]! - power)).toBeLessThan(1e-6));
        },
      ),
      { numRuns: 20 },
    );
  });
});
