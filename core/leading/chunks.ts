import type { Measure, Pattern } from '../rhythm/pattern.ts';
import { unfold } from '../rhythm/place.ts';

/** How a pattern is cut up for practice. */
export type ChunkPlan =
  | { readonly kind: 'whole' }
  /** By so many measures, joined to what went before step by step, then all. */
  | { readonly kind: 'joined'; readonly by: number }
  /** Some measures again and again, as numbered on paper. */
  | { readonly kind: 'range'; readonly from: number; readonly to: number };

/** Measures as numbered on paper; the pickup goes with measure 1. `whole` obeys repeats. */
export interface Chunk {
  readonly from: number;
  readonly to: number;
  readonly whole: boolean;
}

/** The written measures, `(M3)` as three, repeat signs left out: measure n is at n - 1, or at n after a pickup. */
function writtenMeasures(pattern: Pattern): Measure[] {
  return unfold({
    ...pattern,
    measures: pattern.measures.map(({ repeatStart: _start, repeatEnd: _end, ...measure }) => measure),
  }).measures.slice();
}

/** The number of the last measure. */
export function lastMeasure(pattern: Pattern): number {
  return writtenMeasures(pattern).length - (pattern.pickup ? 1 : 0);
}

/**
 * The chunks of a plan, in order.
 * @example joined by 2, six measures → 1-2, 3-4, 1-4, 5-6, all
 */
export function chunksOf(pattern: Pattern, plan: ChunkPlan): Chunk[] {
  const last = lastMeasure(pattern);
  const all: Chunk = { from: 1, to: last, whole: true };
  if (plan.kind === 'whole') return [all];
  if (plan.kind === 'range') return [{ from: plan.from, to: plan.to, whole: false }];
  const chunks: Chunk[] = [];
  for (let from = 1; from <= last && plan.by < last; from += plan.by) {
    const to = Math.min(last, from + plan.by - 1);
    chunks.push({ from, to, whole: false });
    if (from > 1 && to < last) chunks.push({ from: 1, to, whole: false });
  }
  return [...chunks, all];
}

/** The measures of a chunk as a pattern of their own, written out without repeats. */
export function chunkPattern(pattern: Pattern, { from, to, whole }: Chunk): Pattern {
  if (whole) return unfold(pattern);
  const shift = pattern.pickup ? 1 : 0;
  const withPickup = pattern.pickup && from === 1;
  const measures = writtenMeasures(pattern).slice(withPickup ? 0 : from - 1 + shift, to + shift);
  return { pickup: withPickup, measures };
}
