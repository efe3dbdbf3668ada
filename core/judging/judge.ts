import { type Fraction, ZERO, add, equal, frac } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import { beatTimes } from '../timing/pulses.ts';
import { type Schedule, scheduleOf } from '../timing/schedule.ts';
import { EPSILON } from '../timing/tolerance.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { type Diagnosis, diagnose } from './diagnose.ts';
import { type FeetResult, judgeFeet } from './feet.ts';
import { Follower } from './follower.ts';
import { heardPattern } from './heard.ts';
import type { Hit } from './hit.ts';
import { judgeHolds } from './holds.ts';
import { type MarkBorder, accuracyOf, markOf, round } from './mark.ts';
import { misreadingsIn } from './misreadingFacts.ts';
import { type Score, scoreOf } from './scoreEvents.ts';
import type { TakeResult, Verdict } from './takeResult.ts';
import { type TakeTrouble, takeTrouble } from './takeTrouble.ts';
import { judgeExtras, judgeNotes, partWithClick, straightened } from './verdicts.ts';
import { type Ages, BOUNCE, BOUNCE_OF_GAP, DEFAULT_AGES, type Windows, windowsFor } from './windows.ts';

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
}

export type Judged =
  { readonly ok: true; readonly result: TakeResult } | { readonly ok: false; readonly trouble: TakeTrouble };

/**
 * Judges a take against the written pattern: follows the child, finds what was misread, and gives every note its
 * verdict.
 * @example judge({ pattern, bpm: 60, onsets: [0, 1.02, 2, 2.98] })  // four quarters: accuracy 1, mark 4
 */
export function judge(request: TakeRequest): Judged {
  const trouble = takeTrouble(request);
  if (trouble) return { ok: false, trouble };
  const { pattern, bpm, start = 0, free = false, ages = DEFAULT_AGES } = request;
  const windows = request.windows ?? windowsFor(ages);
  const schedule = scheduleOf(pattern, bpm);
  const score = scoreOf(schedule);
  const hits = hitsOf(request.onsets, start, schedule);
  const diagnosis = diagnose(
    score,
    Float64Array.from(hits, ({ time }) => time),
    free,
  );
  const follower = new Follower(diagnosis, free);

  const judged = judgeNotes(schedule, follower, windows, hits);
  const { notes, paired } = judged;
  const extras = judgeExtras(schedule, follower, hits, paired, request.onsets);
  const count = (verdict: Verdict) => notes.filter((note) => note.verdict === verdict).length;
  const accuracy = accuracyOf(notes.length, count('on-time'), count('early') + count('late'), extras.length);
  const tempo = follower.tempo(bpm);
  const feet = feetOf(request, follower, hits, windows);
  const holds = request.releases && judgeHolds(schedule, diagnosis, paired, hits, releasesOf(request, hits, start));
  return {
    ok: true,
    result: {
      notes,
      extras,
      misreadings: misreadingsIn(score, diagnosis, follower.drift),
      tempo,
      follow: followed(score, diagnosis),
      withBeat: free ? null : round(partWithClick(schedule, follower, windows, hits), 10_000),
      heard: printRhythm(heardPattern(pattern, schedule, straightened(schedule, follower, hits, judged))),
      accuracy: round(accuracy, 10_000),
      mark: markOf(accuracy, tempo.driftPct, hits.length > 0 || notes.length === 0, request.borders),
      ...(feet ? { feet } : {}),
      ...(holds ? { holds } : {}),
    },
  };
}

/** Two onsets of one clap are one hit: the first counts. */
function hitsOf(onsets: readonly Seconds[], start: Seconds, { notes }: Schedule): Hit[] {
  const gaps = notes.map(({ time }, i) => (i === 0 ? Infinity : time - notes[i - 1]!.time));
  const shortest = gaps.reduce((least, gap) => Math.min(least, gap), Infinity);
  const limit = Math.min(BOUNCE, BOUNCE_OF_GAP * shortest);
  const hits: Hit[] = [];
  onsets.forEach((given, onset) => {
    const time = given - start;
    if (hits.length === 0 || time - hits.at(-1)!.time >= limit) hits.push({ time, onset });
  });
  return hits;
}

/** The releases of the hits that were kept: those of the first of each bounce. */
function releasesOf({ releases = [] }: TakeRequest, hits: readonly Hit[], start: Seconds): (Seconds | undefined)[] {
  return hits.map(({ onset }) => {
    const release = releases[onset];
    return typeof release === 'number' ? release - start : undefined;
  });
}

function feetOf(request: TakeRequest, follower: Follower, hits: readonly Hit[], windows: Windows) {
  const { pattern, bpm, start = 0, free = false, feet } = request;
  if (!feet) return undefined;
  const beats = beatTimes(pattern, bpm).map(({ time }) => (free ? follower.beat(time) : time));
  const result: FeetResult = judgeFeet(
    beats,
    feet.map((time) => time - start),
    hits.map(({ time }) => time),
    windows,
  );
  return result;
}

/** From which note on the child was how many beats ahead, all shifts so far added up. */
function followed({ events, notes }: Score, { hypotheses }: Diagnosis): TakeResult['follow'] {
  const shifts = hypotheses.flatMap(({ shift }) => shift ?? []).sort((a, b) => a.from - b.from);
  let ahead: Fraction = ZERO;
  const segments: { fromNote: number; beatsAhead: Fraction }[] = [];
  for (const { from, beats } of shifts) {
    // Every shift is some twelfths of a beat.
    ahead = add(ahead, frac(-Math.round(beats * 12), 12));
    const fromNote = notes.findIndex((index) => events[index]!.time >= from - EPSILON);
    if (fromNote < 0) continue;
    if (segments.at(-1)?.fromNote === fromNote) segments.pop();
    segments.push({ fromNote, beatsAhead: ahead });
  }
  return segments.filter(({ beatsAhead }, i) => !equal(beatsAhead, segments[i - 1]?.beatsAhead ?? ZERO));
}
