import type { Pattern } from '../rhythm/pattern.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';
import { type Schedule, scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { Aligner } from './alignment.ts';
import { USUAL_LAG } from './usualLag.ts';
import { diagnose } from './diagnose.ts';
import { type Diagnosis, baseClaps, strange } from './diagnosis.ts';
import { Follower } from './follower.ts';
import type { Hit } from './hit.ts';
import { MOST_NAMED, misreadingsIn } from './misreadingFacts.ts';
import { OWN_TEMPO_COST, ownPaces } from './ownPace.ts';
import { type Score, scoreOf } from './scoreEvents.ts';
import type { Misreading, TempoKept } from './takeResult.ts';
import { BOUNCE, BOUNCE_OF_GAP } from './windows.ts';

/** One stream of strikes, of hands or of feet, and the rhythm it is held against. */
export interface StreamRequest {
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
}

/** How a stream is explained, at the tempo of the click or at its own. */
interface Explained {
  readonly bpm: Bpm;
  readonly start: Seconds;
  readonly schedule: Schedule;
  readonly score: Score;
  /** Seconds from `start`. */
  readonly hits: readonly Hit[];
  readonly diagnosis: Diagnosis;
}

/** A stream as it was followed, and what was misread in it. */
export interface FollowedStream extends Explained {
  readonly follower: Follower;
  readonly tempo: TempoKept;
  /** What was misread, the weightiest first, a tempo of its own aside. */
  readonly named: readonly Misreading[];
  /** The same with it, at most as many as are shown. */
  readonly misreadings: readonly Misreading[];
}

/** Finds how a stream came from what is written, and follows it. */
export function followStream(request: StreamRequest): FollowedStream {
  const { bpm: set, free = false } = request;
  const found = explained(request);
  const { bpm, score, diagnosis } = found;
  const own = bpm !== set;
  const follower = new Follower(diagnosis, free);
  const kept = follower.tempo(bpm);
  // At a tempo of its own there is no lead to speak of.
  const tempo = own ? { ...kept, leadMs: 0 } : kept;
  const named = misreadingsIn(score, diagnosis, { part: follower.drift, free });
  const misreadings = own ? [ownTempo(score, tempo.bpm, set), ...named].slice(0, MOST_NAMED) : named;
  return { ...found, follower, tempo, named, misreadings };
}

function explainedAt({ pattern, onsets, free = false }: StreamRequest, bpm: Bpm, start: Seconds): Explained {
  const schedule = scheduleOf(pattern, bpm);
  const score = scoreOf(schedule);
  const hits = hitsOf(onsets, start, schedule);
  return { bpm, start, schedule, score, hits, diagnosis: diagnose(score, timesOf(hits), free) };
}

function timesOf(hits: readonly Hit[]): Float64Array {
  return Float64Array.from(hits, ({ time }) => time);
}

/** The likeliest explanation. With a click, a steady tempo of the child's own is tried too. */
function explained(request: StreamRequest): Explained {
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

/** Two onsets of one clap are one hit: the first counts. */
export function hitsOf(onsets: readonly Seconds[], start: Seconds, { notes }: Schedule): Hit[] {
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
