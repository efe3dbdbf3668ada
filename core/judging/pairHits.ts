import type { Windows } from './windows.ts';

/** How far a hit may be from a written note, in seconds: `early` and `late` are both positive. */
export interface Tolerance {
  readonly onTime: { readonly early: number; readonly late: number };
  readonly reach: { readonly early: number; readonly late: number };
}

/** The windows of each written note, narrowed by the gap to its neighbour on that side. */
export function tolerances(times: readonly number[], windows: Windows): Tolerance[] {
  return times.map((time, i) => {
    const before = i > 0 ? time - times[i - 1]! : Infinity;
    const after = i + 1 < times.length ? times[i + 1]! - time : Infinity;
    const side = (gap: number) => ({
      onTime: Math.min(windows.onTime, windows.onTimeOfGap * gap),
      reach: Math.min(windows.reach, windows.reachOfGap * gap),
    });
    const early = side(before);
    const late = side(after);
    return { onTime: { early: early.onTime, late: late.onTime }, reach: { early: early.reach, late: late.reach } };
  });
}

export interface Pairing {
  /** For each written note the index of its hit, or -1. */
  readonly hits: Int32Array;
  /** Higher is better: one to two for each note that has a hit, two when it is dead on time. */
  readonly score: number;
}

/**
 * Pairs hits with written notes in order, each at most once, so that as many as possible pair as closely as possible.
 * Dynamic programming over the pairs that lie in reach: the best chain that ends in a pair continues the best chain of
 * earlier notes and earlier hits, kept in a tree of running maxima, so thousands of stray taps cost little.
 * @param times  written notes, seconds, rising
 * @param hits   seconds, rising
 */
export function pairHits(times: readonly number[], tolerance: readonly Tolerance[], hits: readonly number[]): Pairing {
  const pairs: { note: number; hit: number; score: number; before: number }[] = [];
  /** tree[k]: the pair that ends the best chain among some hits; a Fenwick tree of maxima by hit index. */
  const tree = new Int32Array(hits.length + 1).fill(-1);
  const better = (a: number, b: number) => (a < 0 ? b : b < 0 || pairs[a]!.score >= pairs[b]!.score ? a : b);
  const bestBefore = (hit: number) => {
    let best = -1;
    for (let k = hit; k > 0; k -= k & -k) best = better(best, tree[k]!);
    return best;
  };
  const record = (pair: number, hit: number) => {
    for (let k = hit + 1; k <= hits.length; k += k & -k) tree[k] = better(tree[k]!, pair);
  };
  let from = 0;
  times.forEach((time, note) => {
    const { reach } = tolerance[note]!;
    while (from < hits.length && hits[from]! < time - reach.early) from++;
    const first = pairs.length;
    for (let hit = from; hit < hits.length && hits[hit]! <= time + reach.late; hit++) {
      const error = hits[hit]! - time;
      const off = Math.abs(error) / (error < 0 ? reach.early : reach.late);
      const before = bestBefore(hit);
      pairs.push({ note, hit, score: 2 - Math.min(1, off) ** 2 + (before < 0 ? 0 : pairs[before]!.score), before });
    }
    // Only now, so that no two pairs of one note stand in a chain.
    for (let pair = first; pair < pairs.length; pair++) record(pair, pairs[pair]!.hit);
  });
  const paired = new Int32Array(times.length).fill(-1);
  let best = bestBefore(hits.length);
  const score = best < 0 ? 0 : pairs[best]!.score;
  for (; best >= 0; best = pairs[best]!.before) paired[pairs[best]!.note] = pairs[best]!.hit;
  return { hits: paired, score };
}
