import { heardTime, paceAt } from '../timing/tempoCurve.ts';
import type { Seconds } from '../timing/units.ts';
import { Aligner, type Fit } from './alignment.ts';
import type { ExpectedClap } from './expectedClap.ts';

/** The tempo that a child kept in place of the click's. */
export interface OwnPace {
  /** Seconds played for each written one. */
  readonly pace: number;
  /** When beat 1 of measure 1 was, by the click. */
  readonly zero: Seconds;
  /** The rhythm fits so well at this pace that nothing else need be tried. */
  readonly sure: boolean;
}

/** Rules §8: from .6 to 1.7 of the click. */
const SLOWEST = 1 / 0.6;
const FASTEST = 1 / 1.7;
/** Nearer to the click than this it is the click's tempo, kept badly. */
const LEAST = 0.06;
/** Parts of the notes that may not fit: of the whole take, and of one half when the other is to be explained. */
const STRANGE_WHOLE = 0.12;
const STRANGE_HALF = 0.1;
/** Seconds: what is more uneven fits only loosely, and something else is looked for as well. */
const STEADY = 0.06;
const FEWEST = 5;
/** Of the notes so many are clapped at least. */
const PART = 0.3;
/** By how much likelier, in nats, the take must be at its own tempo. */
export const OWN_TEMPO_COST = 8;

function steadyPace({ curve, claps, extras, missed, poor }: Fit, most: number): Omit<OwnPace, 'sure'> | undefined {
  const [begin, end] = [curve.from, curve.from + curve.length].map((time) => paceAt(curve, time)) as [number, number];
  const off = (pace: number) => Math.abs(pace - 1) >= LEAST && pace <= SLOWEST && pace >= FASTEST;
  if (extras + missed + poor > most * claps.length || !off(begin) || !off(end) || begin < 1 !== end < 1)
    return undefined;
  const pace = (begin + end) / 2;
  return { pace, zero: heardTime(curve, curve.from) - curve.from * pace };
}

/**
 * Looks for a steady tempo of its own, as if there had been no click.
 * @param claps  as written, at the tempo of the click
 * @returns the likeliest first; none where the take keeps to the click, as far as can be seen
 */
export function ownPaces(claps: readonly ExpectedClap[], onsets: Float64Array): OwnPace[] {
  const count = Math.min(claps.length, onsets.length);
  if (count < FEWEST || onsets.length < PART * claps.length) return [];
  const fit = new Aligner(onsets, true).fit(claps);
  const whole = steadyPace(fit, STRANGE_WHOLE);
  if (whole) return [{ ...whole, sure: fit.spread < STEADY }];
  const half = Math.max(FEWEST, Math.ceil(count / 2));
  return [
    [claps.slice(0, half), onsets.slice(0, half)] as const,
    [claps.slice(-half), onsets.slice(-half)] as const,
  ].flatMap(([some, heard]) => {
    const found = steadyPace(new Aligner(heard, true).fit(some), STRANGE_HALF);
    return found ? [{ ...found, sure: false }] : [];
  });
}
