/** Seeds are whole numbers of 32 bits. */
export const LARGEST_SEED = 2 ** 32 - 1;

/** Numbers from a seed: the same seed gives the same numbers everywhere. */
export interface Random {
  /** From 0 up to, not including, 1. */
  next(): number;
  /** Normally distributed, mean 0 and deviation 1. */
  normal(): number;
  /** A whole number from 0 up to, not including, n. */
  below(n: number): number;
  pick<T>(from: readonly T[]): T;
}

/** The mulberry32 generator (public domain): 32 bits of state, good enough for play and tests, not for secrets. */
export function randomFrom(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  const below = (n: number) => Math.floor(next() * n);
  return {
    next,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    below,
    pick: (from) => from[below(from.length)]!,
  };
}
