import { barCheck, barSentence } from '../rhythm/barCheck.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import { type Alignment, type Tolerance, align, tolerances } from './align.ts';
import { type Expected, beatText, expectedOf } from './expected.ts';
import { type ExtraKind, extraKind, spotAt } from './extras.ts';
import { heardPattern } from './heard.ts';
import { type MarkBorder, accuracyOf, markOf } from './mark.ts';
import { type Course, STEADY, fitCourse, straighten } from './tempo.ts';
import { type Ages, BOUNCE, BOUNCE_OF_GAP, DEFAULT_AGES, LARGEST_LEAD, type Windows, windowsFor } from './windows.ts';

export type Verdict = 'on-time' | 'early' | 'late' | 'missed';

export interface JudgedNote {
  /** Counts the sounded notes from 0 in playing order. */
  readonly index: number;
  readonly measure: number;
  /** "1 1/2": in counted beats from 1. */
  readonly beat: string;
  readonly verdict: Verdict;
  /** Late is positive; lead and drift taken off. Absent when missed. */
  readonly errorMs?: number;
}

export interface Extra {
  /** Seconds, as it was given. */
  readonly time: number;
  readonly measure: number;
  readonly beat: string;
  readonly kind: ExtraKind;
}

export interface Misreading {
  readonly code: string;
  readonly measure: number;
  readonly beat: string;
  readonly sentence: string;
}

export interface TakeResult {
  readonly notes: readonly JudgedNote[];
  readonly extras: readonly Extra[];
  readonly misreadings: readonly Misreading[];
  readonly tempo: {
    /** Counted beats a minute as played, on average. */
    readonly bpm: number;
    /** Change from the first to the last note; faster is positive. */
    readonly driftPct: number;
    readonly spreadMs: number;
    /** Ahead of the click is positive. */
    readonly leadMs: number;
  };
  /** From which note the child is how many beats ahead. */
  readonly follow: readonly { readonly fromNote: number; readonly beatsAhead: string }[];
  /** The take as rhythm text. */
  readonly heard: string;
  readonly accuracy: number;
  readonly mark: number;
}

export interface TakeRequest {
  readonly pattern: Pattern;
  /** Counted beats a minute. */
  readonly bpm: number;
  /** Seconds, rising. */
  readonly onsets: readonly number[];
  /** When beat 1 of measure 1 (not of the pickup) was, in the same seconds. */
  readonly start?: number | undefined;
  readonly ages?: Ages | undefined;
  readonly windows?: Windows | undefined;
  readonly borders?: readonly MarkBorder[] | undefined;
}

export type Judged = { readonly ok: true; readonly result: TakeResult } | { readonly ok: false; readonly reason: string };

export const SLOWEST_BPM = 10;
export const FASTEST_BPM = 400;
export const MOST_ONSETS = 20_000;

/** Why a take cannot be judged, in one sentence; undefined when it can. */
export function takeTrouble({ pattern, bpm, onsets, start = 0 }: TakeRequest): string | undefined {
  if (!(bpm >= SLOWEST_BPM && bpm <= FASTEST_BPM)) return `the tempo must be from ${SLOWEST_BPM} to ${FASTEST_BPM} beats a minute`;
  if (!Number.isFinite(start)) return 'the start must be a number of seconds';
  if (onsets.length > MOST_ONSETS) return `a take has at most ${MOST_ONSETS} onsets; this one has ${onsets.length}`;
  if (!onsets.every((time) => Number.isFinite(time))) return 'every onset must be a number of seconds';
  if (onsets.some((time, i) => i > 0 && time < onsets[i - 1]!)) return 'the onsets must be sorted, earliest first';
  const bad = barCheck(pattern).map(barSentence).find((sentence) => sentence !== undefined);
  return bad && `the pattern does not add up: ${bad}`;
}

/**
 * Judges a take that was played to a click against the written pattern.
 * @example judge({ pattern, bpm: 60, onsets: [0, 1.02, 2, 2.98] })  // four quarters: accuracy 1, mark 4
 */
export function judge(request: TakeRequest): Judged {
  const reason = takeTrouble(request);
  if (reason !== undefined) return { ok: false, reason };
  const { pattern, bpm, start = 0, ages = DEFAULT_AGES } = request;
  const expected = expectedOf(pattern, bpm);
  const times = expected.notes.map(({ time }) => time);
  const windows = tolerances(times, request.windows ?? windowsFor(ages));
  const hits = mergeBounces(request.onsets.map((onset) => onset - start), shortestGap(times));
  const { course, straight, alignment } = followTempo(times, windows, hits);
  const notes = expected.notes.map(({ beat, measure }, index): JudgedNote => {
    const hit = alignment.hits[index]!;
    if (hit < 0) return { index, measure: measure.number, beat, verdict: 'missed' };
    const error = straight[hit]! - times[index]!;
    return { index, measure: measure.number, beat, verdict: verdictOf(error, windows[index]!), errorMs: round(error * 1000, 10) };
  });
  const extras = extrasOf(expected, hits, straight, alignment, start);
  const count = (verdict: Verdict) => notes.filter((note) => note.verdict === verdict).length;
  const accuracy = accuracyOf(notes.length, count('on-time'), count('early') + count('late'), extras.length);
  const driftPct = round(course.drift * 100, 10);
  return {
    ok: true,
    result: {
      notes,
      extras,
      misreadings: [],
      tempo: { bpm: round(bpm * (1 + course.drift / 2), 10), driftPct, spreadMs: round(course.spread * 1000, 10), leadMs: round(-course.lag * 1000, 10) },
      follow: [],
      heard: printRhythm(heardPattern(pattern, expected, snapped(times, straight, alignment, notes))),
      accuracy: round(accuracy, 10_000),
      mark: markOf(accuracy, driftPct, hits.length > 0 || notes.length === 0, request.borders),
    },
  };
}

/** Rounded to a part, and never minus zero. */
function round(value: number, parts: number): number {
  return Math.round(value * parts) / parts || 0;
}

function verdictOf(error: number, { onTime }: Tolerance): Verdict {
  const early = error < 0;
  return Math.abs(error) <= (early ? onTime.early : onTime.late) + 1e-9 ? 'on-time' : early ? 'early' : 'late';
}

function shortestGap(times: readonly number[]): number {
  return times.reduce((gap, time, i) => (i === 0 ? gap : Math.min(gap, time - times[i - 1]!)), Infinity);
}

/** Two hits of one clap are one: the first counts. */
function mergeBounces(hits: readonly number[], gap: number): number[] {
  const limit = Math.min(BOUNCE, BOUNCE_OF_GAP * gap);
  const merged: number[] = [];
  for (const hit of hits) if (merged.length === 0 || hit - merged.at(-1)! >= limit) merged.push(hit);
  return merged;
}

/** Leads tried first: a class of eager clappers may be so far ahead that short notes would pair with their neighbours. */
const FIRST_LAGS = [0, -LARGEST_LEAD * 0.75, LARGEST_LEAD * 0.75];
const ROUNDS = 3;

interface Followed {
  readonly course: Course;
  /** Hits by the click, lead and drift taken off. */
  readonly straight: readonly number[];
  readonly alignment: Alignment;
}

/** Pairs, fits lead and drift, pairs again; of several beginnings the one that pairs best. */
function followTempo(times: readonly number[], windows: readonly Tolerance[], hits: readonly number[]): Followed {
  let best: Followed | undefined;
  for (const lag of FIRST_LAGS) {
    const next = followFrom(lag, times, windows, hits);
    if (!best || next.alignment.score > best.alignment.score + 1e-6) best = next;
    // Every hit is a note and every note has its hit: no other beginning pairs better.
    if (hits.length === times.length && !next.alignment.hits.includes(-1)) return next;
  }
  return best!;
}

function followFrom(lag: number, times: readonly number[], windows: readonly Tolerance[], hits: readonly number[]): Followed {
  const start = times[0] ?? 0;
  const length = (times.at(-1) ?? 0) - start;
  let course: Course = { ...STEADY, lag };
  let straight = hits.map((hit) => straighten(hit, course, start, length));
  let alignment = align(times, windows, straight);
  for (let round = 1; round < ROUNDS; round++) {
    const pairs: { time: number; hit: number }[] = [];
    for (let i = 0; i < times.length; i++) if (alignment.hits[i]! >= 0) pairs.push({ time: times[i]!, hit: hits[alignment.hits[i]!]! });
    course = fitCourse(pairs, start, length);
    straight = hits.map((hit) => straighten(hit, course, start, length));
    alignment = align(times, windows, straight);
  }
  return { course, straight, alignment };
}

function extrasOf(expected: Expected, hits: readonly number[], straight: readonly number[], alignment: Alignment, start: number): Extra[] {
  const paired = new Set(alignment.hits);
  let counted = -Infinity;
  const extras: Extra[] = [];
  straight.forEach((time, i) => {
    if (paired.has(i)) {
      counted = time;
      return;
    }
    const spot = spotAt(expected, time) ?? edgeSpot(expected, time);
    extras.push({
      time: hits[i]! + start,
      measure: spot.played.measure.number,
      beat: beatText(spot.played.measure.meter, spot.onset),
      kind: extraKind(expected, time, counted),
    });
  });
  return extras;
}

/** Before the first written time the beginning, after the last the end. */
function edgeSpot({ measures, end }: Expected, time: number) {
  const played = time >= end / 2 ? measures.at(-1)! : measures[0]!;
  const events = played.measure.events;
  return { played, onset: (time >= end / 2 ? events.at(-1) : events[0])?.onset ?? played.measure.onset };
}

/** For writing out what was heard: notes that counted as on time stand exactly at their place. */
function snapped(times: readonly number[], straight: readonly number[], alignment: Alignment, notes: readonly JudgedNote[]): number[] {
  const at = [...straight];
  notes.forEach(({ verdict, index }) => {
    if (verdict === 'on-time') at[alignment.hits[index]!] = times[index]!;
  });
  return at.sort((a, b) => a - b);
}
