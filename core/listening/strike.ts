import { type BandLevels, MOST_DB } from './bandLevels.ts';
import { STRIKE_WEIGHTS as W } from './strikeWeights.ts';

/** Seconds after a strike at which its fall is measured: soon, and when a voice would still sound. */
const FALL_SECONDS = { soon: 0.0145, late: 0.035 };
/** Another jump counts as a neighbour of a strike from so many seconds on, up to so many. */
const NEIGHBOUR_SECONDS = { from: 0.012, to: 0.035 };
/** The look ahead that a strike needs before it can be judged, seconds. */
export const LOOK_AHEAD_SECONDS = 0.038;
/** A band that jumps so far takes part in the strike, dB. */
const TAKES_PART_DB = 6;
/** The strike begins where its loudness is so far below its greatest, dB; looked for in so many frames before. */
const BEGUN = { db: 10, frames: 8 };
/** dB a second by which the loudest of late is forgotten. */
const FORGET_DB = 1.5;
/** How much of a newly heard clap enters what claps are known to be like. */
const LEARN = 0.3;
const clamp = (x: number, low: number, high: number) => Math.max(low, Math.min(high, x));

/**
 * A child's own claps differ by some 9 dB from each other, by more where a laptop turns its own gain up and down. What
 * is softer than this beside the loudest of late and beside the usual one is the clap of a neighbour, once so many
 * claps are known; dB. Nearer borders lose claps in laptops: at -13 and -8 four in a hundred.
 */
const NEIGHBOUR_DB = { loudest: -15, usual: -9, known: 3 };

/** What the claps of this take were like so far: a child claps the same hands. */
export class KnownClaps {
  private count = 0;
  private loudest = Number.NaN;
  private usual = Number.NaN;
  private at = 0;
  /** How far each band stands above its floor when this child claps, dB. */
  private likeness: Float64Array | undefined;

  constructor(private readonly bands: BandLevels) {}

  /** dB beside the loudest clap of late, and beside the usual one. */
  beside(frame: number, loud: number): { loudest: number; usual: number; unknown: boolean } {
    const seconds = ((frame - this.at) * this.bands.hop) / this.bands.sampleRate;
    if (Number.isNaN(this.loudest)) return { loudest: 0, usual: 0, unknown: true };
    return { loudest: loud - (this.loudest - FORGET_DB * seconds), usual: loud - this.usual, unknown: false };
  }

  /** Cosine between the bands of this strike and those of the known claps; 0 when none is known. */
  alike(frame: number): number {
    const { likeness, bands } = this;
    if (!likeness) return 0;
    let [dot, a, b] = [0, 0, 0];
    for (let k = 0; k < bands.bandCount; k++) {
      const here = bands.jumps(frame)[k]!;
      dot += here * likeness[k]!;
      a += here * here;
      b += likeness[k]! * likeness[k]!;
    }
    return dot / Math.sqrt(a * b + 1);
  }

  /** Too soft a clap to be this child's. */
  isNeighbours(frame: number, loud: number): boolean {
    const beside = this.beside(frame, loud);
    return (
      this.count >= NEIGHBOUR_DB.known && beside.loudest < NEIGHBOUR_DB.loudest && beside.usual < NEIGHBOUR_DB.usual
    );
  }

  /** A clap was heard. */
  learn(frame: number, loud: number): void {
    const { bands } = this;
    this.count++;
    const beside = this.beside(frame, loud);
    this.loudest = beside.unknown || beside.loudest > 0 ? loud : loud - beside.loudest;
    this.usual = beside.unknown ? loud : this.usual + LEARN * (loud - this.usual);
    this.at = frame;
    const jumps = bands.jumps(frame);
    if (this.likeness) jumps.forEach((jump, k) => (this.likeness![k]! += LEARN * (jump - this.likeness![k]!)));
    else this.likeness = jumps.slice();
  }
}

/** Mean dB of the bands that count for loudness, at a strike. */
export function loudness(bands: BandLevels, frame: number, from = bands.firstUpper): number {
  let sum = 0;
  for (let b = from; b < bands.bandCount; b++) sum += bands.struck(frame, b);
  return sum / (bands.bandCount - from);
}

/** What speaks for and against a strike at this frame; `STRIKE_WEIGHTS` has a weight for each. */
export function strikeFeatures(bands: BandLevels, frame: number, known: KnownClaps): number[] {
  const { bandCount, firstUpper, firstMiddle } = bands;
  const jumps = [...bands.jumps(frame)].map((jump) => Math.min(MOST_DB, jump));
  const mean = (values: readonly number[]) =>
    values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
  const over = Array.from({ length: bandCount }, (_, b) => Math.max(bands.over(frame)[b]!, bands.over(frame + 1)[b]!));
  const soon = bands.framesIn(FALL_SECONDS.soon);
  const late = bands.framesIn(FALL_SECONDS.late);
  const fall = (b: number, k: number) =>
    clamp(
      bands.struck(frame, b) -
        Math.max(bands.levels(frame + k - 1)[b]!, bands.levels(frame + k)[b]!, bands.levels(frame + k + 1)[b]!),
      -5,
      20,
    );
  const bandsFrom = (from: number) => Array.from({ length: bandCount - from }, (_, k) => from + k);
  const [near, far] = [bands.framesIn(NEIGHBOUR_SECONDS.from), bands.framesIn(NEIGHBOUR_SECONDS.to)];
  const [before, after] = [-1, 1].map((way) => {
    let most = 0;
    for (let k = near; k <= far; k++) if (frame + way * k >= 0) most = Math.max(most, bands.meanJump(frame + way * k));
    return most;
  }) as [number, number];
  const meanLevel = (at: number) => mean([...bands.levels(at)]);
  const peak = Math.max(meanLevel(frame), meanLevel(frame + 1));
  let rise = 0;
  while (rise < BEGUN.frames && frame - rise > 0 && meanLevel(frame - rise) > peak - BEGUN.db) rise++;
  const jump = bands.meanJump(frame);
  const loud = loudness(bands, frame);
  const beside = known.beside(frame, loud);
  return [
    // the mean jump
    jump,
    // in how wide a part of the bands
    jumps.filter((value) => value > TAKES_PART_DB).length / bandCount,
    // the rise within one frame
    bands.sharp(frame),
    // the three bands that jump highest
    mean([...jumps].sort((a, b) => b - a).slice(0, 3)),
    // jumps of the lower, the middle, the upper bands
    mean(jumps.slice(0, firstMiddle)),
    mean(jumps.slice(firstMiddle, firstUpper)),
    mean(jumps.slice(firstUpper)),
    // above the usual level: upper bands, all
    clamp(mean(over.slice(firstUpper)), -10, 40),
    clamp(mean(over), -10, 40),
    // loudness beside the loudest clap of late, the usual one
    clamp(beside.loudest, -30, 6),
    clamp(beside.usual, -25, 10),
    // no clap is known yet
    beside.unknown ? 1 : 0,
    // the fall after it: soon; late, in the upper bands; late
    mean(bandsFrom(0).map((b) => fall(b, soon))),
    mean(bandsFrom(firstUpper).map((b) => fall(b, late))),
    mean(bandsFrom(0).map((b) => fall(b, late))),
    // no other jump just before, just after
    jump - before,
    jump - after,
    // the bands are those of the known claps
    known.alike(frame),
    // frames of its rise
    rise,
    // how loud it was before, upper bands
    clamp(mean(bandsFrom(firstUpper).map((b) => bands.struck(frame, b) - jumps[b]!)) - loud, -30, 0),
  ];
}

/** How sure it is that this was a strike, in logits: above 0 it is more likely than not. */
export function strikeScore(features: readonly number[]): number {
  const x = features.map((value, i) => (value - W.mean[i]!) / W.spread[i]!);
  return W.hidden.reduce(
    (sum, { from, bias, weight }) => sum + weight * Math.tanh(from.reduce((inner, w, i) => inner + w * x[i]!, bias)),
    W.bias + x.reduce((sum, value, i) => sum + W.direct[i]! * value, 0),
  );
}
