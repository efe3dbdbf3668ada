import { BandLevels } from './bandLevels.ts';
import { KnownClaps, LOOK_AHEAD_SECONDS, loudness, strikeFeatures, strikeScore } from './strike.ts';

/** Mean jump, dB, from which a frame is looked at. */
const CANDIDATE_DB = 1.8;
/** A local maximum is one among so many frames on either side. */
const NEIGHBOURS = 4;
/**
 * Seconds within which nobody claps twice: bursts so close are one clap, at its first burst. Two hands in turn strike
 * 100 ms apart at the fastest.
 */
const ONE_CLAP_SECONDS = 0.085;
/** A burst that is so much louder than the one before it is the clap itself, and that was something else; dB. */
const OTHER_THING = 15;
/** So sure a strike teaches what the claps of this take are like, logits. */
const SURE = 1;

interface Strike {
  readonly frame: number;
  /** dB, see `loudness`. */
  readonly loud: number;
}

/**
 * Streaming: push samples as they come, take the onsets; at the end `finish`. How the samples are cut changes nothing.
 *
 * A clap, a tap, a pencil on a cup: all strike at once, in many bands, within a few thousandths of a second, and die
 * away. A voice swells over hundredths of a second, mostly in its low bands, and its sharp consonants are weak beside a
 * clap. Each frame that jumps above what was before it is asked for all of this at once (`strikeFeatures`).
 */
export class OnsetDetector {
  private readonly bands: BandLevels;
  private readonly known: KnownClaps;
  /** The last samples, as far back as an onset is refined. */
  private readonly ring: Float32Array;
  private written = 0;
  private nextFrame = 0;
  private readonly pending: number[] = [];
  private last: Strike | undefined;
  private readonly wait: number;
  private readonly oneClap: number;

  /** What the app's own click sounds like here, dB of each band; unknown until it was heard alone. */
  private clickLevels: Float64Array | undefined;

  /**
   * @param clicks  when the app's own clicks arrive, in seconds from the first sample, rising: they are not reported,
   *   but a clap that falls on one is
   */
  constructor(
    readonly sampleRate: number,
    private readonly clicks: readonly number[] = [],
  ) {
    this.bands = new BandLevels(sampleRate);
    this.known = new KnownClaps(this.bands);
    this.ring = new Float32Array(2 ** Math.ceil(Math.log2(sampleRate * 0.25)));
    this.wait = Math.max(this.bands.framesIn(LOOK_AHEAD_SECONDS), NEIGHBOURS) + 1;
    this.oneClap = this.bands.framesIn(ONE_CLAP_SECONDS);
  }

  /** @returns the onsets that became certain, in seconds from the first sample */
  push(samples: Float32Array): number[] {
    const onsets: number[] = [];
    const { ring } = this;
    const { size, hop } = this.bands;
    const mask = ring.length - 1;
    let i = 0;
    while (i < samples.length) {
      const until = Math.min(samples.length, i + (this.nextFrame + size - this.written));
      for (; i < until; i++) ring[this.written++ & mask] = samples[i]!;
      if (this.written === this.nextFrame + size) {
        this.bands.take(ring, this.nextFrame);
        this.collect(this.bands.frames - 1 - NEIGHBOURS);
        this.decide(onsets);
        this.nextFrame += hop;
      }
    }
    return onsets;
  }

  /** The sound is over: what is still in the air is decided. */
  finish(): number[] {
    return this.push(new Float32Array(this.bands.size + this.bands.hop * (this.wait + 2)));
  }

  private collect(at: number): void {
    const { bands } = this;
    if (at < NEIGHBOURS || bands.meanJump(at) < CANDIDATE_DB) return;
    const rank = bands.rank(at);
    for (let k = 1; k <= NEIGHBOURS; k++) if (bands.rank(at + k) > rank || bands.rank(at - k) >= rank) return;
    this.pending.push(at);
  }

  /** Candidates whose neighbourhood has passed. */
  private decide(onsets: number[]): void {
    const { pending, bands, known } = this;
    while (pending.length > 0 && pending[0]! + this.wait < bands.frames) {
      const frame = pending.shift()!;
      const score = strikeScore(strikeFeatures(bands, frame, known));
      if (score > 0 && this.isClick(frame)) continue;
      if (score <= 0) continue;
      const loud = loudness(bands, frame);
      if (known.isNeighbours(frame, loud)) continue;
      const { last } = this;
      if (last && frame - last.frame < this.oneClap && loud < last.loud + OTHER_THING) continue;
      this.last = { frame, loud };
      if (score > SURE) known.learn(frame, loud);
      onsets.push(this.refine(frame * bands.hop));
    }
  }

  /**
   * Is a strike nothing but the app's own click? The first click heard alone, in the count-in, teaches how it sounds
   * here; a clap on a click is louder than that in many bands.
   */
  private isClick(frame: number): boolean {
    const { hop, bandCount } = this.bands;
    const time = (frame * hop + hop) / this.sampleRate;
    if (!this.clicks.some((click) => time > click - CLICK_WINDOW.before && time < click + CLICK_WINDOW.after))
      return false;
    const here = Float64Array.from({ length: bandCount }, (_, b) => this.bands.struck(frame, b));
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
    const { ring, sampleRate } = this;
    const { size } = this.bands;
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

/** A click may arrive a little before it is expected, or later by the way from the loudspeaker; seconds. */
const CLICK_WINDOW = { before: 0.015, after: 0.045 };
/** dB by which a strike must be louder than a click alone, on the mean of the bands. */
const CLICK_EXCESS = 5;
/**
 * The whitened sound is measured in steps of so many seconds; it has begun where it has this part of its greatest
 * energy.
 */
const STEP_SECONDS = 0.00025;
const BEGUN = 0.1;

/** All onsets of a recording, in seconds. */
export function detectOnsets(samples: Float32Array, sampleRate: number, clicks: readonly number[] = []): number[] {
  const detector = new OnsetDetector(sampleRate, clicks);
  return [...detector.push(samples), ...detector.finish()];
}
