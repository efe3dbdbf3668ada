import { type Fraction, frac, mul } from '../rhythm/fraction.ts';
import { COMMON_TIME, LARGEST_UPPER, type Meter } from '../rhythm/meter.ts';

/** The meter of a measure that has none written: as many quarters, else eighths …, as are in it. */
export function freeMeter(length: Fraction): Meter {
  for (const lower of [4, 8, 16, 32]) {
    const { n, d } = mul(length, frac(lower));
    if (d === 1 && n >= 1 && n <= LARGEST_UPPER) return { upper: n, lower };
  }
  return COMMON_TIME;
}
