import { EPSILON } from '../timing/tolerance.ts';
import { type TempoCurve, heardTime, paceAt } from '../timing/tempoCurve.ts';
import type { ExpectedClap } from './expectedClap.ts';
import { SAME_CLAP } from './windows.ts';

/**
 * How likely a take is under one hypothesis of the pattern. Costs are in nats (natural logarithms of probability
 * ratios), so that hypotheses can be compared: a clap that comes when the hypothesis says costs almost nothing.
 */
const MISSED_COST = 5;
const EXTRA_COST = 6;
/**
 * Claps before the first note (to find the tempo, along with the count-in) are one thing, not many; so many at most.
 */
const BEFORE_COST = 4;
const BEFORE_EACH = 1.7;
const MOST_BEFORE = 8;
/** A clap heard twice is no clap of the child's. */
const BOUNCE_COST = 1.2;
/** No onset that belongs to an expected clap costs more than this: further off it is as strange as it can be. */
const WORST_MATCH = 4;
/** From here on an onset is too far off for mere unsteadiness: three and a half deviations. */
const POOR = 6;
/** What is known of a child's unsteadiness before it is heard: seconds, worth so many claps. */
const USUAL_SPREAD = 0.022;
const USUAL_WEIGHT = 6;
const TIGHTEST = 0.008;
/** Who is more unsteady than this is not unsteady but wrong. */
const LOOSEST = 0.05;
/** An onset belongs to an expected clap up to this far, and up to half the gap to the next (rules §8). */
const REACH = 0.25;

/**
 * With a click: children tap ahead of it by 20 to 60 ms (rules §8); in free takes everything about the start is
 * open.
 */
const CLICK_LAG = -0.02;
const CLICK_LAG_SPREAD = 0.05;
/** Parts of the length of the take: how far tempo may be off from the first clap on, and how much it may bend. */
const CLICK_TEMPO_SPREAD = 0.007;
const FREE_TEMPO_SPREAD = 0.4;
const BEND_SPREAD = 0.028;
/** A tempo that ends nine per cent faster or slower. */
const FAR_BEND = 0.045;
/** Missing notes at the very end are one thing, not many. */
const STOPPED_COST = 5;
const STOPPED_EACH = 0.25;

export interface Fit {
  readonly cost: number;
  readonly curve: TempoCurve;
  /** Standard deviation of what is left, seconds. */
  readonly spread: number;
  /** Of the unsteadiness as it is estimated with what is usually known. */
  readonly sigma: number;
  /** Claps by time, and for each the index of its onset or -1. */
  readonly claps: readonly ExpectedClap[];
  readonly hits: Int32Array;
  /**
   * Onsets that belong to no expected clap, but for bounces and what came before the first; expected claps without an
   * onset, and onsets far off their clap.
   */
  readonly extras: number;
  /** Onsets before the first thing written. */
  readonly before: number;
  readonly missed: number;
  readonly poor: number;
  /** Index of the first expected clap of a missing end, or -1. */
  readonly stopped: number;
  /** How many times its own uncertainty the bend is. */
  readonly bendCertainty: number;
}

/** Fits hypotheses of a pattern to the onsets of one take. */
export class Aligner {
  private predicted = new Float64Array(64);
  private times = new Float64Array(64);
  private hits = new Int32Array(64);
  private curve: TempoCurve = { lag: 0, tempo: 0, bend: 0, from: 0, length: 1 };
  private bendInformation = 0;

  /**
   * @param onsets  seconds, rising, from beat 1 of measure 1 by the click; in a free take from anywhere
   * @param free    start and tempo are unknown
   * @param begins  when the first thing is written, a note or a rest; without it the first expected clap is meant
   */
  constructor(
    private readonly onsets: Float64Array,
    private readonly free: boolean,
    private readonly begins?: number,
  ) {}

  /**
   * The best way to lay these expected claps over the onsets. `near` is a curve to begin with, besides the usual ones.
   */
  fit(claps: readonly ExpectedClap[], near?: TempoCurve): Fit {
    const sorted = this.load(claps);
    let best: Fit | undefined;
    for (const begin of this.beginnings(sorted.length, near)) {
      begin();
      const found = this.refined(sorted);
      if (!best || found.cost < best.cost - 1e-9) best = found;
      // Everything has its onset and lies close: no other beginning does better.
      if (found.missed + found.extras + found.poor === 0) break;
    }
    return best!;
  }

  /** One fit from one beginning and with fewer rounds: enough to see whether a hypothesis is worth a closer look. */
  glance(claps: readonly ExpectedClap[]): Fit {
    const sorted = this.load(claps);
    // The first of the usual beginnings: what fitted another hypothesis would lead astray where this one differs.
    for (const begin of this.beginnings(sorted.length, undefined)) {
      begin();
      break;
    }
    return this.refined(sorted, 2);
  }

  /** These expected claps along a known curve, which is not changed. */
  along(claps: readonly ExpectedClap[], curve: TempoCurve): Fit {
    const sorted = this.load(claps);
    this.curve = curve;
    this.steady(sorted.length, curve);
    this.match(sorted.length);
    const { sigma, spread } = this.sigmaOf(sorted.length, LOOSEST);
    return this.cost(sorted, sigma, spread);
  }

  private load(claps: readonly ExpectedClap[]): readonly ExpectedClap[] {
    let rising = true;
    for (let i = 1; i < claps.length; i++) if (claps[i]!.time < claps[i - 1]!.time) rising = false;
    const sorted = rising ? claps : [...claps].sort((a, b) => a.time - b.time);
    const count = sorted.length;
    if (this.times.length < count) {
      this.times = new Float64Array(2 * count);
      this.predicted = new Float64Array(2 * count);
      this.hits = new Int32Array(2 * count);
    }
    for (let i = 0; i < count; i++) this.times[i] = sorted[i]!.time;
    const from = count > 0 ? this.times[0]! : 0;
    this.curve = {
      lag: 0,
      tempo: 0,
      bend: 0,
      from,
      length: Math.max(0.2, count > 0 ? this.times[count - 1]! - from : 0),
    };
    return sorted;
  }

  private *beginnings(count: number, near: TempoCurve | undefined): Generator<() => void> {
    if (!this.free) {
      yield () => this.track(count, CLICK_LAG, 0);
      yield () => this.steady(count, { ...this.curve, lag: CLICK_LAG, tempo: 0, bend: 0 });
      if (near) yield () => this.nearTo(count, near);
      // A child that rushes or drags from the start.
      else
        for (const bend of [-FAR_BEND, FAR_BEND])
          yield () => this.steady(count, { ...this.curve, lag: CLICK_LAG, tempo: 0, bend: bend * this.curve.length });
      return;
    }
    const { onsets, times } = this;
    const last = onsets.length - 1;
    if (last < 0 || count === 0) {
      yield () => this.steady(count, { ...this.curve, lag: 0, tempo: 0, bend: 0 });
      return;
    }
    /** Through two pairs of expected clap and onset. */
    const through = (a: number, p: number, b: number, q: number) => () => {
      const gap = times[b]! - times[a]!;
      const pace = gap > EPSILON ? (onsets[q]! - onsets[p]!) / gap : 1;
      const tempo = Math.min(2.5, Math.max(0.3, pace)) - 1;
      this.track(count, onsets[p]! - times[a]! - tempo * (times[a]! - times[0]!), tempo);
    };
    yield through(0, 0, count - 1, last);
    if (near) yield () => this.nearTo(count, near);
    yield () => this.track(count, onsets[0]! - times[0]!, 0);
    if (count > 2 && last > 1) {
      yield through(0, 0, count - 2, last);
      yield through(0, 0, count - 1, last - 1);
      yield through(1, 0, count - 1, last);
      for (let before = 1; before <= Math.min(4, last - 1); before++) yield through(0, before, count - 1, last);
      const some = Math.min(4, count - 1, last);
      yield through(0, 0, some, some);
    }
  }

  /** Along a curve that fitted another hypothesis, its lag free. */
  private nearTo(count: number, near: TempoCurve): void {
    this.track(count, heardTime(near, this.times[0] ?? 0) - (this.times[0] ?? 0), paceAt(near, this.times[0] ?? 0) - 1);
  }

  private steady(count: number, curve: TempoCurve): void {
    for (let i = 0; i < count; i++) this.predicted[i] = heardTime(curve, this.times[i]!);
  }

  /** Predicts clap by clap, led by the onsets that were near: follows a tempo that drifts. */
  private track(count: number, lag: number, pace: number): void {
    const { times, predicted, onsets } = this;
    let offset = lag;
    let slope = pace;
    let j = 0;
    for (let i = 0; i < count; i++) {
      const step = i > 0 ? times[i]! - times[i - 1]! : 0;
      const next = i + 1 < count ? times[i + 1]! - times[i]! : Infinity;
      offset += slope * step;
      const at = times[i]! + offset;
      predicted[i] = at;
      const scale = 1 + slope;
      const early = at - Math.min(REACH, i > 0 ? (step * scale) / 2 : Infinity);
      const late = at + Math.min(REACH, (next * scale) / 2);
      while (j < onsets.length && onsets[j]! < early) j++;
      let error = Infinity;
      for (let k = j; k < onsets.length && onsets[k]! <= late; k++)
        if (Math.abs(onsets[k]! - at) < Math.abs(error)) error = onsets[k]! - at;
      if (error !== Infinity) {
        offset += 0.35 * error;
        if (step > 0) slope += Math.max(-0.03, Math.min(0.03, (0.07 * error) / Math.max(step, 0.2)));
      }
    }
  }

  /**
   * Gives each expected clap the nearest onset in its window; windows end half-way between them, so none is given
   * twice.
   */
  private match(count: number): void {
    const { predicted, hits, onsets } = this;
    let j = 0;
    for (let i = 0; i < count; i++) {
      const at = predicted[i]!;
      const early = i > 0 ? Math.min(REACH, (at - predicted[i - 1]!) / 2) : REACH;
      const late = i + 1 < count ? Math.min(REACH, (predicted[i + 1]! - at) / 2) : REACH;
      while (j < onsets.length && onsets[j]! < at - early) j++;
      let hit = -1;
      let k = j;
      for (; k < onsets.length && onsets[k]! < at + late; k++)
        if (hit < 0 || Math.abs(onsets[k]! - at) < Math.abs(onsets[hit]! - at)) hit = k;
      hits[i] = hit;
      j = k;
    }
  }

  /** Least squares of lag, tempo and bend over the pairs, drawn towards what is usual; far pairs count little. */
  private regress(count: number, sigma: number): void {
    const { times, onsets, hits, predicted, free } = this;
    const { from, length } = this.curve;
    const noise = sigma * sigma;
    const weightOf = (spread: number) => noise / (spread * spread);
    // Normal equations of 1, τ, τ², with the usual values as further observations.
    let [a00, a11, a22] = [
      free ? 1e-9 : weightOf(3 * CLICK_LAG_SPREAD),
      weightOf((free ? FREE_TEMPO_SPREAD : CLICK_TEMPO_SPREAD) * length),
      weightOf(BEND_SPREAD * length),
    ];
    let [a01, a02, a12] = [0, 0, 0];
    let [b0, b1, b2] = [free ? 0 : a00 * CLICK_LAG, 0, 0];
    for (let i = 0; i < count; i++) {
      const hit = hits[i]!;
      if (hit < 0) continue;
      const tau = (times[i]! - from) / length;
      const off = (onsets[hit]! - predicted[i]!) / (2.5 * sigma);
      const w = 1 / (1 + off * off);
      const y = onsets[hit]! - times[i]!;
      a00 += w;
      a01 += w * tau;
      a02 += w * tau * tau;
      a12 += w * tau * tau * tau;
      a11 += w * tau * tau;
      a22 += w * tau * tau * tau * tau;
      b0 += w * y;
      b1 += w * y * tau;
      b2 += w * y * tau * tau;
    }
    // By elimination: the matrix is symmetric and positive.
    const c11 = a11 - (a01 * a01) / a00;
    const c12 = a12 - (a01 * a02) / a00;
    const c22 = a22 - (a02 * a02) / a00;
    const d1 = b1 - (a01 * b0) / a00;
    const d2 = b2 - (a02 * b0) / a00;
    const e22 = c22 - (c12 * c12) / c11;
    const bend = (d2 - (c12 * d1) / c11) / e22;
    const tempo = (d1 - c12 * bend) / c11;
    const lag = (b0 - a01 * tempo - a02 * bend) / a00;
    this.bendInformation = e22 / noise;
    this.curve = { lag, tempo, bend, from, length };
  }

  private sigmaOf(count: number, before: number): { sigma: number; spread: number } {
    const { hits, onsets, predicted } = this;
    let n = 0;
    let sum = 0;
    const most = 2.6 * before;
    for (let i = 0; i < count; i++) {
      if (hits[i]! < 0) continue;
      const r = Math.min(most, Math.abs(onsets[hits[i]!]! - predicted[i]!));
      sum += r * r;
      n++;
    }
    return {
      sigma: Math.min(
        LOOSEST,
        Math.max(TIGHTEST, Math.sqrt((sum + USUAL_WEIGHT * USUAL_SPREAD ** 2) / (n + USUAL_WEIGHT))),
      ),
      spread: n > 2 ? Math.sqrt(sum / (n - 1)) : 0,
    };
  }

  private refined(claps: readonly ExpectedClap[], rounds = 3): Fit {
    const count = claps.length;
    let sigma = 0.04;
    let spread = 0;
    for (let round = 0; round < rounds; round++) {
      this.match(count);
      this.regress(count, sigma);
      this.steady(count, this.curve);
      ({ sigma, spread } = this.sigmaOf(count, Math.max(sigma, 0.025)));
    }
    this.match(count);
    return this.cost(claps, sigma, spread);
  }

  /** The moment before which nothing can belong to the take. */
  private start([first]: readonly ExpectedClap[]): number {
    if (!first) return Infinity;
    const moved = first.time - first.written;
    return heardTime(this.curve, Math.min(first.time, (this.begins ?? first.written) + moved)) - REACH;
  }

  /** How many onsets belong to no expected clap, by what they are. */
  private strays(claps: readonly ExpectedClap[]): { extras: number; before: number; bounces: number } {
    const { hits, onsets } = this;
    const count = claps.length;
    const start = this.start(claps);
    let [extras, before, bounces, j] = [0, 0, 0, 0];
    let clap = -Infinity;
    for (let i = 0; i <= count; i++) {
      const hit = i < count ? hits[i]! : onsets.length;
      if (hit < 0) continue;
      for (; j < hit; j++) {
        if (onsets[j]! - clap < SAME_CLAP) bounces++;
        else if (clap === -Infinity && onsets[j]! < start && before < MOST_BEFORE) before++;
        else extras++;
      }
      clap = onsets[j++] ?? 0;
    }
    return { extras, before, bounces };
  }

  private cost(claps: readonly ExpectedClap[], sigma: number, spread: number): Fit {
    const { hits, onsets, predicted, curve, free } = this;
    const count = claps.length;
    const level = Math.log(sigma / USUAL_SPREAD);
    let cost = 0;
    let missed = 0;
    let poor = 0;
    let lastHit = -1;
    for (let i = 0; i < count; i++) {
      if (hits[i]! < 0) {
        missed++;
        continue;
      }
      lastHit = i;
      const r = (onsets[hits[i]!]! - predicted[i]!) / sigma;
      const half = (r * r) / 2;
      if (half > POOR) poor++;
      cost += Math.min(half, WORST_MATCH) + level;
    }
    const tail = count - 1 - lastHit;
    const silentEnd = tail > 0 && lastHit >= 0 && hits[lastHit] === onsets.length - 1;
    const tailSeconds = silentEnd ? claps[count - 1]!.written - claps[lastHit]!.written : 0;
    const stopped = silentEnd && (tail > 1 || tailSeconds > 1.6) ? lastHit + 1 : -1;
    cost +=
      stopped >= 0
        ? (missed - tail) * MISSED_COST + Math.min(tail * MISSED_COST, STOPPED_COST + tail * STOPPED_EACH)
        : missed * MISSED_COST;
    const { extras, before, bounces } = this.strays(claps);
    cost += extras * EXTRA_COST + bounces * BOUNCE_COST;
    if (before > 0) cost += BEFORE_COST + before * BEFORE_EACH;
    const usual = (value: number, spreadOf: number) => (value / spreadOf) ** 2 / 2;
    cost +=
      usual(curve.tempo, (free ? FREE_TEMPO_SPREAD : CLICK_TEMPO_SPREAD) * curve.length) +
      usual(curve.bend, BEND_SPREAD * curve.length);
    if (!free) cost += usual(curve.lag - CLICK_LAG, CLICK_LAG_SPREAD);
    return {
      cost,
      curve,
      spread,
      sigma,
      claps,
      hits: hits.slice(0, count),
      extras,
      before,
      missed: stopped >= 0 ? missed - tail : missed,
      poor,
      stopped,
      bendCertainty: Math.abs(curve.bend) * Math.sqrt(this.bendInformation),
    };
  }
}
