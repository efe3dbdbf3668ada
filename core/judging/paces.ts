import { type TempoCurve, heardTime, paceAt } from '../timing/tempoCurve.ts';
import { Aligner, type Fit } from './alignment.ts';
import { strange } from './diagnosis.ts';
import type { ExpectedClap } from './expectedClap.ts';
import { USUAL_LAG } from './usualLag.ts';

/** Parts of a take that are tried as its undisturbed beginning; and the fewest claps that show a tempo. */
const BEGINNINGS = [0.8, 0.65, 0.5, 0.38, 0.27, 0.18, 0.1] as const;
const FEWEST_BEGUN = 5;
const ENDINGS = [0.6, 0.4, 0.2] as const;

/** The same stretch of time at the tempo of the click. */
export function atClick(curve: TempoCurve): TempoCurve {
  return { ...curve, lag: USUAL_LAG, tempo: 0, bend: 0 };
}

/** Paces nearer to each other are one. */
const PACES = 50;

/** The claps laid along the tempo of the longest beginning that fits as written; free takes only. */
export function begunFit(claps: readonly ExpectedClap[], onsets: Float64Array): Fit | undefined {
  const most = Math.min(claps.length, onsets.length);
  for (const part of BEGINNINGS) {
    const count = Math.max(FEWEST_BEGUN, Math.floor(part * most));
    if (count >= most) continue;
    const fit = new Aligner(onsets.slice(0, count), true).fit(claps.slice(0, count));
    if (strange(fit) > 0 || fit.stopped >= 0) continue;
    const { curve } = fit;
    const end = curve.from + curve.length;
    const tempo = (paceAt(curve, end) - 1) * curve.length;
    // Straight on from where the beginning ends.
    const straight = { ...curve, tempo, bend: 0, lag: heardTime(curve, end) - end - tempo };
    return new Aligner(onsets, true).along(claps, straight);
  }
  return undefined;
}

/** The last claps alone, where they fit as the end is written: they show the tempo too. */
function endedFit(claps: readonly ExpectedClap[], onsets: Float64Array): Fit | undefined {
  for (const part of ENDINGS) {
    const count = Math.max(FEWEST_BEGUN, Math.floor(part * Math.min(claps.length, onsets.length)));
    if (count >= Math.min(claps.length, onsets.length)) continue;
    const fit = new Aligner(onsets.slice(-count), true).fit(claps.slice(-count));
    if (strange(fit) === 0) return fit;
  }
  return undefined;
}

/**
 * Seconds heard for each written one in a free take, as far as they can be told before anything is explained.
 * @param fit    of the whole take
 * @param begun  of its beginning, where that is undisturbed
 */
export function pacesOf(
  fit: Fit,
  begun: Fit | undefined,
  claps: readonly ExpectedClap[],
  onsets: Float64Array,
): number[] {
  const parts = [begun, endedFit(claps, onsets)].filter((one) => one !== undefined);
  const middle = ({ curve }: Fit) => paceAt(curve, curve.from + curve.length / 2);
  // The tempo that was asked for is a guess too.
  return [...new Set([1, ...[fit, ...parts].map((one) => Math.round(middle(one) * PACES) / PACES)])];
}
