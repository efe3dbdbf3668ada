const STEPS = [1, 2, 5, 10, 20, 50, 100] as const;
const MOST = 6;

/** Round numbers from below the least value to above the greatest, few enough to be read. */
export function roundTicks(values: readonly number[]): number[] {
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const step = STEPS.find((one) => (most - least) / one + 2 <= MOST) ?? STEPS.at(-1)!;
  const [from, to] = [Math.floor(least / step) * step, Math.ceil(most / step) * step];
  const last = to === from ? from + step : to;
  return Array.from({ length: Math.round((last - from) / step) + 1 }, (_, i) => from + i * step);
}

/** Every so manieth of many, the first among them. */
export function everyFew<T>(all: readonly T[], most: number): T[] {
  const step = Math.ceil(all.length / most);
  return all.filter((_, i) => i % step === 0);
}
