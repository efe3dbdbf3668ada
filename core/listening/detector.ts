import { BandLevels } from './bandLevels.ts';
import { type Arrival, ClickRemover, type PlayedClicks } from './playedClicks.ts';
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

  /** Takes the app's own clicks out before they come here; undefined where there are none. */
  private readonly remover: ClickRemover | undefined;
  /** What is left of a click of each sound that was taken out, dB of each band: the mean of so many. */
  private readonly left = new Map<number, { readonly levels: Float64Array; of: number }>();
  /** The click that is passing, what each band had just before it, and the most it had in it; dB. */
  private passing: { readonly click: Arrival; readonly before: Float64Array; readonly most: Float64Array } | undefined;

  /** @param clicks  the app's own clicks are not reported; a clap that falls on one is */
  constructor(
    readonly sampleRate: number,
    clicks?: PlayedClicks,
  ) {
    this.bands = new BandLevels(sampleRate);
    this.known = new KnownClaps(this.bands);
    this.ring = new Float32Array(2 ** Math.ceil(Math.log2(sampleRate * 0.25)));
    this.wait = Math.max(this.bands.framesIn(LOOK_AHEAD_SECONDS), NEIGHBOURS) + 1;
    this.oneClap = this.bands.framesIn(ONE_CLAP_SECONDS);
    this.remover = clicks && clicks.times.length > 0 ? new ClickRemover(sampleRate, clicks) : undefined;
  }

  /** @returns the onsets that became certain, in seconds from the first sample */
  push(samples: Float32Array): number[] {
    return this.listen(this.remover ? this.remover.push(samples) : samples);
  }

  private listen(samples: Float32Array): number[] {
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
        if (this.remover) this.learnLeft(this.remover);
        this.collect(this.bands.frames - 1 - NEIGHBOURS);
        this.decide(onsets);
        this.nextFrame += hop;
      }
    }
    return onsets;
  }

  /** The sound is over: what is still in the air is decided. */
  finish(): number[] {
    const rest = this.remover ? this.listen(this.remover.finish()) : [];
    return [...rest, ...this.listen(new Float32Array(this.bands.size + this.bands.hop * (this.wait + 2)))];
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

  /** A click around this frame. */
  private clickAt(frame: number, remover: ClickRemover): Arrival | undefined {
    const middle = (frame + 1) * this.bands.hop;
    const [before, after] = [LEFT_SECONDS.before * this.sampleRate, LEFT_SECONDS.after * this.sampleRate];
    // They rise, and this is asked of every frame: those that are long over are not looked at.
    const { arrivals } = remover;
    for (let i = arrivals.length - 1; i >= 0 && middle < arrivals[i]!.at + after; i--)
      if (middle > arrivals[i]!.at - before) return arrivals[i];
    return undefined;
  }

  /** The clicks of the count-in, when nobody claps, teach what is left of one. */
  private learnLeft(remover: ClickRemover): void {
    const { bands, passing } = this;
    const levels = bands.levels(bands.frames - 1);
    const click = this.clickAt(bands.frames - 1, remover);
    if (passing && passing.click === click) {
      levels.forEach((level, b) => (passing.most[b] = Math.max(passing.most[b]!, level)));
      return;
    }
    this.passing = click?.countIn ? { click, before: levels.slice(), most: levels.slice() } : undefined;
    if (passing?.click.sound === undefined) return;
    const below = passing.click.removed ? 0 : remover.leftBelow;
    const known = this.left.get(passing.click.sound) ?? { levels: new Float64Array(bands.bandCount), of: 0 };
    known.of++;
    passing.most.forEach((level, b) => {
      const left = Math.max(level - below, passing.before[b]!);
      known.levels[b]! += (left - known.levels[b]!) / known.of;
    });
    this.left.set(passing.click.sound, known);
  }

  /** Is a strike nothing but what is left of the app's own click? A clap on a click is louder than that. */
  private isClick(frame: number): boolean {
    const click = this.remover && this.clickAt(frame, this.remover);
    if (!click) return false;
    if (click.countIn) return true;
    const left = this.left.get(click.sound ?? -1)?.levels;
    if (!left) return false;
    let above = 0;
    for (let b = 0; b < left.length; b++)
      above += Math.max(-CLICK_EXCESS, Math.min(2 * CLICK_EXCESS, this.bands.struck(frame, b) - left[b]!));
    return above / left.length <= CLICK_EXCESS;
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

/** From so long before a click begins until so long after, what is left of it may strike; seconds. */
const LEFT_SECONDS = { before: 0.005, after: 0.09 };
/** dB by which a strike must be louder than what is left of a click, on the mean of the bands. */
const CLICK_EXCESS = 5;
/**
 * The whitened sound is measured in steps of so many seconds; it has begun where it has this part of its greatest
 * energy.
 */
const STEP_SECONDS = 0.00025;
const BEGUN = 0.1;

/** All onsets of a recording, in seconds. */
export function detectOnsets(samples: Float32Array, sampleRate: number, clicks?: PlayedClicks): number[] {
  const detector = new OnsetDetector(sampleRate, clicks);
  return [...detector.push(samples), ...detector.finish()];
}
