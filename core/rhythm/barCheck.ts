import { type Fraction, add, compare, div, equal } from './fraction.ts';
import { beatOf, meterLength } from './meter.ts';
import type { Pattern } from './pattern.ts';
import { placePattern } from './place.ts';
import type { ValueLetter } from './value.ts';

export type BarVerdict = 'full' | 'short' | 'over' | 'pickup';

/** All in counted beats. */
export interface BarReport {
  /** The pickup is 0; `(M3)` takes three numbers. */
  readonly number: number;
  readonly total: Fraction;
  readonly expected: Fraction;
  readonly verdict: BarVerdict;
}

/**
 * Does every measure add up to its meter? A pickup is legal, and so is its complement, the measure that ends the piece
 * (or a repeated part) short by just the pickup: that one is expected to be so short, and is full.
 */
export function barCheck(pattern: Pattern, beat?: ValueLetter): BarReport[] {
  const placed = placePattern(pattern);
  const pickup = pattern.pickup ? placed[0]?.length : undefined;
  return placed.map((measure, i) => {
    const unit = beatOf(measure.meter, beat).length;
    const full = meterLength(measure.meter);
    const ends = i === placed.length - 1 || pattern.measures[measure.written]?.repeatEnd === true;
    const complement = pickup !== undefined && i > 0 && ends && equal(add(measure.length, pickup), full);
    const expected = complement ? measure.length : full;
    const difference = compare(measure.length, expected);
    const verdict: BarVerdict =
      difference > 0 ? 'over' : difference === 0 ? 'full' : pattern.pickup && i === 0 ? 'pickup' : 'short';
    return { number: measure.number, total: div(measure.length, unit), expected: div(expected, unit), verdict };
  });
}

/** Full, or a pickup. */
export function isLegal({ verdict }: BarReport): boolean {
  return verdict === 'full' || verdict === 'pickup';
}

/** True when every measure is legal. */
export function barsAddUp(reports: readonly BarReport[]): boolean {
  return reports.every(isLegal);
}
