import { PowerSpectrum } from './fft.ts';

/**
 * What the detector listens for. A clap, a tap, a pencil on a cup: all strike at once, in all bands, within a few
 * thousandths of a second. A voice swells over hundredths of a second, mostly in its low bands, and its sharp
 * consonants are weak beside a clap. So each band is asked how far it jumps above its own recent past and above what it
 * usually has (a noise floor of its own), and the jumps are added up.
 */
export interface DetectorSettings {
  /** Seconds of a frame; frames overlap by half. Short, so that a strike stands out of what surrounds it. */
  readonly frame: number;
  /**
   * Edges of the bands, Hz: from below the voice's strongest to where small microphones end. Finer below, where boxes
   * and tables sound in one narrow place.
   */
  readonly bands: readonly number[];
  /** A band jumps above the loudest of this many frames before (the voice's own pulses come within them). */
  readonly past: number;
  /** Part of the time a band lies below its usual level. */
  readonly usual: number;
  /** No band counts for more than so many dB: one whistle is no clap. */
  readonly most: number;
  /** Mean jump, dB, from which a frame is looked at; and above which it surely tells how loud the claps are. */
  readonly candidate: number;
  readonly sure: number;
  /**
   * A dull sound under talk never jumps so far in the mean of the bands: this jump tells it too when the rise within
   * one frame is so steep, dB.
   */
  readonly struck: { readonly jump: number; readonly sharp: number };
  /**
   * What speaks for a strike, in logits for each dB: the mean jump (up to `enough`), the jump within one frame, the
   * loudness in the upper bands beside the loudest of late.
   */
  readonly weights: {
    readonly jump: number;
    readonly enough: number;
    readonly sharp: number;
    readonly loud: number;
    readonly bias: number;
  };
  /**
   * What speaks for a voice: it does not fall soon (less than `fall` dB in the upper bands after a thirtieth of a
   * second), and is weak there beside the claps (`beside` dB). Logits when both hold for certain.
   */
  readonly voice: { readonly fall: number; readonly beside: number; readonly weight: number };
  /** A jump within one frame below `below` dB is a swell: logits for each dB less. */
  readonly dull: { readonly below: number; readonly weight: number };
  /** dB a second by which the loudest of late is forgotten. */
  readonly forget: number;
  /** Seconds: of two strikes so close the stronger one counts. It is also how long an onset takes to become certain. */
  readonly apart: number;
}

export const SETTINGS: DetectorSettings = {
  frame: 0.0058,
  bands: [200, 400, 600, 900, 1200, 1700, 2200, 3600, 5600, 8500, 13_000],
  past: 5,
  usual: 0.75,
  most: 25,
  candidate: 2.5,
  sure: 7,
  struck: { jump: 3, sharp: 8 },
  weights: { jump: 0.47, enough: 15, sharp: 0.18, loud: 0.03, bias: -3.25 },
  voice: { fall: 6, beside: -6, weight: 7.5 },
  dull: { below: 6, weight: 0.5 },
  forget: 1.5,
  apart: 0.04,
};

const FLOOR_DB = -95;
/** Bands from this edge on are the upper ones, Hz. */
const UPPER_HZ = 2200;
/** A local maximum is one among so many frames on either side. */
const NEIGHBOURS = 4;
/** Frames after a strike at which its fall is measured: 32 to 38 ms. */
const FALL_FRAMES = [11, 12, 13] as const;
/** dB a frame by which the usual level moves; faster at first, until it has found its place. */
const USUAL_STEP = { first: 0.6, later: 0.25, settleSeconds: 1 };

interface Candidate {
  readonly frame: number;
  readonly rank: number;
  readonly jump: number;
  readonly sharp: number;
  /** Mean dB of the upper bands at the strike. */
  readonly loud: number;
}

/**
 * Streaming: push samples as they come, take the onsets; at the end `finish`. How the samples are cut changes nothing.
 */
export class OnsetDetector {
  private readonly size: number;
  private readonly hop: number;
  private readonly spectrum: PowerSpectrum;
  private readonly window: Float64Array;
  private readonly frame: Float64Array;
  private readonly power: Float64Array;
  private readonly edges: readonly number[];
  private readonly bandCount: number;
  private readonly firstUpper: number;
  /** The last samples, as far back as an onset is refined. */
  private readonly ring: Float32Array;
  private written = 0;
  private nextFrame = 0;
  private frames = 0;
  /** dB of each band, jumps and the strength of the last frames, in rings of this many. */
  private readonly levels: Float64Array[];
  private readonly jumps: Float64Array;
  /** The jump without its limit, and the loudness: which of neighbouring frames is the strike. */
  private readonly ranks: Float64Array;
  private readonly sharps: Float64Array;
  private readonly usual: Float64Array;
  private readonly pending: Candidate[] = [];
  private loudest = Number.NaN;
  private loudestFrame = 0;
  private last: Candidate | undefined;
  private readonly apartFrames: number;

  /** What the app's own click sounds like here, dB of each band; unknown until it was heard alone. */
  private clickLevels: Float64Array | undefined;

  /**
   * @param clicks  when the app's own clicks arrive, in seconds from the first sample, rising: they are not reported,
   * but a
   *   clap that falls on one is
   */
  constructor(
    readonly sampleRate: number,
    private readonly settings: DetectorSettings = SETTINGS,
    private readonly clicks: readonly number[] = [],
  ) {
    this.size = 2 ** Math.max(5, Math.round(Math.log2(sampleRate * settings.frame)));
    this.hop = this.size / 2;
    this.spectrum = new PowerSpectrum(this.size);
    this.window = Float64Array.from(
      { length: this.size },
      (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / this.size),
    );
    this.frame = new Float64Array(this.size);
    this.power = new Float64Array(this.size / 2 + 1);
    const bin = sampleRate / this.size;
    this.edges = settings.bands
      .map((hz) => Math.max(1, Math.round(hz / bin)))
      .filter((edge, i, all) => edge <= this.size / 2 && edge !== all[i - 1]);
    this.bandCount = this.edges.length - 1;
    const upper = this.edges.findIndex((edge) => edge * bin >= UPPER_HZ * 0.95);
    this.firstUpper = upper < 0 || upper >= this.bandCount ? Math.max(0, this.bandCount - 2) : upper;
    this.ring = new Float32Array(2 ** Math.ceil(Math.log2(sampleRate * 0.25)));
    this.levels = Array.from({ length: RING }, () => new Float64Array(this.bandCount));
    this.jumps = new Float64Array(RING);
    this.ranks = new Float64Array(RING);
    this.sharps = new Float64Array(RING);
    this.usual = new Float64Array(this.bandCount);
    this.apartFrames = Math.round((settings.apart * sampleRate) / this.hop);
  }

  /** @returns the onsets that became certain, in seconds from the first sample */
  push(samples: Float32Array): number[] {
    const onsets: number[] = [];
    const { ring, size, hop } = this;
    const mask = ring.length - 1;
    let i = 0;
    while (i < samples.length) {
      const until = Math.min(samples.length, i + (this.nextFrame + size - this.written));
      for (; i < until; i++) ring[this.written++ & mask] = samples[i]!;
      if (this.written === this.nextFrame + size) {
        this.analyse(onsets);
        this.nextFrame += hop;
      }
    }
    return onsets;
  }

  /** The sound is over: what is still in the air is decided. */
  finish(): number[] {
    return this.push(new Float32Array(this.size + this.hop * (this.apartFrames + NEIGHBOURS + FALL_FRAMES[2] + 2)));
  }

  private analyse(onsets: number[]): void {
    const { size, ring, window, frame, power, edges, settings, usual, bandCount, levels } = this;
    const mask = ring.length - 1;
    for (let i = 0; i < size; i++) frame[i] = ring[(this.nextFrame + i) & mask]! * window[i]!;
    this.spectrum.of(frame, power);
    const t = this.frames;
    const now = levels[t % RING]!;
    const two = levels[(t + RING - 2) % RING]!;
    const step = t * this.hop < USUAL_STEP.settleSeconds * this.sampleRate ? USUAL_STEP.first : USUAL_STEP.later;
    let jump = 0;
    let height = 0;
    let sharp = 0;
    for (let b = 0; b < bandCount; b++) {
      let sum = 0;
      for (let k = edges[b]!; k < edges[b + 1]!; k++) sum += power[k]!;
      const level = Math.max(FLOOR_DB, 10 * Math.log10(sum / (size * size) + 1e-12));
      now[b] = level;
      if (t === 0) usual[b] = level;
      if (t > settings.past) {
        let recent = -Infinity;
        for (let k = 2; k <= settings.past; k++) recent = Math.max(recent, levels[(t + RING - k) % RING]![b]!);
        const above = Math.min(level - recent, level - usual[b]!);
        if (above > 0) {
          jump += Math.min(settings.most, above);
          height += above;
        }
        sharp += Math.max(-5, Math.min(settings.most, level - two[b]!));
      }
      usual[b]! += level > usual[b]! ? step * settings.usual : -step * (1 - settings.usual);
    }
    this.jumps[t % RING] = jump / bandCount;
    let upper = 0;
    for (let b = this.firstUpper; b < bandCount; b++) upper += now[b]!;
    this.ranks[t % RING] = height / bandCount + LOUD_RANK * (upper / (bandCount - this.firstUpper));
    this.sharps[t % RING] = sharp / bandCount;
    this.frames++;
    this.collect(t - NEIGHBOURS);
    this.decide(t, onsets);
  }

  /** Mean dB of the upper bands, the louder of a frame and the next: a strike may fall between the two. */
  private upper(frame: number): number {
    const { levels, firstUpper, bandCount } = this;
    let sum = 0;
    for (let b = firstUpper; b < bandCount; b++)
      sum += Math.max(levels[frame % RING]![b]!, levels[(frame + 1) % RING]![b]!);
    return sum / (bandCount - firstUpper);
  }

  private collect(at: number): void {
    if (at < NEIGHBOURS) return;
    const { jumps, ranks } = this;
    const jump = jumps[at % RING]!;
    const rank = ranks[at % RING]!;
    if (jump < this.settings.candidate) return;
    for (let k = 1; k <= NEIGHBOURS; k++) if (ranks[(at + k) % RING]! > rank || ranks[(at - k) % RING]! >= rank) return;
    const loud = this.upper(at);
    this.pending.push({ frame: at, jump, sharp: this.sharps[at % RING]!, loud, rank });
  }

  /** Candidates whose neighbourhood has passed. */
  private decide(now: number, onsets: number[]): void {
    const { pending, settings, apartFrames } = this;
    const wait = Math.max(apartFrames + NEIGHBOURS, FALL_FRAMES[2]);
    while (pending.length > 0 && pending[0]!.frame + wait <= now) {
      const candidate = pending.shift()!;
      const { frame, jump, sharp, loud, rank } = candidate;
      this.loudest -= (settings.forget * (frame - this.loudestFrame) * this.hop) / this.sampleRate;
      this.loudestFrame = frame;
      // Before the first sure strike nothing is known of the claps; a voice is as likely.
      const beside = Number.isNaN(this.loudest) ? UNKNOWN_BESIDE : Math.max(-30, Math.min(6, loud - this.loudest));
      let after = 0;
      for (let b = this.firstUpper; b < this.bandCount; b++) {
        let most = -Infinity;
        for (const k of FALL_FRAMES) most = Math.max(most, this.levels[(frame + k) % RING]![b]!);
        after += Math.max(
          -5,
          Math.min(20, Math.max(this.levels[frame % RING]![b]!, this.levels[(frame + 1) % RING]![b]!) - most),
        );
      }
      const fall = after / (this.bandCount - this.firstUpper);
      const { weights, voice, dull } = settings;
      const slow =
        Math.max(0, Math.min(1, (voice.fall - fall) / 4)) * Math.max(0, Math.min(1, (voice.beside - beside) / 6));
      const score =
        weights.jump * Math.min(weights.enough, jump) +
        weights.sharp * sharp +
        weights.loud * beside +
        weights.bias -
        voice.weight * slow -
        dull.weight * Math.max(0, Math.min(dull.below, dull.below - sharp));
      if (score > 0 && this.isClick(frame)) continue;
      if (
        (jump > settings.sure || (jump > settings.struck.jump && sharp > settings.struck.sharp)) &&
        !(loud <= this.loudest)
      )
        this.loudest = loud;
      if (score <= 0) continue;
      const near = (other: Candidate | undefined) =>
        other !== undefined && Math.abs(other.frame - frame) < apartFrames && other.rank > rank;
      if (near(this.last) || pending.some(near)) continue;
      if (this.last && frame - this.last.frame < apartFrames) continue;
      this.last = candidate;
      onsets.push(this.refine(frame * this.hop));
    }
  }

  /**
   * Is a strike nothing but the app's own click? The first click heard alone, in the count-in, teaches how it sounds
   * here; a clap on a click is louder than that in many bands.
   */
  private isClick(frame: number): boolean {
    const time = (frame * this.hop + this.hop) / this.sampleRate;
    if (!this.clicks.some((click) => time > click - CLICK_WINDOW.before && time < click + CLICK_WINDOW.after))
      return false;
    const { bandCount, levels } = this;
    const here = Float64Array.from({ length: bandCount }, (_, b) =>
      Math.max(levels[frame % RING]![b]!, levels[(frame + 1) % RING]![b]!),
    );
    const known = this.clickLevels;
    if (!known) {
      this.clickLevels = here;
      return true;
    }
    let above = 0;
    for (let b = 0; b < bandCount; b++)
      above += Math.max(-CLICK_EXCESS, Math.min(2 * CLICK_EXCESS, here[b]! - known[b]!));
    if (above / bandCount > CLICK_EXCESS) return false;
    for (let b = 0; b < bandCount; b++) known[b] = 0.7 * known[b]! + 0.3 * here[b]!;
    return true;
  }

  /** The moment of the strike itself, finer than a frame: where the whitened sound first swells. */
  private refine(start: number): number {
    const { ring, size, sampleRate } = this;
    const mask = ring.length - 1;
    const from = Math.max(2, start - (size >> 1));
    const step = Math.max(1, Math.round(sampleRate * STEP_SECONDS));
    const count = Math.floor((start + size + (size >> 1) - from) / step);
    const energy = new Float64Array(count);
    let most = 0;
    for (let i = 0; i < count; i++) {
      let sum = 0;
      for (let k = 0; k < step; k++) {
        const n = from + i * step + k;
        const d = ring[n & mask]! - 2 * ring[(n - 1) & mask]! + ring[(n - 2) & mask]!;
        sum += d * d;
      }
      energy[i] = sum;
      if (sum > most) most = sum;
    }
    const first = energy.findIndex((value) => value > BEGUN * most);
    return (from + Math.max(0, first) * step) / sampleRate;
  }
}

const UNKNOWN_BESIDE = -20;
/** Of two strikes close together the louder one counts, more than the one that jumps higher. */
const LOUD_RANK = 0.6;
/** A click may arrive a little before it is expected, or later by the way from the loudspeaker; seconds. */
const CLICK_WINDOW = { before: 0.015, after: 0.045 };
/** dB by which a strike must be louder than a click alone, on the mean of the bands. */
const CLICK_EXCESS = 5;
/** Frames that are kept: more than any look back or forward. */
const RING = 64;
/**
 * The whitened sound is measured in steps of so many seconds; it has begun where it has this part of its greatest
 * energy.
 */
const STEP_SECONDS = 0.00025;
const BEGUN = 0.1;

/** All onsets of a recording, in seconds. */
export function detectOnsets(
  samples: Float32Array,
  sampleRate: number,
  settings: DetectorSettings = SETTINGS,
  clicks: readonly number[] = [],
): number[] {
  const detector = new OnsetDetector(sampleRate, settings, clicks);
  return [...detector.push(samples), ...detector.finish()];
}
