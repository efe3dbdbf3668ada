import type { Pattern } from '../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';

/** Seconds that some work takes, and what came of it. */
export function timed<T>(work: () => T): { seconds: number; result: T } {
  const from = performance.now();
  const result = work();
  return { seconds: (performance.now() - from) / 1000, result };
}

/** One figure beside its baseline of the same run. */
export function report(name: string, value: string, ratio: string): void {
  console.log(`${name.padEnd(46)} ${value.padEnd(30)} ${ratio}`);
}

/** Reads a text that is known to be right. */
export function read(text: string): Pattern {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.at));
  return parsed.pattern;
}
