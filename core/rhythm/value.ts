import { type Fraction, frac, mul } from './fraction.ts';

/** The letter of a value in rhythm text (rules §1). */
export type ValueLetter = 'w' | 'h' | 'q' | 'e' | 's' | 't';
export type Dots = 0 | 1 | 2;

/** A written value: its sign and its dots, before any tuplet. */
export interface NoteValue {
  readonly base: ValueLetter;
  readonly dots: Dots;
}

export interface ValueFacts {
  readonly letter: ValueLetter;
  /** Part of a whole note. */
  readonly of: Fraction;
  /** Flags on the stem; beams join notes that have some. */
  readonly flags: number;
}

/** Longest first, as rules §1 lists them. */
export const VALUES: readonly ValueFacts[] = [
  { letter: 'w', of: frac(1), flags: 0 },
  { letter: 'h', of: frac(1, 2), flags: 0 },
  { letter: 'q', of: frac(1, 4), flags: 0 },
  { letter: 'e', of: frac(1, 8), flags: 1 },
  { letter: 's', of: frac(1, 16), flags: 2 },
  { letter: 't', of: frac(1, 32), flags: 3 },
];

export const VALUE: Readonly<Record<ValueLetter, ValueFacts>> = Object.fromEntries(
  VALUES.map((facts) => [facts.letter, facts]),
) as Record<ValueLetter, ValueFacts>;

/** A dot adds half of what stands before it: ×1, ×3/2, ×7/4. */
const DOT_FACTOR: readonly Fraction[] = [frac(1), frac(3, 2), frac(7, 4)];

const LENGTHS = Object.fromEntries(
  VALUES.map(({ letter, of }) => [letter, DOT_FACTOR.map((factor) => mul(of, factor))]),
) as unknown as Readonly<Record<ValueLetter, readonly [Fraction, Fraction, Fraction]>>;

/** The value as rhythm text: "q.", "e". */
export function valueText(value: NoteValue): string {
  return value.dots === 0 ? value.base : value.base + '.'.repeat(value.dots);
}

/** Length as part of a whole note: lengthOf({ base: 'q', dots: 1 }) = 3/8. */
export function lengthOf(value: NoteValue): Fraction {
  return LENGTHS[value.base][value.dots];
}

/** No written length has a denominator beyond 128, so this tells every two of them apart. */
const keyOf = ({ n, d }: Fraction) => n * 1024 + d;

const BY_LENGTH = new Map(
  VALUES.flatMap(({ letter }) =>
    ([0, 1, 2] as const).map((dots) => [keyOf(LENGTHS[letter][dots]), { base: letter, dots }] as const),
  ),
);

/** The value (with up to two dots) of exactly this length, if one sign can write it. */
export function valueOfLength(length: Fraction): NoteValue | undefined {
  return length.d > 128 ? undefined : BY_LENGTH.get(keyOf(length));
}
