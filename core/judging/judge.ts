import { type Fraction, ZERO, add, equal, frac, toNumber } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import { beatTimes } from '../timing/pulses.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';
import { type PlayedPlace, type Schedule, scheduleOf } from '../timing/schedule.ts';
import { EPSILON, nearlyEqual } from '../timing/tolerance.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { Aligner } from './alignment.ts';
import { USUAL_LAG } from './usualLag.ts';
import { diagnose } from './diagnose.ts';
import { type Diagnosis, baseClaps, strange } from './diagnosis.ts';
import { type FeetResult, judgeFeet } from './feet.ts';
import type { ExtraKind } from './extras.ts';
import { Follower } from './follower.ts';
import { heardPattern } from './heard.ts';
import type { Hit } from './hit.ts';
import { judgeHolds } from './holds.ts';
import type { Stretch } from './misreadings/hypothesis.ts';
import { type MarkedTake, accuracyOf, markOf, round } from './mark.ts';
import { MOST_NAMED, misreadingsIn } from './misreadingFacts.ts';
import { MISREADINGS, isAboutTake, isOffClick } from './misreadings/table.ts';
import { OWN_TEMPO_COST, ownPaces } from './ownPace.ts';
import type { MarkBorder, Scale } from './scale.ts';
import { type Score, scoreOf } from './scoreEvents.ts';
import type { Extra, JudgedNote, Misreading, TakeResult, Verdict } from './takeResult.ts';
import { type TakeTrouble, takeTrouble } from './takeTrouble.ts';
import { judgeExtras, judgeNotes, partWithClick, straightened } from './verdicts.ts';
import { type Ages, BOUNCE, BOUNCE_OF_GAP, DEFAULT_AGES, type Windows, windowsFor } from './windows.ts';

/** A slip and what it made late, missed or too much are within so many beats. */
const NEAR_SLIP = 1.1;

export interface TakeRequest {
  /** As written: repeats are obeyed here. */
  readonly pattern: Pattern;
  /** In a free take only a first guess. */
  readonly bpm: Bpm;
  /** Rising. */
  readonly onsets: readonly Seconds[];
  /** When beat 1 of measure 1 (not of the pickup) was, on the same clock. */
  readonly start?: Seconds | undefined;
  /** There was no click: start and tempo are unknown. */
  readonly free?: boolean | undefined;
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
  const { pattern, bpm: set, free = false, ages = DEFAULT_AGES } = request;
  const windows = request.windows ?? windowsFor(ages);
  const { bpm, start, schedule, score, hits, diagnosis } = explained(request);
  const own = bpm !== set;
  const follower = new Follower(diagnosis, free);

  const judged = judgeNotes(schedule, follower, windows, hits);
  const { notes, paired } = judged;
  const extras = judgeExtras(schedule, follower, hits, paired, request.onsets, replayed(diagnosis));
  const count = (verdict: Verdict) => notes.filter((note) => note.verdict === verdict).length;
  const kept = follower.tempo(bpm);
  // At a tempo of its own there is no lead to speak of.
  const tempo = own ? { ...kept, leadMs: 0 } : kept;
  const named = misreadingsIn(score, diagnosis, { part: follower.drift, free });
  const misreadings = own ? [ownTempo(score, tempo.bpm, set), ...named].slice(0, MOST_NAMED) : named;
  const ofRhythm = named.filter((one) => !one.instead && !isAboutTake(one));
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
  const feet = feetOf(request, { bpm, start, schedule, hits }, follower, paired, windows);
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
      withBeat: free ? null : round(partWithClick(scheduleOf(pattern, set), follower.lag, windows, request), 10_000),
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

/** How a take is explained, at the tempo of the click or at its own. */
interface Explained {
  readonly bpm: Bpm;
  readonly start: Seconds;
  readonly schedule: Schedule;
  readonly score: Score;
  readonly hits: readonly Hit[];
  readonly diagnosis: Diagnosis;
}

function explainedAt({ pattern, onsets, free = false }: TakeRequest, bpm: Bpm, start: Seconds): Explained {
  const schedule = scheduleOf(pattern, bpm);
  const score = scoreOf(schedule);
  const hits = hitsOf(onsets, start, schedule);
  return { bpm, start, schedule, score, hits, diagnosis: diagnose(score, timesOf(hits), free) };
}

function timesOf(hits: readonly Hit[]): Float64Array {
  return Float64Array.from(hits, ({ time }) => time);
}

/** The likeliest explanation. With a click, a steady tempo of the child's own is tried too. */
function explained(request: TakeRequest): Explained {
  const { pattern, bpm, start = 0, free = false } = request;
  const schedule = scheduleOf(pattern, bpm);
  const hits = timesOf(hitsOf(request.onsets, start, schedule));
  const claps = baseClaps(scoreOf(schedule));
  const paces = free ? [] : ownPaces(claps, hits);
  const atOwn = paces
    .filter(({ pace }) => bpm / pace >= SLOWEST_BPM && bpm / pace <= FASTEST_BPM)
    .map(({ pace, zero, sure }) => ({ sure, at: explainedAt(request, bpm / pace, start + zero - USUAL_LAG) }))
    .filter(({ sure, at }) => sure || isPlain(at.diagnosis))
    .sort((a, b) => a.at.diagnosis.cost - b.at.diagnosis.cost)[0];
  if (
    atOwn?.sure &&
    strange(atOwn.at.diagnosis.fit) === 0 &&
    atOwn.at.diagnosis.cost + OWN_TEMPO_COST < new Aligner(hits, free).fit(claps).cost
  )
    return atOwn.at;
  const atClick = explainedAt(request, bpm, start);
  return atOwn && atOwn.at.diagnosis.cost + OWN_TEMPO_COST < atClick.diagnosis.cost ? atOwn.at : atClick;
}

/** Explained by one misreading at most: who misreads much besides a tempo of its own played something else. */
function isPlain({ hypotheses, fit, unexplained }: Diagnosis): boolean {
  return !unexplained && hypotheses.length + (fit.stopped >= 0 ? 1 : 0) <= 1;
}

function ownTempo({ events, notes }: Score, bpm: Bpm, click: Bpm): Misreading {
  const event = notes[0] ?? 0;
  const kept = { bpm: Math.round(bpm), click: Math.round(click) };
  return { code: 'own-tempo', event, ...events[event]!.source.place, kept };
}

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

/** Misreadings of the rhythm, each place, at which no note and no extra costs anything already (handbook §8). */
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

/** Two onsets of one clap are one hit: the first counts. */
function hitsOf(onsets: readonly Seconds[], start: Seconds, { notes }: Schedule): Hit[] {
  const gaps = notes.map(({ time }, i) => (i === 0 ? Infinity : time - notes[i - 1]!.time));
  const shortest = gaps.reduce((least, gap) => Math.min(least, gap), Infinity);
  const limit = Math.min(BOUNCE, BOUNCE_OF_GAP * shortest);
  const hits: Hit[] = [];
  onsets.forEach((given, onset) => {
    const time = given - start;
    const last = hits.at(-1);
    if (!last || time - last.time >= limit) hits.push({ time, onset, lastOnset: onset });
    else hits[hits.length - 1] = { ...last, lastOnset: onset };
  });
  return hits;
}

/** The releases of the hits: a key that bounced is let go when its last bounce is. */
function releasesOf({ releases = [] }: TakeRequest, hits: readonly Hit[], start: Seconds): (Seconds | undefined)[] {
  return hits.map(({ lastOnset }) => {
    const release = releases[lastOnset];
    return typeof release === 'number' ? release - start : undefined;
  });
}

function feetOf(
  { pattern, free = false, feet }: TakeRequest,
  { bpm, start, schedule, hits }: Pick<Explained, 'bpm' | 'start' | 'schedule' | 'hits'>,
  follower: Follower,
  paired: Int32Array,
  windows: Windows,
) {
  if (!feet) return undefined;
  const beats = beatTimes(pattern, bpm).map(({ time }) => {
    const note = schedule.notes.findIndex((one) => nearlyEqual(one.time, time));
    return { time: free ? follower.beat(time) : time, hand: hits[paired[note] ?? -1]?.time };
  });
  const result: FeetResult = judgeFeet(
    beats,
    feet.map((time) => time - start),
    windows,
  );
  return result;
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
