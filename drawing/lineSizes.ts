import { lineNumber } from '../core/rhythm/lines.ts';
import type { PlacedMeasure } from '../core/rhythm/place.ts';

/**
 * How many measures stand on each line, so that lines are alike: the same number on each where that costs one line more
 * at most, else nearly the same, the fuller lines first. Never three and one.
 * @param most  measures that fit on a line
 * @example lineSizes(4, 3) → [2, 2]; lineSizes(7, 3) → [3, 2, 2]; lineSizes(8, 3) → [2, 2, 2, 2]
 */
export function lineSizes(count: number, most: number): number[] {
  const fewest = Math.ceil(count / most);
  for (let each = most; each * (fewest + 1) >= count; each--) {
    if (count % each === 0) return Array.from({ length: count / each }, () => each);
  }
  const [least, fuller] = [Math.floor(count / fewest), count % fewest];
  return Array.from({ length: fewest }, (_, i) => least + (i < fuller ? 1 : 0));
}

/** Cuts into lines of these sizes; what stands before those that were counted (a pickup) belongs to the first. */
export function cutIntoLines<T>(all: readonly T[], sizes: readonly number[], before: number): T[][] {
  let from = 0;
  return sizes.map((size, i) => {
    const line = all.slice(from, from + size + (i === 0 ? before : 0));
    from += line.length;
    return line;
  });
}

/** The measures of each line of a page of lines; of what is no page all of them, at once. */
export function cutAtNumbers<T>(all: readonly T[], placedOf: (one: T) => PlacedMeasure): T[][] {
  const parts: T[][] = [];
  for (const one of all) {
    const part = parts.at(-1);
    if (part && lineNumber(placedOf(one).letter) === undefined) part.push(one);
    else parts.push([one]);
  }
  return parts;
}
