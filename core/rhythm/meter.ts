import { type Fraction, div, frac } from './fraction.ts';
import { VALUE, type ValueLetter } from './value.ts';

export interface Meter {
  readonly upper: number;
  readonly lower: number;
  /** Given groups of an unequal meter, in lower values; they add up to `upper`. */
  readonly groups?: readonly number[];
}

export type MeterKind = 'simple' | 'compound' | 'unequal';

/** The value that is counted, and how it divides. */
export interface Beat {
  /** Length as part of a whole note. */
  readonly length: Fraction;
  readonly division: 2 | 3;
}

export const LOWER_NUMBERS: readonly number[] = [1, 2, 4, 8, 16, 32];
export const LARGEST_UPPER = 32;

export const COMMON_TIME: Meter = { upper: 4, lower: 4 };

/** Usual groups of the unequal meters when none are written; the teacher may write others. */
export const USUAL_GROUPS: Readonly<Record<string, readonly number[]>> = {
  '5/8': [3, 2],
  '7/8': [2, 2, 3],
  '5/4': [3, 2],
  '7/4': [4, 3],
  '8/8': [3, 3, 2],
  '10/8': [3, 2, 2, 3],
  '11/8': [3, 3, 3, 2],
};

/**
 * Rules §2: upper number 6, 9 or 12 over 8 or 16 is compound; 5, 7 and given groups are unequal; all else simple.
 */
export function meterKind(meter: Meter): MeterKind {
  if (meter.groups !== undefined) return 'unequal';
  if ((meter.lower === 8 || meter.lower === 16) && [6, 9, 12].includes(meter.upper)) return 'compound';
  return meter.upper === 5 || meter.upper === 7 || meter.upper === 11 ? 'unequal' : 'simple';
}

/** Length of a full measure as part of a whole note. */
export function meterLength(meter: Meter): Fraction {
  return frac(meter.upper, meter.lower);
}

/**
 * The counted beat: the lower number's value, three of them in compound meter; `override` counts another value
 * (6/8 counted in six eighths). An overriding value is undotted, so it divides in two.
 */
export function beatOf(meter: Meter, override?: ValueLetter): Beat {
  if (override !== undefined) return { length: VALUE[override].of, division: 2 };
  return meterKind(meter) === 'compound'
    ? { length: frac(3, meter.lower), division: 3 }
    : { length: frac(1, meter.lower), division: 2 };
}

/** How many beats a full measure has; a fraction when an override does not fit the measure. */
export function beatsInMeasure(meter: Meter, override?: ValueLetter): Fraction {
  return div(meterLength(meter), beatOf(meter, override).length);
}

/** The parts of a measure that the eye groups, as parts of a whole note: beams never cross from one to the next. */
export function beamGroups(meter: Meter): readonly Fraction[] {
  const groups = meter.groups ?? USUAL_GROUPS[`${meter.upper}/${meter.lower}`];
  if (groups !== undefined && meter.lower >= 8) return groups.map((size) => frac(size, meter.lower));
  if (meter.upper === 3 && meter.lower === 8) return [frac(3, 8)];
  const beat = beatOf(meter).length;
  const count = Math.max(1, Math.round((meter.upper / meter.lower) * (beat.d / beat.n)));
  return Array.from({ length: count }, () => beat);
}

/** "4/4", "7/8[2+2+3]". */
export function meterText(meter: Meter): string {
  return `${meter.upper}/${meter.lower}${meter.groups ? `[${meter.groups.join('+')}]` : ''}`;
}

export function sameMeter(a: Meter, b: Meter): boolean {
  return meterText(a) === meterText(b);
}
