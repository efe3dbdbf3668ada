import { EPSILON } from '../timing/tolerance.ts';
import { Aligner, type Fit } from './alignment.ts';

import { type CodedHypothesis, hypothesesOf, suggestedBy } from './misreadings/table.ts';
import type { ExpectedClap } from './expectedClap.ts';
import { LARGEST_LEAD, SAME_CLAP } from './windows.ts';
import type { Score } from './scoreEvents.ts';
import { type TempoCurve, heardTime, paceAt } from '../timing/tempoCurve.ts';

/** How a take came about: which misreadings, and how the claps lie then. */
export interface Diagnosis {
  readonly hypotheses: readonly CodedHypothesis[];
  /** Claps in written order, all hypotheses applied. */
  readonly claps: readonly ExpectedClap[];
  readonly fit: Fit;
  /** Of the fit and the hypotheses together. */
  readonly cost: number;
  /** For each hypothesis, by how much it made the take likelier. */
  readonly gains: readonly number[];
  /** Diagnoses that are as likely, or nearly: the claps alone cannot tell. */
  readonly others?: readonly Diagnosis[];
  /** Nothing known explains the take: it is as written, and nothing in it is to be named. */
  readonly unexplained?: true;
  /** A stretch of claps (by time) that follows nothing, right again after it. */
  readonly lost?: { readonly from: number; readonly to: number; readonly gain: number };
}

/** More is never shown (handbook §8), and a take with more than three misreadings is not read but lost. */
const MOST_HYPOTHESES = 3;
/** How many diagnoses are carried on at each step; long pieces have so many places that one must do. */
const WIDTH = [5, 3] as const;
const LONG_PIECE = 90;
/** An diagnosis so little less likely is named too. */
const AS_LIKELY = 0.9;
/** One that comes to the very same claps is named unless it is much less usual. */
const SAME_CLAPS = 2.5;
/**
 * A hypothesis that does not make the take likelier by this much is not tried further. One of two that undo each other
 * may make it less likely on its own, so where much is strange the first is given some credit.
 */
const LEAST_GAIN = 0.1;
const CREDIT = 4;
const MUCH_STRANGE = 4;

/** Above this unsteadiness (seconds) something may be hidden even when every note has its clap. */
const CLEAN_SIGMA = 0.042;

/** Children tap a little ahead of the click. */
export const USUAL_LAG = -0.025;

/** As written. */
export function baseClaps({ events, notes }: Score): ExpectedClap[] {
  return notes.map((index, note) => ({ note, written: events[index]!.time, time: events[index]!.time }));
}

/**
 * A take is another rhythm when its best explanation leaves so many notes and claps strange, as a part of the notes,
 * and costs so much for each note and clap, but for what one misreading may cost. In simulated takes of other rhythms
 * that is 0.99 and more, in takes with a stop, a restart, a habit or a measure left out 0.77 and less.
 */
const UNEXPLAINED = { strange: 3, part: 0.12, cost: 0.85, allowed: 4 };

function isUnexplained({ cost, fit }: Diagnosis, onsets: Float64Array): boolean {
  const size = fit.claps.length + onsets.length;
  return (
    strange(fit) >= Math.max(UNEXPLAINED.strange, UNEXPLAINED.part * fit.claps.length) &&
    cost - UNEXPLAINED.allowed > UNEXPLAINED.cost * size
  );
}

/** How many notes and claps are not as they should be. */
function strange({ missed, extras, poor }: Fit): number {
  return missed + extras + poor;
}

/**
 * Every clap has its note, near enough, and no further from the click than children are: then nothing can have happened
 * that moves or adds claps. A note or two inside the take that was not heard was only missed.
 */
function isClean({ extras, before, poor, missed, stopped, sigma, hits, curve }: Fit, free: boolean): boolean {
  return (
    (free || Math.abs(curve.lag) <= LARGEST_LEAD) &&
    extras + poor === 0 &&
    stopped < 0 &&
    sigma <= CLEAN_SIGMA &&
    // Claps before the start and notes missed may be the same ones.
    (missed === 0 || (before === 0 && missed <= Math.max(2, MISSED_PART * hits.length) && hits.at(-1)! >= 0))
  );
}

/** So many notes may be missed, here and there, before a reason is looked for. */
const MISSED_PART = 0.03;

/** Where something is strange under an diagnosis: claps that were missed or are far off, and stray claps. */
interface Strange {
  /** For each expected clap, by time. */
  readonly claps: readonly boolean[];
  /** Written times of the first and last strange thing. */
  readonly first: number;
  readonly last: number;
  /** Moments of the stray claps. */
  readonly stray: readonly number[];
}

/** @param written  when the first thing is written */
function strangeIn({ fit }: Diagnosis, onsets: Float64Array, written: number): Strange {
  const { claps, hits, curve, sigma } = fit;
  const given = new Uint8Array(onsets.length);
  const flags = claps.map(({ time }, i) => {
    const hit = hits[i]!;
    if (hit >= 0) given[hit] = 1;
    return hit < 0 || Math.abs(onsets[hit]! - heardTime(curve, time)) > FAR_OFF * sigma;
  });
  const heard = claps.map(({ time }) => heardTime(curve, time));
  const begins = heardTime(curve, Math.min(claps[0]?.time ?? 0, written));
  const stray: number[] = [];
  let at = 0;
  let clapped = -Infinity;
  onsets.forEach((onset, j) => {
    if (given[j] === 1) {
      clapped = onset;
      return;
    }
    // A bounce, or before the first: that is no reason to look for one.
    if (onset - clapped < SAME_CLAP || (onset < begins - NO_NOTE_YET && fit.missed === 0)) return;
    stray.push(onset);
    while (at + 1 < heard.length && Math.abs(heard[at + 1]! - onset) <= Math.abs(heard[at]! - onset)) at++;
    flags[at] = true;
  });
  const first = flags.indexOf(true);
  const last = flags.lastIndexOf(true);
  return {
    claps: flags,
    first: claps[first]?.written ?? -Infinity,
    last: claps[last]?.written ?? Infinity,
    stray,
  };
}

/** A take with fewer claps, as a part of the notes, has stopped before anything can be told. */
const FEW_CLAPS = 0.1;
const FAR_OFF = 2.5;
/** Seconds before the first expected clap. */
const NO_NOTE_YET = 0.25;
/**
 * Written length beside what was heard: at half the tempo a half of it, also when an end is missing; at twice the tempo
 * the double.
 */
const SLOW_SPAN = 0.8;
const FAST_SPAN = 1.25;
/** Part of a beat. */
const NEAR_ENTRY = 0.45;
/**
 * A misreading shows at once: where nothing is strange for so many measures after a place, nothing was misread there.
 */
const MEASURES_BEFORE = 1.5;
/** A clap belongs to an added one up to this part of a beat. */
const NEAR_ADDED = 0.45;

/** Could this hypothesis explain something strange? A quick look that leaves out most of them. */
function couldBe(
  hypothesis: CodedHypothesis,
  written: Score,
  { claps, fit }: Diagnosis,
  { first, last, stray }: Strange,
  onsets: Float64Array,
): boolean {
  if (hypothesis.wholeTake) {
    const begin = claps[0]!.time;
    if (hypothesis.speed !== undefined) {
      const span = (claps.at(-1)!.time - begin) / Math.max(EPSILON, onsets.at(-1)! - onsets[0]!);
      return hypothesis.speed < 1 ? span < SLOW_SPAN : span > FAST_SPAN;
    }
    // Who comes in wrong claps the first note, or at least the second, where it is then due.
    return (
      hypothesis.shift === undefined ||
      [begin, claps[1]?.time ?? begin].some(
        (due) => Math.abs(onsets[0]! - due - hypothesis.shift!.seconds) < written.beat * NEAR_ENTRY,
      )
    );
  }
  const { time, beat } = written.events[hypothesis.event]!;
  if (hypothesis.adds) {
    const [place] = hypothesis.adds;
    const before = claps.findLast((clap) => clap.written < place! - EPSILON) ?? claps[0];
    const due = heardTime(fit.curve, place! + (before ? before.time - before.written : 0));
    return stray.some((onset) => Math.abs(onset - due) < NEAR_ADDED * beat);
  }
  return time >= first - MEASURES_BEFORE * written.beatsInMeasure * written.beat - beat && time <= last + beat;
}

/** So many claps are laid at most to see which hypotheses are worth a closer look: an hour of sixteenths takes long. */
const WORK = 150_000;

/** Those about the whole take, and those nearest to where it goes wrong. */
function nearest(
  hypotheses: readonly CodedHypothesis[],
  { events }: Score,
  { first }: Strange,
  most: number,
): readonly CodedHypothesis[] {
  if (hypotheses.length <= most) return hypotheses;
  const far = ({ wholeTake, event }: CodedHypothesis) => (wholeTake ? 0 : Math.abs(events[event]!.time - first));
  return [...hypotheses].sort((a, b) => far(a) - far(b)).slice(0, most);
}

function goesWith(hypothesis: CodedHypothesis, others: readonly CodedHypothesis[]): boolean {
  const parts = hypothesis.parts ?? [hypothesis];
  return others.every((other) => {
    if (hypothesis.alone || other.alone) return false;
    if (other.code === hypothesis.code && parts.some(({ event }) => other.event === event)) return false;
    return !(
      hypothesis.wholeTake &&
      other.wholeTake &&
      (hypothesis.speed !== undefined ||
        other.speed !== undefined ||
        (hypothesis.shift !== undefined && other.shift !== undefined))
    );
  });
}

/** What the take itself suggests, from the first strange thing on. */
function suggestions(
  written: Score,
  { fit }: Diagnosis,
  things: Strange,
  onsets: Float64Array,
  free: boolean,
): CodedHypothesis[] {
  const { claps, hits, curve } = fit;
  return suggestedBy(written, { onsets, claps, hits, curve, first: Math.max(0, things.claps.indexOf(true)) }, free);
}

/**
 * The likeliest diagnosis of a take: as written, or with up to three misreadings, together with the tempo it took.
 * @param onsets  seconds, rising, bounces merged
 * @param free    no click: start and tempo are unknown
 */
export function diagnose(written: Score, onsets: Float64Array, free: boolean): Diagnosis {
  const begins = written.events[0]?.time ?? 0;
  const aligner = new Aligner(onsets, free, begins);
  const claps = baseClaps(written);
  const fit = aligner.fit(claps);
  const asWritten: Diagnosis = { hypotheses: [], claps, fit, cost: fit.cost, gains: [] };
  if (claps.length === 0 || onsets.length < FEW_CLAPS * claps.length) return asWritten;

  const clean = isClean(fit, free);
  const all = hypothesesOf(written, free).filter(({ subtle }) => subtle || !clean);
  const long = claps.length > LONG_PIECE;
  const suggested = (before: Diagnosis, things: Strange): CodedHypothesis[] => {
    if (clean) return [];
    // Without a click what comes after a stop bends the whole; what came before it still shows the tempo.
    const begun = free && before.hypotheses.length === 0 ? begunFit(claps, onsets) : undefined;
    const there = begun && { ...before, fit: begun };
    const more = there ? suggestions(written, there, strangeIn(there, onsets, begins), onsets, free) : [];
    // In an hour of sixteenths so much can be suggested that it would take longer than anybody waits.
    return [...suggestions(written, before, things, onsets, free), ...more].slice(0, Math.ceil(WORK / claps.length));
  };
  let best = asWritten;
  let frontier = [asWritten];
  const found: Diagnosis[] = [asWritten];
  for (let depth = 0; depth < MOST_HYPOTHESES; depth++) {
    const next = distinct(
      frontier
        .flatMap((before) => {
          const things = strangeIn(before, onsets, begins);
          const possible = nearest(
            all.filter((one) => couldBe(one, written, before, things, onsets)),
            written,
            things,
            Math.ceil(WORK / claps.length),
          );
          const leastGain = depth === 0 && strange(fit) >= MUCH_STRANGE ? -CREDIT : LEAST_GAIN;
          return oneMore(
            before,
            [...possible, ...suggested(before, things)],
            aligner,
            leastGain,
            long ? 4 : CLOSE_LOOKS,
          );
        })
        .sort((a, b) => a.cost - b.cost),
    );
    frontier = next.slice(0, long ? 1 : (WIDTH[depth] ?? 1));
    if (frontier.length === 0) break;
    found.push(...next.slice(0, CLOSE_LOOKS));
    if (frontier[0]!.cost < best.cost) best = frontier[0]!;
    if (isClean(best.fit, free)) break;
  }
  const lost = lostIn(asWritten, best, onsets, free);
  if (isUnexplained(lost ?? best, onsets)) return { ...asWritten, unexplained: true };
  if (lost) return lost;
  const others = found.filter(
    (other) =>
      other !== best &&
      other.hypotheses.length <= Math.max(1, best.hypotheses.length) &&
      other.cost < best.cost + (clapsAlike(other, best) ? SAME_CLAPS : AS_LIKELY),
  );
  return { ...best, others };
}

/** Parts of a take that are tried as its undisturbed beginning; and the fewest claps that show a tempo. */
const BEGINNINGS = [0.8, 0.65, 0.5, 0.38, 0.27, 0.18, 0.1] as const;
const FEWEST_BEGUN = 5;

/** The claps laid along the tempo of the longest beginning that fits as written; free takes only. */
function begunFit(claps: readonly ExpectedClap[], onsets: Float64Array): Fit | undefined {
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

/** How many hypotheses of each diagnosis are looked at closely. */
const CLOSE_LOOKS = 16;
/** A glance sees the cost up to about this. */
const GLANCE_SLACK = 12;

/** An diagnosis with one more misreading: all that make the take likelier. */
function oneMore(
  before: Diagnosis,
  all: readonly CodedHypothesis[],
  aligner: Aligner,
  leastGain: number,
  looks: number,
): Diagnosis[] {
  const editCost = before.hypotheses.reduce((sum, { cost }) => sum + cost, 0);
  const promising = all
    .filter((hypothesis) => goesWith(hypothesis, before.hypotheses))
    .map((hypothesis) => {
      const claps = hypothesis.apply(before.claps);
      // At another speed nothing of the curve found so far holds.
      const far = hypothesis.speed !== undefined;
      return { hypothesis, claps, cost: far ? -Infinity : aligner.glance(claps).cost + editCost + hypothesis.cost };
    })
    .filter(({ cost }) => cost < before.cost + GLANCE_SLACK)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, looks);
  return promising.flatMap(({ hypothesis, claps }): Diagnosis[] => {
    const fit = aligner.fit(claps, before.fit.curve);
    const cost = fit.cost + editCost + hypothesis.cost;
    const added = places(hypothesis);
    return cost < before.cost - leastGain
      ? [
          {
            hypotheses: [...before.hypotheses, ...added],
            claps,
            fit,
            cost,
            gains: [...before.gains, ...added.map(() => before.cost - cost)],
          },
        ]
      : [];
  });
}

/** A habit as its places. */
function places(hypothesis: CodedHypothesis): CodedHypothesis[] {
  const { parts = [hypothesis], code, cost } = hypothesis;
  return parts.map((part) => ({ ...part, code, cost: cost / parts.length }));
}

/** Both come to the same claps. */
function clapsAlike({ claps: a }: Diagnosis, { claps: b }: Diagnosis): boolean {
  return a.length === b.length && a.every(({ time }, i) => Math.abs(time - b[i]!.time) < EPSILON);
}

/** Two hypotheses in the other order are the same diagnosis. */
function distinct(diagnoses: readonly Diagnosis[]): Diagnosis[] {
  const seen = new Set<string>();
  return diagnoses.filter(({ hypotheses, cost }) => {
    const key = `${hypotheses
      .map(({ code, event }) => `${code} ${event}`)
      .sort()
      .join(', ')} ${cost.toFixed(3)}`;
    return seen.size < seen.add(key).size;
  });
}

/** Being lost costs this once, and a little for each note and clap in the stretch. */
const LOST_COST = 9;
const LOST_EACH = 0.6;
/** So many notes may be lost; after them at least so many are right again. */
const LOST_NOTES = { least: 3, most: 9 };
const FEWEST_AFTER = 2;
/** Below so many strange things a take is not looked through for a stretch. */
const FEWEST_STRANGE = 3;
const SOME_STRANGE = 5;

/**
 * The stretch of the written notes that is better explained by nothing at all, the rest being played as written;
 * undefined when the best diagnosis so far is likelier.
 */
function lostIn(asWritten: Diagnosis, best: Diagnosis, onsets: Float64Array, free: boolean): Diagnosis | undefined {
  const { claps, fit } = asWritten;
  if (strange(best.fit) < FEWEST_STRANGE && best.hypotheses.length < 2) return undefined;
  // A few strange claps may be a slip each; then being lost must be much the likelier.
  const margin = strange(best.fit) < SOME_STRANGE ? 2.5 : 0;
  const curve: TempoCurve = free ? fit.curve : { ...fit.curve, lag: USUAL_LAG, tempo: 0, bend: 0 };
  const heard = claps.map(({ time }) => heardTime(curve, time));
  const without = (from: number, to: number) => {
    const begin = (heard[from - 1]! + heard[from]!) / 2;
    const end = (heard[to]! + heard[to + 1]!) / 2;
    const outside = onsets.filter((onset) => onset < begin || onset >= end);
    const cost = LOST_COST + LOST_EACH * (to - from + 1 + onsets.length - outside.length);
    return {
      from,
      to,
      cost,
      aligner: new Aligner(outside, free),
      claps: [...claps.slice(0, from), ...claps.slice(to + 1)],
    };
  };
  const stretches: (ReturnType<typeof without> & { glance: number })[] = [];
  const most = Math.min(LOST_NOTES.most, claps.length >> 1);
  // A stretch begins and ends with something strange.
  const edges = strangeIn(asWritten, onsets, claps[0]?.written ?? 0).claps.flatMap((is, i) => (is ? [i] : []));
  // More than a stretch can hold is wrong: then it is no stretch.
  if (edges.length > 2 * LOST_NOTES.most) return undefined;
  for (const from of edges) {
    for (const to of edges) {
      if (from < 1 || to < from + LOST_NOTES.least - 1 || to >= from + most || to + FEWEST_AFTER >= claps.length)
        continue;
      const stretch = without(from, to);
      const glance = stretch.cost + stretch.aligner.glance(stretch.claps).cost;
      if (glance < best.cost + GLANCE_SLACK) stretches.push({ ...stretch, glance });
    }
  }
  let found: Diagnosis | undefined;
  for (const stretch of stretches.sort((a, b) => a.glance - b.glance).slice(0, 4)) {
    const rest = stretch.aligner.fit(stretch.claps);
    const cost = stretch.cost + rest.cost;
    if (cost >= (found ?? best).cost - (found ? 0 : margin)) continue;
    // The whole take is laid along the curve of what was right.
    const whole = new Aligner(onsets, free).along(claps, rest.curve);
    found = {
      ...asWritten,
      fit: whole,
      cost,
      others: [],
      lost: { from: stretch.from, to: stretch.to, gain: best.cost - cost },
    };
  }
  return found;
}
