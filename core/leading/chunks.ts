import { linesOf } from '../rhythm/lines.ts';
import type { Measure, Pattern } from '../rhythm/pattern.ts';
import { placePattern, unfold } from '../rhythm/place.ts';

/** How a pattern is cut up for practice. */
export type ChunkPlan =
  | { readonly kind: 'whole' }
  /** By so many measures, joined to what went before step by step, then all. */
  | { readonly kind: 'joined'; readonly by: number }
  /** Of a page of lines each line, then all; of what is no page, all. */
  | { readonly kind: 'lines' }
  /** Some measures again and again, as numbered on paper. */
  | { readonly kind: 'range'; readonly from: number; readonly to: number };

/** `from` and `to` are numbers on paper; `whole` obeys repeats. */
export interface Chunk {
  readonly from: number;
  readonly to: number;
  /** Places among the written measures, from 0; the pickup goes with the measure after it. */
  readonly first: number;
  readonly last: number;
  readonly whole: boolean;
  /** Of a page of lines: which line it is. */
  readonly line?: number;
}

/** The written measures, `(M3)` as three, repeat signs left out. */
function writtenMeasures(pattern: Pattern): readonly Measure[] {
  return unfold({
    ...pattern,
    measures: pattern.measures.map(({ repeatStart: _start, repeatEnd: _end, ...measure }) => measure),
  }).measures;
}

/** Numbers on paper of the first full measure and of the last one. */
export function measureRange(pattern: Pattern): { readonly first: number; readonly last: number } {
  const placed = placePattern(pattern);
  return { first: placed[pattern.pickup && placed.length > 1 ? 1 : 0]!.number, last: placed.at(-1)!.number };
}

/** Where a piece of so many measures ends: after the rests that it would cut or leave alone. */
function endOfPiece(measures: readonly Measure[], from: number, by: number): number {
  const silent = (a: number, b: number) =>
    measures.slice(a, b).every(({ items }) => items.every(({ kind }) => kind === 'rest'));
  const goesOn = (at: number) =>
    measures[at - 1]!.rests !== undefined && measures[at]!.rests !== undefined && measures[at]!.letter === undefined;
  let end = Math.min(measures.length, from + by);
  while (end < measures.length && (goesOn(end) || silent(from, end))) end++;
  return silent(end, measures.length) ? measures.length : end;
}

/** The measures from one number on paper to another; undefined where there are no such measures in this order. */
function rangeOf(pattern: Pattern, from: number, to: number): Chunk | undefined {
  const numbers = placePattern(pattern).map(({ number }) => number);
  const begin = numbers.indexOf(from);
  const last = numbers.lastIndexOf(to);
  if (begin < 0 || last < begin || from > to) return undefined;
  return { from, to, first: pattern.pickup && begin === 1 ? 0 : begin, last, whole: false };
}

/** Whether a pattern has the measures of a plan. */
export function hasRange(pattern: Pattern, { from, to }: { from: number; to: number }): boolean {
  return from > 0 && rangeOf(pattern, from, to) !== undefined;
}

/**
 * The chunks of a plan, in order. A run of rests is not cut, and what has nothing to clap goes with its neighbour.
 * @example joined by 2, six measures → 1-2, 3-4, 1-4, 5-6, all
 */
export function chunksOf(pattern: Pattern, plan: ChunkPlan): Chunk[] {
  const numbers = placePattern(pattern).map(({ number }) => number);
  const skipped = pattern.pickup && numbers.length > 1 ? 1 : 0;
  const count = numbers.length - skipped;
  /** @param from  among the measures after the pickup, from 0; `end` is the first that is no longer in it */
  const piece = (from: number, end: number, whole = false): Chunk => ({
    from: numbers[from + skipped]!,
    to: numbers[end - 1 + skipped]!,
    first: from === 0 ? 0 : from + skipped,
    last: end - 1 + skipped,
    whole,
  });
  const all = piece(0, count, true);
  if (plan.kind === 'whole') return [all];
  if (plan.kind === 'lines')
    return [...linesOf(pattern).map(({ number, first, last }) => ({ ...piece(first, last + 1), line: number })), all];
  if (plan.kind === 'range') return [rangeOf(pattern, plan.from, plan.to) ?? all];
  const chunks: Chunk[] = [];
  const measures = writtenMeasures(pattern).slice(skipped);
  for (let from = 0; from < count;) {
    const end = endOfPiece(measures, from, plan.by);
    if (from > 0 || end < count) chunks.push(piece(from, end));
    if (from > 0 && end < count) chunks.push(piece(0, end));
    from = end;
  }
  return [...chunks, all];
}

/** The measures of a chunk as a pattern of their own, written out without repeats, each with its number on paper. */
export function chunkPattern(pattern: Pattern, { first, last, whole }: Chunk): Pattern {
  if (whole) return unfold(pattern);
  const measures = writtenMeasures(pattern).slice(first, last + 1);
  // Rests are counted as in the piece: the third measure of a run is the third here too.
  const before = (placePattern(pattern)[first]!.restNumber ?? 1) - 1;
  return {
    pickup: pattern.pickup && first === 0,
    measures: measures.map((measure, i) => (i === 0 && before > 0 ? { ...measure, restsBefore: before } : measure)),
  };
}
