import { lineThrough } from './line.ts';
import type { Seconds } from '../timing/units.ts';

/** How the tempo of a class went. */
export interface Pace {
  /** How much faster it is at the end than at the beginning, %. */
  readonly driftPct: number;
  /** The note from which on it is off the beat, and goes on to be; only where it ends far off. */
  readonly from?: number;
}

/** Fewer notes tell nothing of a tempo. */
const FEWEST = 4;
/** A class keeps the tempo until this tells clearly better what was heard, as information criteria count. */
const CLEARLY = 4;
/** The middles of a class are so uncertain at least, ms. */
const UNCERTAIN_MS = 6;
/** It is off the beat so far at the end before anybody says that it runs, ms; and from half of that on it did. */
const OFF_MS = 60;

interface Told {
  readonly cost: number;
  readonly slope: number;
}

/** How well `base + slope × shape` tells what was heard. */
function told(values: readonly number[], shape: readonly number[]): Told {
  const { at, slope } = lineThrough(shape, values);
  const rest = values.reduce((sum, value, i) => sum + (value - at - slope * shape[i]!) ** 2, 0);
  return { cost: values.length * Math.log(rest / values.length + UNCERTAIN_MS ** 2), slope };
}

/**
 * How the tempo of a class went: kept, another one from the beginning on, or faster and faster.
 * @param notes  written seconds, and how far ahead of them the class was in its middle
 */
export function paceOf(notes: readonly { readonly time: Seconds; readonly aheadMs: number | undefined }[]): Pace {
  const known = notes.flatMap(({ time, aheadMs }, index) => (aheadMs === undefined ? [] : [{ index, time, aheadMs }]));
  const [first, last] = [known[0], known.at(-1)];
  if (!first || !last || known.length < FEWEST) return { driftPct: 0 };
  const length = last.time - first.time;
  const ahead = known.map(({ aheadMs }) => aheadMs);
  const after = known.map(({ time }) => time - first.time);
  const kept = told(
    ahead,
    after.map(() => 0),
  ).cost;
  const ways = [
    told(ahead, after),
    told(
      ahead,
      after.map((time) => (time * time) / (2 * length)),
    ),
  ];
  const best = ways.reduce((a, b) => (a.cost <= b.cost ? a : b));
  if (kept - best.cost < CLEARLY) return { driftPct: 0 };
  // A millisecond a second is a tenth of a percent.
  const driftPct = Math.round(best.slope) / 10 || 0;
  const way = Math.sign(best.slope);
  const off = way * (ahead.at(-1)! - ahead[0]!);
  if (off < OFF_MS) return { driftPct };
  const from = known.findIndex((_, i) =>
    known.slice(i).every(({ aheadMs }) => way * (aheadMs - ahead[0]!) > OFF_MS / 2),
  );
  return { driftPct, ...(from < 0 ? {} : { from: known[from]!.index }) };
}
