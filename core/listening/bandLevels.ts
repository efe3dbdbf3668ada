import { PowerSpectrum } from './fft.ts';

/** Seconds of a frame; frames overlap by half. Short, so that a strike stands out of what surrounds it. */
const FRAME_SECONDS = 0.0058;
/**
 * Edges of the bands, Hz: from below the voice's strongest to where small microphones end. Finer below, where boxes and
 * tables sound in one narrow place.
 */
const EDGES_HZ = [200, 400, 600, 900, 1200, 1700, 2200, 3600, 5600, 8500, 13_000];
/** Bands from this edge on are the upper ones, Hz; below the other they are the lower ones. */
const UPPER_HZ = 2200;
const LOWER_HZ = 900;
const FLOOR_DB = -95;
/** A band jumps above the loudest of the frames from 2 to so many before: the voice's own pulses come within them. */
const PAST = 5;
/** Part of the time a band lies below its usual level. */
const USUAL = 0.75;
/** dB a frame by which the usual level moves; faster at first, until it has found its place. */
const USUAL_STEP = { first: 0.6, later: 0.25, settleSeconds: 1 };
/** No band counts for more than so many dB: one whistle is no clap. */
export const MOST_DB = 25;
/** Of two strikes close together the louder one counts, more than the one that jumps higher. */
const LOUD_RANK = 0.6;
/** Frames that are kept: more than any look back or forward. */
const KEPT = 64;

const rows = (count: number) => Array.from({ length: KEPT }, () => new Float64Array(count));

/** How loud each band of the sound is, frame after frame, and how far it jumps above its past and its usual level. */
export class BandLevels {
  /** Samples of a frame, and from one frame to the next. */
  readonly size: number;
  readonly hop: number;
  readonly bandCount: number;
  /** Bands from `firstUpper` on are the upper ones, those before `firstMiddle` the lower ones. */
  readonly firstUpper: number;
  readonly firstMiddle: number;
  private readonly edges: readonly number[];
  private readonly spectrum: PowerSpectrum;
  private readonly window: Float64Array;
  private readonly frame: Float64Array;
  private readonly power: Float64Array;
  private readonly usual: Float64Array;
  private readonly settleFrames: number;
  private readonly levelRows: readonly Float64Array[];
  private readonly jumpRows: readonly Float64Array[];
  private readonly overRows: readonly Float64Array[];
  private readonly meanJumps = new Float64Array(KEPT);
  private readonly sharps = new Float64Array(KEPT);
  private readonly ranks = new Float64Array(KEPT);
  /** Frames taken so far; the last one is `frames - 1`. */
  frames = 0;

  constructor(readonly sampleRate: number) {
    this.size = 2 ** Math.max(5, Math.round(Math.log2(sampleRate * FRAME_SECONDS)));
    this.hop = this.size / 2;
    this.spectrum = new PowerSpectrum(this.size);
    this.window = Float64Array.from(
      { length: this.size },
      (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / this.size),
    );
    this.frame = new Float64Array(this.size);
    this.power = new Float64Array(this.size / 2 + 1);
    const bin = sampleRate / this.size;
    this.edges = EDGES_HZ.map((hz) => Math.max(1, Math.round(hz / bin))).filter(
      (edge, i, all) => edge <= this.size / 2 && edge !== all[i - 1],
    );
    this.bandCount = this.edges.length - 1;
    const from = (hz: number) => this.edges.findIndex((edge) => edge * bin >= hz * 0.95);
    const upper = from(UPPER_HZ);
    this.firstUpper = upper < 0 || upper >= this.bandCount ? Math.max(0, this.bandCount - 2) : upper;
    this.firstMiddle = Math.min(Math.max(1, from(LOWER_HZ)), Math.max(1, this.firstUpper - 1));
    this.usual = new Float64Array(this.bandCount);
    this.settleFrames = (USUAL_STEP.settleSeconds * sampleRate) / this.hop;
    this.levelRows = rows(this.bandCount);
    this.jumpRows = rows(this.bandCount);
    this.overRows = rows(this.bandCount);
  }

  /** Where each band begins, and where the last one ends; Hz. */
  get bandEdgesHz(): readonly number[] {
    return this.edges.map((edge) => (edge * this.sampleRate) / this.size);
  }

  /** Frames that last so long, at least one. */
  framesIn(seconds: number): number {
    return Math.max(1, Math.round((seconds * this.sampleRate) / this.hop));
  }

  /** dB of each band. */
  levels(frame: number): Float64Array {
    return this.levelRows[frame % KEPT]!;
  }
  /** How far each band is above the loudest of its recent past and above its usual level, dB, not below 0. */
  jumps(frame: number): Float64Array {
    return this.jumpRows[frame % KEPT]!;
  }
  /** How far each band is above its usual level, dB. */
  over(frame: number): Float64Array {
    return this.overRows[frame % KEPT]!;
  }
  /** Mean of the jumps, none above `MOST_DB`. */
  meanJump(frame: number): number {
    return this.meanJumps[frame % KEPT]!;
  }
  /** Mean rise within one frame, dB. */
  sharp(frame: number): number {
    return this.sharps[frame % KEPT]!;
  }
  /** Which of neighbouring frames is the strike: the one of the highest rank. */
  rank(frame: number): number {
    return this.ranks[frame % KEPT]!;
  }

  /** Takes the next frame, which begins at this sample of a ring (its length a power of two). */
  take(ring: Float32Array, start: number): void {
    const { size, window, frame, power, edges, usual, bandCount } = this;
    const mask = ring.length - 1;
    for (let i = 0; i < size; i++) frame[i] = ring[(start + i) & mask]! * window[i]!;
    this.spectrum.of(frame, power);
    const t = this.frames++;
    const now = this.levels(t);
    const jumps = this.jumps(t);
    const over = this.over(t);
    const step = t < this.settleFrames ? USUAL_STEP.first : USUAL_STEP.later;
    const known = t > PAST;
    const [two, three, four, five] = [2, 3, 4, 5].map((k) => this.levels(t + KEPT - k)) as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ];
    let jump = 0;
    let height = 0;
    let sharp = 0;
    let upper = 0;
    for (let b = 0; b < bandCount; b++) {
      let sum = 0;
      for (let k = edges[b]!; k < edges[b + 1]!; k++) sum += power[k]!;
      const level = Math.max(FLOOR_DB, 10 * Math.log10(sum / (size * size) + 1e-12));
      now[b] = level;
      if (b >= this.firstUpper) upper += level;
      if (t === 0) usual[b] = level;
      over[b] = level - usual[b]!;
      jumps[b] = 0;
      if (known) {
        const recent = Math.max(two[b]!, three[b]!, four[b]!, five[b]!);
        const above = Math.max(0, Math.min(level - recent, over[b]!));
        jumps[b] = above;
        jump += Math.min(MOST_DB, above);
        height += above;
        sharp += Math.max(-5, Math.min(MOST_DB, level - two[b]!));
      }
      usual[b]! += level > usual[b]! ? step * USUAL : -step * (1 - USUAL);
    }
    this.meanJumps[t % KEPT] = jump / bandCount;
    this.sharps[t % KEPT] = sharp / bandCount;
    this.ranks[t % KEPT] = height / bandCount + LOUD_RANK * (upper / (bandCount - this.firstUpper));
  }

  /** dB of a strike in one band: the louder of a frame and the next, since it may fall between the two. */
  struck(frame: number, band: number): number {
    return Math.max(this.levels(frame)[band]!, this.levels(frame + 1)[band]!);
  }
}
