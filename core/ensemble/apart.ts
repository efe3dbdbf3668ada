/** Its widths after that note are more than so many times what they were before; a little less by chance counts too. */
export const APART_TIMES = 1.8;
/** A class that is so near together does not fall apart, however much nearer it was; ms. */
const STILL_TOGETHER = 55;
/** Notes before and after, at least. */
const LEAST = { before: 2, after: 2 };
/** Of the notes after it so many may be narrow again: the first of a measure often is. */
const NARROW_AGAIN = 0.4;
/** So much better than with no such place must the widths be told, in logarithms a note. */
const CLEARLY = 0.04;

const median = (sorted: readonly number[]) =>
  (sorted[Math.floor((sorted.length - 1) / 2)]! + sorted[Math.ceil((sorted.length - 1) / 2)]!) / 2;

/** How far values are from their middle, all together, and that middle. */
function aroundMiddle(values: readonly number[]): { middle: number; cost: number } {
  const middle = median([...values].sort((a, b) => a - b));
  return { middle, cost: values.reduce((sum, value) => sum + Math.abs(value - middle), 0) };
}

/**
 * The first note from which on a class is more than twice as wide as it was: of all places the one that parts narrow
 * from wide best.
 * @param widths  ms, note by note; undefined where a note was not heard
 * @param times  how many times as wide it must be
 * @returns index of that note; undefined where it stays together, or never was
 */
export function fallsApartAt(widths: readonly (number | undefined)[], times: number = APART_TIMES): number | undefined {
  const known = widths.flatMap((width, index) =>
    width === undefined ? [] : [{ index, log: Math.log(Math.max(8, width)) }],
  );
  const logs = known.map(({ log }) => log);
  if (logs.length < LEAST.before + LEAST.after) return undefined;
  const whole = aroundMiddle(logs).cost;
  let best: { index: number; gain: number } | undefined;
  for (let k = LEAST.before; k <= logs.length - LEAST.after; k++) {
    const [before, after] = [aroundMiddle(logs.slice(0, k)), aroundMiddle(logs.slice(k))];
    if (after.middle - before.middle < Math.log(times) || Math.exp(after.middle) < STILL_TOGETHER) continue;
    const between = (before.middle + after.middle) / 2;
    const narrow = logs.slice(k).filter((log) => log < between).length;
    if (narrow > NARROW_AGAIN * (logs.length - k)) continue;
    const gain = whole - before.cost - after.cost;
    if (gain > (best?.gain ?? CLEARLY * logs.length)) best = { index: known[k]!.index, gain };
  }
  return best?.index;
}
