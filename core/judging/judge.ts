import { EPSILON } from '../timing/tolerance.ts';
import { type Verdict, type JudgedNote, type Extra, type TakeResult } from './takeResult.ts';
import { SLOWEST_BPM, FASTEST_BPM, MOST_ONSETS } from '../timing/limits.ts';
import { barCheck, barSentence } from '../rhythm/barCheck.ts';
import { type Fraction, add, frac, mixed } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import { pairHits, tolerances } from './pairHits.ts';
import { type Schedule, beatText, scheduleOf } from '../timing/schedule.ts';
import { type Diagnosis, diagnose } from './diagnose.ts';
import { extraKind, spotAt } from './extras.ts';
import { Follower } from './follower.ts';
import { heardPattern } from './heard.ts';
import { type MarkBorder, accuracyOf, markOf, round } from './mark.ts';
import { namedIn } from './misreadingFacts.ts';
import { judgeHolds } from './holds.ts';
import type { Speech } from '../wording/misreadingWords.ts';
import { judgeFeet } from './feet.ts';
import { type Ages, BOUNCE, BOUNCE_OF_GAP, DEFAULT_AGES, type Windows, verdictOf, windowsFor } from './windows.ts';
import { type Score, scoreOf } from './scoreEvents.ts';
import { beatTimes } from '../timing/pulses.ts';

export interface TakeRequest {
  readonly pattern: Pattern;
  /** Counted beats a minute; in a free take only a first guess. */
  readonly bpm: number;
  /** Seconds, rising. */
  readonly onsets: readonly number[];
  /** When beat 1 of measure 1 (not of the pickup) was, in the same seconds. */
  readonly start?: number | undefined;
  /** There was no click: start and tempo are unknown. */
  readonly free?: boolean | undefined;
  /** The second stream: steps on the beat, seconds, rising. */
  readonly feet?: readonly number[] | undefined;
  /** For each onset the second at which the key or finger was lifted, null where that is not known; judged apart. */
  readonly releases?: readonly (number | null)[] | undefined;
  readonly ages?: Ages | undefined;
  readonly windows?: Windows | undefined;
  readonly borders?: readonly MarkBorder[] | undefined;
  readonly speech?: Speech | undefined;
}

export type Judged =
  { readonly ok: true; readonly result: TakeResult } | { readonly ok: false; readonly reason: string };

/** Why a take cannot be judged, in one sentence; undefined when it can. */
export function takeTrouble({ pattern, bpm, onsets, start = 0, feet = [], releases }: TakeRequest): string | undefined {
  if (!(bpm >= SLOWEST_BPM && bpm <= FASTEST_BPM))
    return `the tempo must be from ${SLOWEST_BPM} to ${FASTEST_BPM} beats a minute`;
  if (!Number.isFinite(start)) return 'the start must be a number of seconds';
  if (onsets.length > MOST_ONSETS) return `a take has at most ${MOST_ONSETS} onsets; this one has ${onsets.length}`;
  if (!onsets.every((time) => Number.isFinite(time))) return 'every onset must be a number of seconds';
  if (onsets.some((time, i) => i > 0 && time < onsets[i - 1]!)) return 'the onsets must be sorted, earliest first';
  if (feet.length > MOST_ONSETS || !feet.every(Number.isFinite) || feet.some((time, i) => i > 0 && time < feet[i - 1]!))
    return 'the steps must be sorted numbers of seconds';
  if (
    releases &&
    (releases.length !== onsets.length || !releases.every((time, i) => time === null || time >= onsets[i]!))
  )
    return 'every onset needs its release, not before it (null where it is not known)';
  const bad = barCheck(pattern)
    .map(barSentence)
    .find((sentence) => sentence !== undefined);
  return bad && `the pattern does not add up: ${bad}`;
}

/**
 * Judges a take against the written pattern: follows the child, names what was misread, and gives every note its verdict.
 * @example judge({ pattern, bpm: 60, onsets: [0, 1.02, 2, 2.98] })  // four quarters: accuracy 1, mark 4
 */
export function judge(request: TakeRequest): Judged {
  const reason = takeTrouble(request);
  if (reason !== undefined) return { ok: false, reason };
  const { pattern, bpm, start = 0, free = false, ages = DEFAULT_AGES } = request;
  const expected = scheduleOf(pattern, bpm);
  const written = scoreOf(expected);
  const hits = mergeBounces(
    request.onsets.map((onset) => onset - start),
    shortestGap(expected.notes.map(({ time }) => time)),
  );
  const diagnosis = diagnose(written, Float64Array.from(hits), free);
  const follower = new Follower(written, diagnosis, free);
  const windows = request.windows ?? windowsFor(ages);

  const { notes, paired } = verdicts(expected, follower, windows, hits);
  const extras = extrasOf(expected, follower, hits, paired, start);
  const count = (verdict: Verdict) => notes.filter((note) => note.verdict === verdict).length;
  const accuracy = accuracyOf(notes.length, count('on-time'), count('early') + count('late'), extras.length);
  const tempo = follower.tempo(bpm);
  const feet =
    request.feet &&
    judgeFeet(
      beatTimes(pattern, bpm).map(({ time }) => (free ? follower.beat(time) : time)),
      request.feet.map((time) => time - start),
      hits,
      windows,
    );
  const holds = request.releases && judgeHolds(expected, diagnosis, paired, hits, releasesOf(request, hits, start));
  return {
    ok: true,
    result: {
      notes,
      extras,
      misreadings: namedIn(pattern, written, diagnosis, follower, request.speech ?? {}),
      tempo,
      follow: followed(written, diagnosis),
      withBeat: free ? null : round(withClick(expected, follower, windows, hits), 10_000),
      heard: printRhythm(heardPattern(pattern, expected, straightened(expected, follower, hits, paired, notes))),
      accuracy: round(accuracy, 10_000),
      mark: markOf(accuracy, tempo.driftPct, hits.length > 0 || notes.length === 0, request.borders),
      ...(feet ? { feet } : {}),
      ...(holds ? { holds } : {}),
    },
  };
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

/** The releases of the hits that were kept: those of the first of each bounce. */
function releasesOf(
  { onsets, releases = [] }: TakeRequest,
  hits: readonly number[],
  start: number,
): (number | undefined)[] {
  let at = 0;
  return hits.map((hit) => {
    while (onsets[at]! - start < hit) at++;
    const release = releases[at];
    return typeof release === 'number' ? release - start : undefined;
  });
}

/** Each note where the child was followed to; `paired` gives each note's hit or -1. */
function verdicts(
  expected: Schedule,
  follower: Follower,
  windows: Windows,
  hits: readonly number[],
): { notes: JudgedNote[]; paired: Int32Array } {
  const due = expected.notes
    .map(({ time }, i) => (follower.leftOut(time) ? undefined : { note: i, at: follower.heard(time) }))
    .filter((note) => note !== undefined)
    .sort((a, b) => a.at - b.at);
  const times = due.map(({ at }) => at);
  const near = tolerances(times, windows);
  const alignment = pairHits(times, near, hits);
  const paired = new Int32Array(expected.notes.length).fill(-1);
  const errors = new Map<number, { error: number; verdict: Verdict }>();
  due.forEach(({ note, at }, i) => {
    const hit = alignment.hits[i]!;
    if (hit < 0) return;
    paired[note] = hit;
    const error = hits[hit]! - at;
    errors.set(note, { error, verdict: verdictOf(error, near[i]!.onTime) });
  });
  const notes = expected.notes.map(({ beat, measure }, index): JudgedNote => {
    const found = errors.get(index);
    return found
      ? { index, measure: measure.number, beat, verdict: found.verdict, errorMs: round(found.error * 1000, 10) }
      : { index, measure: measure.number, beat, verdict: 'missed' };
  });
  return { notes, paired };
}

function extrasOf(
  expected: Schedule,
  follower: Follower,
  hits: readonly number[],
  paired: Int32Array,
  start: number,
): Extra[] {
  const used = new Set(paired);
  let counted = -Infinity;
  const extras: Extra[] = [];
  hits.forEach((hit, i) => {
    if (used.has(i)) {
      counted = hit;
      return;
    }
    const time = follower.written(hit);
    const spot = spotAt(expected, time) ?? edgeSpot(expected, time);
    extras.push({
      time: hit + start,
      measure: spot.played.measure.number,
      beat: beatText(spot.played.measure.meter, spot.onset),
      kind: extraKind(expected, time, hit - counted),
    });
  });
  return extras;
}

/** Before the first written time the beginning, after the last the end. */
function edgeSpot({ measures, end }: Schedule, time: number) {
  const played = time >= end / 2 ? measures.at(-1)! : measures[0]!;
  const events = played.measure.events;
  return { played, onset: (time >= end / 2 ? events.at(-1) : events[0])?.onset ?? played.measure.onset };
}

/** From which note on the child was how many beats ahead, all shifts so far added up. */
function followed({ events, notes }: Score, { hypotheses }: Diagnosis): TakeResult['follow'] {
  const shifts = hypotheses.flatMap(({ shift }) => shift ?? []).sort((a, b) => a.from - b.from);
  let ahead: Fraction = frac(0);
  const segments: { fromNote: number; beatsAhead: string }[] = [];
  for (const { from, beats } of shifts) {
    // Every shift is some twelfths of a beat.
    ahead = add(ahead, frac(-Math.round(beats * 12), 12));
    const fromNote = notes.findIndex((index) => events[index]!.time >= from - EPSILON);
    if (fromNote < 0) continue;
    if (segments.at(-1)?.fromNote === fromNote) segments.pop();
    segments.push({ fromNote, beatsAhead: mixed(ahead) });
  }
  return segments.filter(({ beatsAhead }, i) => beatsAhead !== (segments[i - 1]?.beatsAhead ?? '0'));
}

/** Part of the notes that came with the click, only the steady lead taken off. */
function withClick(expected: Schedule, follower: Follower, windows: Windows, hits: readonly number[]): number {
  if (expected.notes.length === 0) return hits.length === 0 ? 1 : 0;
  const times = expected.notes.map(({ time }) => time + follower.lag);
  const near = tolerances(times, windows);
  const alignment = pairHits(times, near, hits);
  const with_ = times.filter(
    (time, i) => alignment.hits[i]! >= 0 && verdictOf(hits[alignment.hits[i]!]! - time, near[i]!.onTime) === 'on-time',
  );
  return with_.length / times.length;
}

/** For writing out what was heard: by the written clock, tempo and a late start taken off; what was on time where it is written stands just there. */
function straightened(
  expected: Schedule,
  follower: Follower,
  hits: readonly number[],
  paired: Int32Array,
  notes: readonly JudgedNote[],
): number[] {
  const at = hits.map((hit) => follower.straight(hit));
  notes.forEach(({ verdict, index }) => {
    const { time } = expected.notes[index]!;
    if (verdict === 'on-time' && Math.abs(follower.unshifted(time) - time) < EPSILON) at[paired[index]!] = time;
  });
  return at.sort((a, b) => a - b);
}
