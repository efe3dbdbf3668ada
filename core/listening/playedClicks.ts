/** The app's own clicks in what is heard. */
export interface PlayedClicks {
  /** When each is played, in seconds from the first sample, rising; before the first sample it is not heard. */
  readonly times: readonly number[];
  /** How many of them, from the first on, are the count-in, where nobody claps: there it is learned how they sound. */
  readonly countIn: number;
}

/** A click may come so long after it was played, by some loudspeakers; a little before, by a coarse clock; seconds. */
const LATEST = 0.3;
const EARLIEST = 0.02;
/** A click that comes later than this part of a beat would be taken for the one after. */
const LATEST_PART = 0.55;
/** A click is over after so many seconds, its room with it. */
const LONGEST = 0.25;
/** Before a click comes so much of what is compared; a click is known by so much from its beginning on; seconds. */
const BEFORE = 0.002;
const KNOWN_BY = 0.03;
/** A click begins where so much after is louder than so much before, but for a gap between; seconds. */
const RISE = { after: 0.006, gap: 0.003, before: 0.03 };
/** By so many dB; more than this counts no more. */
const RISE_DB = { least: 3, most: 20 };
/** Clicks of one loudspeaker come within so many seconds of each other: no hand does. */
const AGREE = 0.0015;
/** So many of the count-in must. */
const AGREE_PART = 0.6;
/** So like each other are two clicks of one sound, cosine; two claps are not, nor are clicks of two pitches. */
const ALIKE = 0.35;
/** A click is looked for so far around the time at which it is expected, seconds; farther costs some likeness. */
const SEARCH = 0.0006;
const SEARCH_COST = 0.1;
/** Then to so small a part of a sample, in these steps around it. */
const PART = 0.125;
const PARTS = Array.from({ length: 11 }, (_, i) => (i - 5) * PART);
/** Samples on either side from which one between them is made. */
const TAPS = 8;
/** Seconds that are one step of the search for when clicks begin. */
const STEP = 0.00025;
/** Less like it than this, what is heard does not tell where a click lies. */
const PLAIN = 0.7;
/** The loudness of a click varies by such a part, usually. */
const GAIN_VARIES = 0.15;
/** So like a click is what is heard that it tells when the next will come. */
const CLEAR = 0.9;
/** How much of the way to where a clear click came the next is expected. */
const FOLLOW = 0.8;
/** Pieces of a click in which it is told from noise; seconds. */
const PIECE = 0.004;
/** So many seconds are kept of what was given on: a click is compared with what was before it. */
const KEPT = 2;

interface Sound {
  /** From `BEFORE` before its beginning on. */
  readonly samples: Float64Array;
  /** The same, in the band in which it is compared. */
  readonly band: Float64Array;
}

interface Learned {
  readonly sounds: Sound[];
  /** Samples from when it is played until it is heard. */
  late: number;
}

/** Where a sound lies best, in samples from where it was expected, and how like it that is, cosine. */
interface Fit {
  readonly shift: number;
  readonly alike: number;
}

/** Where a click is taken out: from a sample on, each of these less. */
interface Removal {
  readonly from: number;
  readonly less: Float64Array;
}

/** A click as it came, for those who judge what is left of it. */
export interface Arrival {
  /** The sample at which it begins. */
  readonly at: number;
  /** One of the count-in. */
  readonly countIn: boolean;
  /** Which sound it is, of those that were told apart; undefined where it did not come when it was to come. */
  readonly sound: number | undefined;
  /** It was taken out. */
  readonly removed: boolean;
}

/** dB by which what is left of a click lies below it, as long as no click could tell. */
const USUALLY_LEFT = 24;

/**
 * Takes the app's own clicks out of what is heard, as far as they are in it: samples in, the same samples later out.
 *
 * The count-in teaches it, where nobody claps: clicks that all come equally late, and that sound alike. Where none are
 * heard (headphones, a loudspeaker turned down), nothing is taken out. Until the count-in is over all sound is held
 * back. Each later click is found where it is expected, and as much of its sound is taken off as is in what is heard:
 * a clap on it stays.
 */
export class ClickRemover {
  private raw = new Float64Array(1 << 16);
  private band = new Float64Array(1 << 16);
  /** The sample that stands first in both. */
  private base = 0;
  private count = 0;
  private given = 0;
  private learned: Learned | undefined;
  private decided: boolean;
  /** The next click that is still to be taken out. */
  private next = 0;
  private readonly removals: Removal[] = [];
  private readonly clicks: readonly number[];
  private readonly countIn: number;
  /** State of the filter of the band. */
  private readonly low = { a: 0, b: 0, c: 0 };
  /** Clicks in the order in which they came. */
  readonly arrivals: Arrival[] = [];

  constructor(
    private readonly sampleRate: number,
    { times, countIn }: PlayedClicks,
  ) {
    const heard = times.map((time) => Math.round(time * sampleRate)).filter((at) => at >= this.samplesIn(EARLIEST));
    this.clicks = heard;
    this.countIn = Math.min(heard.length, Math.max(0, countIn - (times.length - heard.length)));
    this.decided = this.countIn < 2;
  }

  private samplesIn(seconds: number): number {
    return Math.round(seconds * this.sampleRate);
  }

  /** dB by which what was left of clicks of the count-in lay below them; where each had a sound of its own, a guess. */
  leftBelow = USUALLY_LEFT;

  /** @returns the samples that need nothing later any more */
  push(samples: Float32Array): Float32Array {
    this.keep(samples);
    if (!this.decided) {
      if (this.count < this.decisionAt()) return new Float32Array(0);
      this.decide();
    }
    return this.give(false);
  }

  /** The sound is over: the rest of it. */
  finish(): Float32Array {
    if (!this.decided) this.decide();
    return this.give(true);
  }

  private keep(samples: Float32Array): void {
    const need = this.count - this.base + samples.length;
    if (need > this.raw.length) {
      const size = 2 ** Math.ceil(Math.log2(need));
      for (const name of ['raw', 'band'] as const) {
        const more = new Float64Array(size);
        more.set(this[name].subarray(0, this.count - this.base));
        this[name] = more;
      }
    }
    const { low, raw, band, sampleRate } = this;
    const [under, over] = [400, 6000].map((hz) => 1 - Math.exp((-2 * Math.PI * hz) / sampleRate)) as [number, number];
    for (const sample of samples) {
      low.a += under * (sample - low.a);
      const high = sample - low.a;
      low.b += under * (high - low.b);
      low.c += over * (high - low.b - low.c);
      raw[this.count - this.base] = sample;
      band[this.count++ - this.base] = low.c;
    }
  }

  private gap(): number {
    const { clicks } = this;
    return clicks.slice(1).reduce((least, at, i) => Math.min(least, at - clicks[i]!), this.samplesIn(1));
  }

  private latest(): number {
    return Math.min(this.samplesIn(LATEST), Math.floor(LATEST_PART * this.gap()));
  }

  private decisionAt(): number {
    return this.clicks[this.countIn - 1]! + this.latest() + this.samplesIn(KNOWN_BY + 2 * AGREE);
  }

  private decide(): void {
    this.decided = true;
    const { countIn, clicks } = this;
    const counted = clicks.slice(0, countIn).filter((at) => at + this.samplesIn(KNOWN_BY + 2 * AGREE) < this.count);
    if (counted.length < 2) return;
    const late = this.commonLateness(counted);
    if (!late) return;
    const length = Math.min(this.samplesIn(LONGEST), this.gap() - this.samplesIn(0.01));
    const groups = this.groupsOf(late.heard, length);
    this.learned = { late: late.late, sounds: groups.map((group) => this.meanOf(group, length)) };
    const below = counted.flatMap((at) => this.removeCounted(at + late.late, groups, length));
    if (below.length > 0) this.leftBelow = Math.min(USUALLY_LEFT, below.reduce((sum, db) => sum + db) / below.length);
    this.next = countIn;
  }

  /** Energy of the band up to each sample. */
  private energies(): Float64Array {
    const sums = new Float64Array(this.count + 1);
    for (let i = 0; i < this.count; i++) sums[i + 1] = sums[i]! + this.band[i]! * this.band[i]!;
    return sums;
  }

  /** How late the clicks of the count-in come, where most of them come equally late. */
  private commonLateness(counted: readonly number[]): { late: number; heard: number[] } | undefined {
    const energy = this.energies();
    const [after, gap, before] = [RISE.after, RISE.gap, RISE.before].map((s) => this.samplesIn(s)) as [
      number,
      number,
      number,
    ];
    const mean = (from: number, to: number) => {
      const [a, b] = [Math.max(0, from), Math.min(this.count, to)];
      return b > a ? (energy[b]! - energy[a]!) / (b - a) : 0;
    };
    const rise = (at: number) =>
      10 * Math.log10((mean(at, at + after) + 1e-11) / (mean(at - before, at - gap) + 1e-11));
    const step = Math.max(1, this.samplesIn(STEP));
    const from = -this.samplesIn(EARLIEST);
    const steps = Math.floor((this.latest() - from) / step);
    const rises = counted.map((at) => Float64Array.from({ length: steps }, (_, i) => rise(at + from + i * step)));
    const near = Math.ceil(AGREE / STEP);
    // What most have in common counts, not what one has in plenty.
    const together = Float64Array.from({ length: steps }, (_, i) =>
      rises.reduce((sum, one) => sum + Math.max(0, Math.min(RISE_DB.most, one[i]!)), 0),
    );
    const most = together.reduce((best, value, i) => (value > together[best]! ? i : best), 0);
    const own = rises.map((one) => {
      let best = Math.max(0, most - near);
      for (let i = best; i <= Math.min(steps - 1, most + near); i++) if (one[i]! > one[best]!) best = i;
      return { best, risen: one[best]! };
    });
    const risen = own.filter((one) => one.risen >= RISE_DB.least).map(({ best }) => best);
    if (risen.length < 2 || risen.length < AGREE_PART * counted.length) return undefined;
    const middle = risen.sort((a, b) => a - b)[risen.length >> 1]!;
    const agreeing = own.flatMap(({ best, risen: db }, i) =>
      db >= RISE_DB.least && Math.abs(best - middle) * STEP <= AGREE / 2 ? [counted[i]!] : [],
    );
    if (agreeing.length < 2 || agreeing.length < AGREE_PART * counted.length) return undefined;
    const late = from + middle * step;
    return { late, heard: agreeing.map((at) => at + late) };
  }

  /** What is heard around a click, in the band or as it is. @param at  a sample, or between two */
  private cut(from: 'raw' | 'band', at: number, length: number): Float64Array {
    const whole = Math.floor(at);
    const start = whole - this.samplesIn(BEFORE);
    const samples = Float64Array.from({ length }, (_, i) => {
      const k = start + i;
      return k >= this.base && k < this.count ? this[from][k - this.base]! : 0;
    });
    return at === whole ? samples : later(samples, whole - at);
  }

  /** Clicks that sound alike, each moved by samples to lie over the first of its group. */
  private groupsOf(heard: readonly number[], length: number): number[][] {
    const groups: number[][] = [];
    for (const at of heard) {
      const group = groups.find((one) => {
        const { shift, alike } = this.bestFit(this.cut('band', one[0]!, length), at);
        if (alike < ALIKE) return false;
        one.push(at + shift);
        return true;
      });
      if (!group) groups.push([at]);
    }
    return groups;
  }

  /** Where around a sample a sound lies best over what is heard, to parts of a sample, and how like it that is. */
  private bestFit(sound: Float64Array, at: number): Fit {
    const length = Math.min(sound.length, this.samplesIn(BEFORE + KNOWN_BY));
    const reach = this.samplesIn(SEARCH);
    const around = this.cut('band', at - reach, length + 2 * reach);
    const likeness = (of: Float64Array, shift: number) => {
      let [dot, here, there] = [0, 1e-18, 1e-18];
      for (let i = 0; i < length; i++) {
        const sample = around[i + shift + reach] ?? 0;
        dot += sample * of[i]!;
        here += sample * sample;
        there += of[i]! * of[i]!;
      }
      return dot / Math.sqrt(here * there);
    };
    let [whole, best] = [0, -Infinity];
    for (let shift = -reach; shift <= reach; shift++) {
      const value = likeness(sound, shift) - (SEARCH_COST * Math.abs(shift)) / Math.max(1, reach);
      if (value > best) [whole, best] = [shift, value];
    }
    const head = sound.subarray(0, length);
    const values = PARTS.map((part) => likeness(later(head, part), whole));
    const k = Math.max(1, Math.min(PARTS.length - 2, values.indexOf(Math.max(...values))));
    const [left, middle, right] = [values[k - 1]!, values[k]!, values[k + 1]!];
    const bend = left - 2 * middle + right;
    const off = bend < 0 ? Math.max(-1, Math.min(1, (left - right) / (2 * bend))) : 0;
    return { shift: whole + PARTS[k]! + off * PART, alike: Math.max(left, middle, right) };
  }

  /** The mean of clicks that lie over each other, each piece weakened by what in it is noise. */
  private meanOf(group: readonly number[], length: number): Sound {
    const mean = (from: 'raw' | 'band') => {
      const sum = new Float64Array(length);
      for (const at of group) this.cut(from, at, length).forEach((sample, i) => (sum[i]! += sample / group.length));
      return sum;
    };
    const [samples, band] = [mean('raw'), mean('band')];
    const noise = this.noiseBefore(group) / group.length;
    const piece = this.samplesIn(PIECE);
    const lead = this.samplesIn(BEFORE);
    for (let from = 0; from < length; from += piece) {
      const to = Math.min(length, from + piece);
      let power = 0;
      for (let i = from; i < to; i++) power += band[i]! * band[i]!;
      const part = Math.max(0, 1 - (noise * (to - from)) / (power + 1e-18));
      // Its end fades, so that what is taken off ends without a step.
      for (let i = from; i < to; i++) {
        const fades = Math.min(1, (length - i) / (0.2 * length), (i + 1) / lead);
        samples[i]! *= part * fades;
        band[i]! *= part * fades;
      }
    }
    return { samples, band };
  }

  /** Mean power of the band before these clicks. */
  private noiseBefore(group: readonly number[]): number {
    const before = this.samplesIn(RISE.before);
    const gap = this.samplesIn(RISE.gap);
    let [sum, count] = [0, 0];
    for (const at of group)
      for (let i = Math.max(0, Math.floor(at) - before); i < at - gap; i++) {
        sum += this.band[i]! * this.band[i]!;
        count++;
      }
    return sum / Math.max(1, count);
  }

  /** A click of the count-in is taken off by what the others taught: so it is seen how much is left of a later one. */
  private removeCounted(at: number, groups: readonly (readonly number[])[], length: number): number[] {
    const near = this.samplesIn(2 * SEARCH);
    const sound = groups.findIndex((group) => group.some((other) => Math.abs(other - at) <= near));
    const others = (groups[sound] ?? []).filter((other) => Math.abs(other - at) > near);
    const removed = others.length > 0;
    this.arrivals.push({ at, countIn: true, sound: sound < 0 ? undefined : sound, removed });
    if (!removed) return [];
    const mean = this.meanOf(others, length);
    return [this.removeHere(mean, at, this.bestFit(mean.band, at))];
  }

  /**
   * Takes as much of a sound off as is in what is heard here.
   * @param fit  where around there it lies best
   * @returns dB by which that made its beginning softer
   */
  private removeHere(sound: Sound, at: number, fit: Fit): number {
    // Under a loud clap the click is better known from those before it than from what is heard.
    const shift = fit.alike < PLAIN ? 0 : fit.shift;
    const whole = Math.floor(at + shift);
    const band = later(sound.band, at + shift - whole);
    const length = Math.min(band.length, this.samplesIn(BEFORE + KNOWN_BY));
    const heard = this.cut('band', whole, length);
    let [both, own, all] = [0, 1e-18, 1e-18];
    for (let i = 0; i < length; i++) {
      both += heard[i]! * band[i]!;
      own += band[i]! * band[i]!;
      all += heard[i]! * heard[i]!;
    }
    const rest = Math.max(0, all - (both * both) / own) / length;
    const doubt = rest / (GAIN_VARIES * GAIN_VARIES);
    const gain = Math.max(0, Math.min(2, (both + doubt) / (own + doubt)));
    const less = later(sound.samples, at + shift - whole).map((sample) => gain * sample);
    this.removals.push({ from: whole - this.samplesIn(BEFORE), less });
    return relation(heard, (i) => heard[i]! - gain * band[i]!);
  }

  /** Clicks whose sound is there by now. */
  private removeMore(over: boolean): void {
    const { learned, clicks } = this;
    if (!learned) return;
    const ahead = this.samplesIn(KNOWN_BY + SEARCH) + 1;
    for (; this.next < clicks.length; this.next++) {
      const at = clicks[this.next]! + learned.late;
      if (!over && at + ahead > this.count) return;
      const best = learned.sounds
        .map((sound, index) => ({ sound, index, ...this.bestFit(sound.band, at) }))
        .reduce((most, one) => (one.alike > most.alike ? one : most));
      this.removeHere(best.sound, at, best);
      this.arrivals.push({ at: at + best.shift, countIn: false, sound: best.index, removed: true });
      // A clock may run a little faster than the other.
      if (best.alike > CLEAR) learned.late += Math.max(-2, Math.min(2, FOLLOW * best.shift));
    }
  }

  private give(over: boolean): Float32Array {
    this.removeMore(over);
    const { learned, clicks, next } = this;
    // Nothing is given from where the next click may begin.
    const click = learned && clicks[next] !== undefined ? Math.floor(clicks[next] + learned.late) : Infinity;
    const until = over
      ? this.count
      : Math.min(this.count, Math.max(this.given, click - this.samplesIn(BEFORE + SEARCH) - 1));
    const out = new Float32Array(until - this.given);
    for (let i = 0; i < out.length; i++) out[i] = this.raw[this.given + i - this.base]!;
    for (const { from, less } of this.removals) {
      const first = Math.max(from, this.given);
      const last = Math.min(from + less.length, until);
      for (let k = first; k < last; k++) out[k - this.given]! -= less[k - from]!;
    }
    this.given = until;
    this.forget();
    return out;
  }

  /** What lies so far back that nothing asks for it goes. */
  private forget(): void {
    while (this.removals[0] && this.removals[0].from + this.removals[0].less.length < this.given) this.removals.shift();
    const from = this.given - this.samplesIn(KEPT);
    if (from - this.base < this.samplesIn(KEPT)) return;
    for (const name of ['raw', 'band'] as const) this[name].copyWithin(0, from - this.base, this.count - this.base);
    this.base = from;
  }
}

/** The same samples so much of a sample later, by a windowed sinc. @param part  of a sample, -1 to 1 */
function later(samples: Float64Array, part: number): Float64Array {
  if (part === 0) return samples.slice();
  const weights = Array.from({ length: 2 * TAPS + 1 }, (_, i) => {
    const x = i - TAPS - part;
    if (Math.abs(x) < 1e-9) return 1;
    const window = Math.abs(x) < TAPS ? 0.5 + 0.5 * Math.cos((Math.PI * x) / TAPS) : 0;
    return (window * Math.sin(Math.PI * x)) / (Math.PI * x);
  });
  return samples.map((_, i) => {
    let sum = 0;
    for (let k = 0; k < weights.length; k++) sum += weights[k]! * (samples[i - (k - TAPS)] ?? 0);
    return sum;
  });
}

/** dB by which samples are louder than others. */
function relation(samples: Float64Array, others: (i: number) => number): number {
  let [all, rest] = [1e-15, 1e-15];
  samples.forEach((sample, i) => {
    all += sample * sample;
    rest += others(i) ** 2;
  });
  return 10 * Math.log10(all / rest);
}
