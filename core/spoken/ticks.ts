import { type Fraction, frac } from '../rhythm/fraction.ts';
import { type Meter, meterKind, meterLength } from '../rhythm/meter.ts';
import { type Dots, type NoteValue, VALUES, type ValueLetter, lengthOf } from '../rhythm/value.ts';

/**
 * Positions while reading speech are whole numbers of 1/384 of a whole note: the thirty-second with two dots (7/128)
 * and a third of every value are whole numbers of it, so the arithmetic stays exact and fast.
 */
export const GRID = 384;

export function ticks(length: Fraction): number {
  return (length.n * GRID) / length.d;
}

const FROM_TICKS: Fraction[] = [];

export function fromTicks(count: number): Fraction {
  return (FROM_TICKS[count] ??= frac(count, GRID));
}

export function measureTicks(meter: Meter): number {
  return ticks(meterLength(meter));
}

export interface GridValue {
  readonly value: NoteValue;
  readonly ticks: number;
}

/** All written values, longest first. */
export const GRID_VALUES: readonly GridValue[] = VALUES.flatMap(({ letter }) =>
  ([2, 1, 0] as const).map((dots: Dots) => ({ base: letter, dots })),
)
  .map((value) => ({ value, ticks: ticks(lengthOf(value)) }))
  .sort((a, b) => b.ticks - a.ticks);

/** A thirty-second, and a third of an eighth: where notes stand that people speak. */
const PLACES = [12, 16] as const;

/**
 * Not among such places: only values with two dots, or the shortest with one, lead there, and from there straight back.
 */
export function isStray(at: number): boolean {
  return PLACES.every((step) => at % step !== 0);
}

/** A tuplet that speech can mean: n units in the time of m. */
export interface TupletKind {
  readonly n: number;
  readonly m: number;
  readonly unit: ValueLetter;
  /** Sounding length of the whole group. */
  readonly ticks: number;
  /** How unusual it is; the usual one is preferred. */
  readonly cost: number;
  /** What may stand in it: written values with their sounding lengths. */
  readonly values: readonly GridValue[];
}

function tupletKind(n: number, m: number, unit: ValueLetter, cost: number): TupletKind {
  const unitTicks = GRID * (lengthOf({ base: unit, dots: 0 }).n / lengthOf({ base: unit, dots: 0 }).d);
  const values = GRID_VALUES.filter(
    ({ value, ticks: t }) =>
      value.dots < 2 && t % (unitTicks / 2) === 0 && t < unitTicks * n && Number.isInteger((t * m) / n),
  ).map(({ value, ticks: t }) => ({ value, ticks: (t * m) / n }));
  return { n, m, unit, ticks: unitTicks * m, cost, values };
}

const TRIPLETS = [
  tupletKind(3, 2, 'e', 0.3),
  tupletKind(3, 2, 'q', 0.4),
  tupletKind(3, 2, 's', 0.5),
  tupletKind(3, 2, 'h', 0.5),
  tupletKind(6, 4, 's', 0.8),
  tupletKind(6, 4, 'e', 0.9),
];
const DUPLETS = [
  tupletKind(2, 3, 'e', 0.4),
  tupletKind(4, 3, 'e', 0.6),
  tupletKind(2, 3, 'q', 0.5),
  tupletKind(4, 3, 's', 0.6),
];

export function tupletKinds(meter: Meter): readonly TupletKind[] {
  return meterKind(meter) === 'compound' ? [...DUPLETS, ...TRIPLETS] : TRIPLETS;
}

/** How long a written value sounds, alone or in a tuplet. */
export function soundingTicks(value: NoteValue, tuplet: TupletKind | undefined): number {
  const length = ticks(lengthOf(value));
  return tuplet ? (length * tuplet.m) / tuplet.n : length;
}
