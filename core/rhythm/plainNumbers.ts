import type { Measure } from './pattern.ts';

/** Leaves out the numbers that the measures would have anyway. */
export function plainNumbers(measures: readonly Measure[], pickup: boolean): Measure[] {
  let next = pickup ? 0 : 1;
  return measures.map((measure) => {
    const { number, ...unnumbered } = measure;
    const jumps = number !== undefined && number !== next;
    next = (number ?? next) + (measure.rests ?? 1);
    return jumps ? measure : unnumbered;
  });
}
