import { heardTime } from '../timing/tempoCurve.ts';
import type { Fit } from './alignment.ts';
import type { ExpectedClap } from './expectedClap.ts';
import type { CodedHypothesis } from './misreadings/table.ts';
import type { Score } from './scoreEvents.ts';
import { LARGEST_LEAD, SAME_CLAP } from './windows.ts';

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

/** As written. */
export function baseClaps({ events, notes }: Score): ExpectedClap[] {
  return notes.map((index, note) => ({ note, written: events[index]!.time, time: events[index]!.time }));
}

/** How many notes and claps are not as they should be. */
export function strange({ missed, extras, poor }: Fit): number {
  return missed + extras + poor;
}

/** Above this unsteadiness (seconds) something may be hidden even when every note has its clap. */
export const CLEAN_SIGMA = 0.042;
/** So many notes may be missed, here and there, before a reason is looked for. */
const MISSED_PART = 0.03;

/**
 * Every clap has its note, near enough, and no further from the click than children are: then nothing can have happened
 * that moves or adds claps. A note or two inside the take that was not heard was only missed.
 */
export function isClean({ extras, before, poor, missed, stopped, sigma, hits, curve }: Fit, free: boolean): boolean {
  return (
    (free || Math.abs(curve.lag) <= LARGEST_LEAD) &&
    extras + poor === 0 &&
    stopped < 0 &&
    sigma <= CLEAN_SIGMA &&
    // Claps before the start and notes missed may be the same ones; several in a row are no oversight.
    (missed === 0 ||
      (before === 0 &&
        !hits.some((hit, i) => i > 0 && hit < 0 && hits[i - 1]! < 0) &&
        missed <= Math.max(2, MISSED_PART * hits.length) &&
        hits.at(-1)! >= 0))
  );
}

/**
 * A take is another rhythm when its best explanation leaves so many notes and claps strange, as a part of the notes,
 * and costs so much for each note and clap, but for what one misreading may cost. In simulated takes of other rhythms
 * that is 0.99 and more, in takes with a stop, a restart, a habit or a measure left out 0.77 and less.
 */
const UNEXPLAINED = { strange: 3, part: 0.12, cost: 0.85, allowed: 4 };

export function isUnexplained({ cost, fit }: Diagnosis, onsets: Float64Array): boolean {
  const size = fit.claps.length + onsets.length;
  return (
    strange(fit) >= Math.max(UNEXPLAINED.strange, UNEXPLAINED.part * fit.claps.length) &&
    cost - UNEXPLAINED.allowed > UNEXPLAINED.cost * size
  );
}

/** From so large a part of the notes and claps on it was this rhythm, whatever else was done. */
const MOSTLY = 0.72;

const rightOf = ({ hits, poor }: Fit) => hits.reduce((sum, hit) => sum + (hit >= 0 ? 1 : 0), 0) - poor;

export function isMostlyRight({ fit }: Diagnosis, onsets: Float64Array): boolean {
  return rightOf(fit) >= MOSTLY * Math.max(fit.hits.length, onsets.length);
}

/** Nearly all claps are notes, only fewer than are written; or nearly all notes have a clap, with others between. */
const ALL_OF = { part: 0.9, ofOthers: 0.45 };

export function isPartOrMore({ fit }: Diagnosis, onsets: Float64Array): boolean {
  const right = rightOf(fit);
  const [few, many] = [fit.hits.length, onsets.length].sort((a, b) => a - b) as [number, number];
  return right >= ALL_OF.part * few && right >= ALL_OF.ofOthers * many;
}

/** As it was followed, with nothing said of it. */
export function unsaid(diagnosis: Diagnosis): Diagnosis {
  return { ...diagnosis, hypotheses: diagnosis.hypotheses.map((one) => ({ ...one, silent: true as const })) };
}

/** Where something is strange under a diagnosis: claps that were missed or are far off, and stray claps. */
export interface Strange {
  /** For each expected clap, by time. */
  readonly claps: readonly boolean[];
  /** Written times of the first and last strange thing. */
  readonly first: number;
  readonly last: number;
  /** Moments of the stray claps. */
  readonly stray: readonly number[];
}

const FAR_OFF = 2.5;
/** Seconds before the first expected clap. */
const NO_NOTE_YET = 0.25;

/** @param written  when the first thing is written */
export function strangeIn({ fit }: Diagnosis, onsets: Float64Array, written: number): Strange {
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
