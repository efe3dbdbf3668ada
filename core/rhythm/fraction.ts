/**
 * Exact fractions for musical time. Plain data (`{ n, d }`), always in lowest terms with d > 0.
 * Ours instead of a library: the ones on npm carry BigInt, which is some twenty times slower
 * than the small integers a measure needs (the finest place here is 1/720720 of a beat).
 */
export interface Fraction {
  readonly n: number;
  readonly d: number;
}

function gcd(a: number, b: number): number {
  while (b !== 0) {
    const rest = a % b;
    a = b;
    b = rest;
  }
  return a;
}

/** n/d in lowest terms. Throws RangeError when d is 0 or a part is no safe integer (a bug, never a user's error). */
export function frac(n: number, d = 1): Fraction {
  if (d === 0 || !Number.isSafeInteger(n) || !Number.isSafeInteger(d))
    throw new RangeError(`no exact fraction: ${n}/${d}`);
  if (d === 1) return known(n || 0, d);
  const g = gcd(Math.abs(n), Math.abs(d)) * (d < 0 ? -1 : 1);
  return known(n / g || 0, d / g);
}

/** The fractions of everyday rhythms, each made once: there are few of them, and they come again for every note. */
const KNOWN: Fraction[] = [];
const KNOWN_D = 32;
const KNOWN_N = 256;

function known(n: number, d: number): Fraction {
  if (n < 0 || n >= KNOWN_N || d > KNOWN_D) return { n, d };
  // A quotient may be a whole number that the engine holds as a float; one such part would change the shape of all
  // fractions.
  return (KNOWN[n * (KNOWN_D + 1) + d] ??= { n: n | 0, d: d | 0 });
}

export const ZERO: Fraction = { n: 0, d: 1 };
export const ONE: Fraction = { n: 1, d: 1 };

export function add(a: Fraction, b: Fraction): Fraction {
  if (a.d === b.d) return frac(a.n + b.n, a.d);
  const g = gcd(a.d, b.d);
  return frac(a.n * (b.d / g) + b.n * (a.d / g), (a.d / g) * b.d);
}

export function sub(a: Fraction, b: Fraction): Fraction {
  // Not -b.n: minus zero is a float, and one float would change the shape of all fractions.
  return add(a, { n: 0 - b.n, d: b.d });
}

export function mul(a: Fraction, b: Fraction): Fraction {
  return frac(a.n * b.n, a.d * b.d);
}

export function div(a: Fraction, b: Fraction): Fraction {
  return frac(a.n * b.d, a.d * b.n);
}

/** Negative, zero or positive, as a is before, equal to or after b. */
/** Without its sign. */
export function abs({ n, d }: Fraction): Fraction {
  return { n: Math.abs(n), d };
}

export function compare(a: Fraction, b: Fraction): number {
  return a.d === b.d ? a.n - b.n : a.n * b.d - b.n * a.d;
}

export function equal(a: Fraction, b: Fraction): boolean {
  return a.n === b.n && a.d === b.d;
}

/** The whole number at or below a: floor(-1/2) = -1. */
export function floor(a: Fraction): number {
  return Math.floor(a.n / a.d);
}

/** The whole number at or above a. */
export function ceil(a: Fraction): number {
  return Math.ceil(a.n / a.d);
}

export function isWhole(a: Fraction): boolean {
  return a.d === 1;
}

/** For the one step out of exact time, into seconds or pixels. */
export function toNumber(a: Fraction): number {
  return a.n / a.d;
}

export function sum(parts: readonly Fraction[]): Fraction {
  return parts.reduce(add, ZERO);
}

/** As teachers write it: a mixed number. mixed(frac(3, 2)) = "1 1/2"; mixed(frac(-1, 2)) = "-1/2". */
export function mixed(a: Fraction): string {
  const size = Math.abs(a.n);
  const whole = Math.floor(size / a.d);
  const rest = size - whole * a.d;
  const sign = a.n < 0 ? '-' : '';
  if (rest === 0) return `${sign}${whole}`;
  return whole === 0 ? `${sign}${rest}/${a.d}` : `${sign}${whole} ${rest}/${a.d}`;
}
