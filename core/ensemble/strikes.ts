import type { Seconds } from '../timing/units.ts';

/** What lies outside of this part of a note's claps is one child or the other. */
const MIDDLE_PART = { from: 0.1, to: 0.9 };

/** What a class struck, over time: at each moment a share of the class, a clap of everybody together 1. */
export interface Strikes {
  /** Rising, from beat 1 of measure 1. */
  readonly times: ArrayLike<Seconds>;
  readonly shares: ArrayLike<number>;
}

/** Strikes of some notes or rests, by their indices in the whole: from the first to before the last. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** The strikes of takes of the same pattern, one a child, each from beat 1 of measure 1. */
export function strikesOfTakes(takes: readonly (readonly Seconds[])[]): Strikes {
  const times = takes.flat().sort((a, b) => a - b);
  return { times, shares: times.map(() => 1 / takes.length) };
}

/** Where the first strike at or after a moment is. */
function firstFrom(times: ArrayLike<Seconds>, moment: Seconds): number {
  let [low, high] = [0, times.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle]! < moment) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Strikes from one moment to before another. */
export function between({ times }: Strikes, from: Seconds, to: Seconds): Stretch {
  return { from: firstFrom(times, from), to: firstFrom(times, to) };
}

/** Share of the class that struck in a stretch; one who struck twice counts twice. */
export function shareOf({ shares }: Strikes, { from, to }: Stretch): number {
  let sum = 0;
  for (let i = from; i < to; i++) sum += shares[i]!;
  return sum;
}

/**
 * The moment by which a part of what was struck in a stretch had been struck: between two claps in the middle, as the
 * parts of ordered values are taken (the first value is part 0, the last part 1).
 * @returns undefined where nothing was struck
 */
export function momentOf({ times, shares }: Strikes, { from, to }: Stretch, part: number): Seconds | undefined {
  let all = 0;
  let struck: number | undefined;
  let last = 0;
  for (let i = from; i < to; i++) {
    if (shares[i]! <= 0) continue;
    struck ??= i;
    last = i;
    all += shares[i]!;
  }
  if (struck === undefined) return undefined;
  // Each value stands in the middle of its share; what lies before the first middle and after the last is none.
  const whole = all - shares[struck]! / 2 - shares[last]! / 2;
  const wanted = shares[struck]! / 2 + part * whole;
  let sum = 0;
  let before: { at: number; time: Seconds } | undefined;
  for (let i = struck; i <= last; i++) {
    if (shares[i]! <= 0) continue;
    const at = sum + shares[i]! / 2;
    sum += shares[i]!;
    if (at >= wanted) {
      if (!before || at === before.at) return times[i]!;
      return before.time + ((wanted - before.at) / (at - before.at)) * (times[i]! - before.time);
    }
    before = { at, time: times[i]! };
  }
  return times[last];
}

/** Where the middle 80 % of what was struck in a stretch lie. */
export interface MiddlePart {
  readonly from: Seconds;
  readonly middle: Seconds;
  readonly to: Seconds;
}

/** @returns undefined where nothing was struck */
export function middlePartOf(strikes: Strikes, stretch: Stretch): MiddlePart | undefined {
  const [from, middle, to] = [MIDDLE_PART.from, 0.5, MIDDLE_PART.to].map((part) => momentOf(strikes, stretch, part));
  return from === undefined || middle === undefined || to === undefined ? undefined : { from, middle, to };
}
