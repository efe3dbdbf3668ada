import { type Fraction, frac, toNumber } from '../rhythm/fraction.ts';

/** A stretch of a measure, from its bar line: plain, in so many thirty-seconds; or a group, so many in the time of. */
export interface Cell {
  readonly at: Fraction;
  readonly length: Fraction;
  /** Parts in which its places are. */
  readonly division: number;
  readonly group?: { readonly n: number; readonly m: number };
}

/** Places in a whole note: nothing finer is written, and every group begins and ends at one. */
const PLACES = 32;

/** Groups that are written, in the time of a plain note or of a dotted one, the commonest first. */
const PLAIN_GROUPS = [
  { n: 3, m: 2 },
  { n: 5, m: 4 },
  { n: 6, m: 4 },
  { n: 7, m: 4 },
  { n: 9, m: 8 },
] as const;
const DOTTED_GROUPS = [
  { n: 2, m: 3 },
  { n: 4, m: 3 },
  { n: 5, m: 6 },
  { n: 7, m: 6 },
  { n: 8, m: 6 },
] as const;
const PLAIN_SPANS = [2, 4, 8, 16, 32];
const DOTTED_SPANS = [6, 12, 24];
/** Groups of the finest values are rarer than longer ones that explain the same onsets. */
const FINEST = 1.5;
/** Rarer is what begins with a rest, or not at a multiple of its own length; an end beside its places tells little. */
const UNLIKELY = 1.3;
const END_BESIDE = 0.8;

/** Thirty-seconds that a group of the finest values lasts. */
const RARE_SPAN = 2;

interface Shape {
  readonly span: number;
  readonly n: number;
  readonly m: number;
  /** Parts of the group that are told apart: its notes, or halves and quarters of them. */
  readonly parts: number;
  readonly cost: number;
}

/** Finest first told apart: three eighths before three eighths cut in two; the fewer parts the likelier. */
const SHAPES: readonly Shape[] = [
  ...PLAIN_SPANS.flatMap((span) => PLAIN_GROUPS.map((group) => ({ span, ...group }))),
  ...DOTTED_SPANS.flatMap((span) => DOTTED_GROUPS.map((group) => ({ span, ...group }))),
].flatMap(({ span, n, m }) =>
  [1, 2, 4].flatMap((cut) => {
    const value = span / m / cut;
    return Number.isInteger(Math.log2(value)) && value >= 1
      ? [{ span, n, m, parts: n * cut, cost: (n * cut) ** 1.5 * (value === 1 ? FINEST : 1) + span / PLACES }]
      : [];
  }),
);

interface Step {
  readonly cost: number;
  readonly from: number;
  readonly shape?: Shape;
}

/**
 * Cuts a measure into plain stretches and groups wherever they begin, so that every onset has a place and the groups
 * are as few and as simple as can be.
 * @param from    of the measure from its bar line (a pickup begins later), in whole notes
 * @param length  of what is written in it, in whole notes
 * @param onsets  from the bar line, in whole notes, as played
 * @param ends    of the notes, likewise
 * @param near    how far a note may be from its place, in whole notes
 * @param exact   nothing but rounding moves the notes: one alone proves any group
 * @returns undefined where no cut gives every onset a place
 */
export function groupCells(
  from: Fraction,
  length: Fraction,
  onsets: readonly number[],
  ends: readonly number[],
  near: number,
  exact: boolean,
): Cell[] | undefined {
  const first = toNumber(from) * PLACES;
  const count = toNumber(length) * PLACES;
  if (!Number.isInteger(first) || !Number.isInteger(count)) return undefined;
  const beside = near * PLACES;
  const starts = onsets.map((onset) => onset * PLACES - first);
  const stops = ends.map((end) => end * PLACES - first);
  const best = cheapest(count, first, starts, stops, beside, exact);
  return best && cellsFrom(best, first);
}

/** The cheapest way to every place of the measure; undefined where none leads to its end. */
function cheapest(
  count: number,
  first: number,
  starts: readonly number[],
  stops: readonly number[],
  beside: number,
  exact: boolean,
): Step[] | undefined {
  const best: (Step | undefined)[] = [{ cost: 0, from: 0 }];
  const reach = (to: number, step: Step) => {
    if (!best[to] || step.cost < best[to].cost) best[to] = step;
  };
  for (let at = 0; at < count; at++) {
    const here = best[at];
    if (!here) continue;
    if (fitted(inside(starts, at, 1, beside), at, 1, beside)) reach(at + 1, { cost: here.cost, from: at });
    for (const shape of SHAPES) {
      if (at + shape.span > count) continue;
      const own = inside(starts, at, shape.span, beside);
      const part = shape.span / shape.parts;
      // Where every note stands at a thirty-second there is no group.
      if (!fitted(own, at, part, beside) || fitted(own, at, 1, beside)) continue;
      const loose = inside(stops, at, shape.span, beside).filter((stop) => !fitted([stop], at, part, beside)).length;
      const placed = (first + at) % shape.span === 0 ? 1 : UNLIKELY;
      const begun = own.some((start) => Math.abs(start - at) <= beside) ? 1 : UNLIKELY;
      const off = own.filter((start) => !fitted([start], at, 1, beside)).length;
      // Seven in the time of six, or five: nobody writes them for fewer notes of them than these.
      if (off < (shape.n >= 7 ? 3 : shape.m === 6 ? 2 : 1)) continue;
      // One note a little beside the others proves three in the time of two, and nothing rarer.
      if (!exact && off < 2 && (shape.n !== 3 || shape.span <= RARE_SPAN || begun !== 1)) continue;
      reach(at + shape.span, { cost: here.cost + shape.cost * placed * begun + loose * END_BESIDE, from: at, shape });
    }
  }
  return best[count] ? (best as Step[]) : undefined;
}

function inside(times: readonly number[], at: number, span: number, beside: number): number[] {
  return times.filter((time) => time >= at - beside && time < at + span - beside);
}

function fitted(times: readonly number[], at: number, part: number, beside: number): boolean {
  return times.every((time) => Math.abs(time - at - Math.round((time - at) / part) * part) <= beside);
}

function cellsFrom(best: readonly Step[], first: number): Cell[] {
  const cells: Cell[] = [];
  let end = best.length - 1;
  while (end > 0) {
    let { from, shape } = best[end]!;
    // Plain places in a row are one stretch.
    while (!shape && from > 0 && !best[from]!.shape) ({ from, shape } = best[from]!);
    cells.unshift({
      at: frac(first + from, PLACES),
      length: frac(end - from, PLACES),
      division: shape ? shape.parts : end - from,
      ...(shape ? { group: { n: shape.n, m: shape.m } } : {}),
    });
    end = from;
  }
  return cells;
}
