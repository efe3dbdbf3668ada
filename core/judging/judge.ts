import { type Fraction, ZERO, add, equal, frac, toNumber } from '../rhythm/fraction.ts';
import { printRhythm } from '../rhythm/text.ts';
import { type PlayedPlace, scheduleOf } from '../timing/schedule.ts';
import { EPSILON, nearlyEqual } from '../timing/tolerance.ts';
import type { Seconds } from '../timing/units.ts';
import type { Diagnosis } from './diagnosis.ts';
import type { ExtraKind } from './extras.ts';
import { judgeFeet } from './feet.ts';
import { heardPattern } from './heard.ts';
import type { Hit } from './hit.ts';
import { judgeHolds } from './holds.ts';
import { type MarkedTake, accuracyOf, markOf, round } from './mark.ts';
import { MOST_NAMED } from './misreadingFacts.ts';
import type { Stretch } from './misreadings/hypothesis.ts';
import { MISREADINGS, isAboutTake, isOffClick } from './misreadings/table.ts';
import { offStretch } from './offStretch.ts';
import type { MarkBorder, Scale } from './scale.ts';
import type { Score } from './scoreEvents.ts';
import { type StreamRequest, followStream } from './stream.ts';
import type { Extra, JudgedNote, Misreading, TakeResult, Verdict } from './takeResult.ts';
import { type TakeTrouble, takeTrouble } from './takeTrouble.ts';
import { judgeExtras, judgeNotes, partWithClick, straightened } from './verdicts.ts';
import { type Ages, DEFAULT_AGES, type Windows, windowsFor } from './windows.ts';

/** A slip and what it made late, missed or too much are within so many beats. */
const NEAR_SLIP = 1.1;

export interface TakeRequest extends StreamRequest {
  /** The second stream: steps on the beat, rising. */
  readonly feet?: readonly Seconds[] | undefined;
  /** For each onset when the key or finger was lifted, null where that is not known; judged apart. */
  readonly releases?: readonly (Seconds | null)[] | undefined;
  readonly ages?: Ages | undefined;
  readonly windows?: Windows | undefined;
  readonly borders?: readonly MarkBorder[] | undefined;
  readonly scale?: Scale | undefined;
  /** Keeping the click counts too: an own, half or double tempo or a wrong entry lowers the mark by one. */
  readonly clickCounts?: boolean | undefined;
}

export type Judged =
  | { readonly ok: true; readonly result: TakeResult }
  | { readonly ok: false; readonly trouble: TakeTrouble };

/**
 * Judges a take against the written pattern: follows the child, finds what was misread, and gives every note its
 * verdict.
 * @example judge({ pattern, bpm: 60, onsets: [0, 1.02, 2, 2.98] })  // four quarters: accuracy 1, mark 4
 */
export function judge(request: TakeRequest): Judged {
  const trouble = takeTrouble(request);
  if (trouble) return { ok: false, trouble };
  const { pattern, bpm, free = false, ages = DEFAULT_AGES } = request;
  const windows = request.windows ?? windowsFor(ages);
  const hands = followStream(request);
  const { start, schedule, score, hits, diagnosis, follower, tempo } = hands;

  const judged = judgeNotes(schedule, follower, windows, hits);
  const { notes, paired } = judged;
  const extras = judgeExtras(schedule, follower, hits, paired, request.onsets, replayed(diagnosis));
  const count = (verdict: Verdict) => notes.filter((note) => note.verdict === verdict).length;
  const off = offStretch(notes, score, hands.misreadings);
  const misreadings = off ? [off, ...hands.misreadings].slice(0, MOST_NAMED) : hands.misreadings;
  const ofRhythm = (off ? [off, ...hands.named] : hands.named).filter((one) => !one.instead && !isAboutTake(one));
  const slips = unpaidSlips(ofRhythm, notes, extras);
  const offClick = request.clickCounts === true && misreadings.some((one) => !one.instead && isOffClick(one));
  const accuracy = accuracyOf(notes.length, count('on-time'), count('early') + count('late'), extras.length, slips);
  const marked: MarkedTake = {
    heard: hits.length > 0 || notes.length === 0,
    flawed: ofRhythm.length > 0 || count('missed') > 0 || extras.some(({ kind }) => !BESIDE.has(kind)),
    offClick,
    borders: request.borders,
    scale: request.scale,
    free,
  };
  const straight = straightened(schedule, follower, hits, judged);
  const feet = request.feet && judgeFeet({ ...request, feet: request.feet, windows }, hands, paired);
  const holds = request.releases && judgeHolds(schedule, diagnosis, paired, hits, releasesOf(request, hits, start));
  return {
    ok: true,
    result: {
      notes,
      extras,
      misreadings,
      slips,
      tempo,
      follow: followed(score, diagnosis),
      withBeat: free ? null : round(partWithClick(scheduleOf(pattern, bpm), follower.lag, windows, request), 10_000),
      heard: printRhythm(heardPattern(pattern, schedule, straight, dividedIn(diagnosis))),
      accuracy: round(accuracy, 10_000),
      mark: markOf(accuracy, tempo.driftPct, marked),
      ...(offClick ? { offClick, withoutClick: markOf(accuracy, tempo.driftPct, { ...marked, offClick: false }) } : {}),
      ...(feet ? { feet } : {}),
      ...(holds ? { holds } : {}),
    },
  };
}

/** Claps that are not among the notes: the rhythm is right all the same. */
const BESIDE: ReadonlySet<ExtraKind> = new Set(['bounce', 'before', 'after']);

/** Where a beat was divided otherwise: what was heard there is written as it was clapped. */
function dividedIn({ hypotheses }: Diagnosis): Stretch[] {
  return hypotheses.flatMap(({ code, within, silent }) =>
    code === 'beat-misread' && within && !silent ? [within] : [],
  );
}

/** Indices of the hits of a run that broke off, or of a measure played once too often. */
function replayed({ fit: { claps, hits } }: Diagnosis): ReadonlySet<number> {
  return new Set(claps.flatMap((clap, i) => (clap.replayed && hits[i]! >= 0 ? [hits[i]!] : [])));
}

/** Misreadings of the rhythm, each place, at which no note and no extra costs anything already (rules §8). */
function unpaidSlips(
  misreadings: readonly Misreading[],
  notes: readonly JudgedNote[],
  extras: readonly Extra[],
): number {
  const paid = [...notes.filter(({ verdict }) => verdict !== 'on-time'), ...extras];
  const places = misreadings.flatMap((misreading) => [misreading, ...(misreading.again ?? [])]);
  // What a slip moves or adds is heard within the beats after it.
  const near = (place: PlayedPlace, other: PlayedPlace) => {
    const beats = toNumber(other.beat) - toNumber(place.beat);
    return other.played === place.played && beats >= 0 && beats < NEAR_SLIP;
  };
  return places.filter((place) => !paid.some((other) => near(place, other))).length;
}

/** The releases of the hits: a key that bounced is let go when its last bounce is. */
function releasesOf({ releases = [] }: TakeRequest, hits: readonly Hit[], start: Seconds): (Seconds | undefined)[] {
  return hits.map(({ lastOnset }) => {
    const release = releases[lastOnset];
    return typeof release === 'number' ? release - start : undefined;
  });
}

/** From which note on the child was how many beats ahead, all shifts so far added up. */
function followed({ events, notes }: Score, { hypotheses }: Diagnosis): TakeResult['follow'] {
  const shifts = hypotheses
    .filter(({ code }) => !MISREADINGS[code].ofRhythmOnly)
    .flatMap(({ shift }) => shift ?? [])
    .sort((a, b) => a.from - b.from);
  let ahead: Fraction = ZERO;
  const segments: { fromNote: number; beatsAhead: Fraction }[] = [];
  for (const { from, beats } of shifts) {
    // What is misread is some twelfths of a beat; a stop is as long as it is, and said in halves.
    const parts = nearlyEqual(beats * 12, Math.round(beats * 12)) ? 12 : 2;
    ahead = add(ahead, frac(-Math.round(beats * parts), parts));
    const fromNote = notes.findIndex((index) => events[index]!.time >= from - EPSILON);
    if (fromNote < 0) continue;
    if (segments.at(-1)?.fromNote === fromNote) segments.pop();
    segments.push({ fromNote, beatsAhead: ahead });
  }
  return segments.filter(({ beatsAhead }, i) => !equal(beatsAhead, segments[i - 1]?.beatsAhead ?? ZERO));
}
