import { equal, frac, toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Schedule, ScheduledEvent } from '../timing/schedule.ts';

/** A written event as the misreadings look at it. Times in seconds at the set tempo, lengths in counted beats. */
export interface ScoreEvent {
  readonly source: ScheduledEvent;
  readonly kind: 'note' | 'tied' | 'rest';
  readonly time: number;
  readonly end: number;
  /** Seconds of the counted beat here, and into how many parts it divides. */
  readonly beat: number;
  readonly division: 2 | 3;
  /** Length in counted beats; place in the beat, 0 on it. */
  readonly beats: number;
  readonly inBeat: number;
  /** Index of the sounded note it is, or belongs to; -1 for a rest. */
  readonly note: number;
  /** Index of its measure in playing order. */
  readonly played: number;
}

export interface ScoreMeasure {
  readonly number: number;
  readonly from: number;
  readonly to: number;
}

/** The whole of what is written, ready to be misread. */
export interface Score {
  readonly schedule: Schedule;
  readonly events: readonly ScoreEvent[];
  /** Indices into `events` of the sounded notes, in order. */
  readonly notes: readonly number[];
  readonly measures: readonly ScoreMeasure[];
  /** Seconds of the first counted beat, and beats in the first measure. */
  readonly beat: number;
  readonly beatsInMeasure: number;
}

const EIGHTH = frac(1, 8);
const KNOWN = new WeakMap<Schedule, Score>();

/** Prepares what is written; kept with the pattern, for a class is heard on one pattern. */
export function scoreOf(schedule: Schedule): Score {
  const known = KNOWN.get(schedule);
  if (known) return known;
  const { measures: played, whole } = schedule;
  // By position, not by measure: in a repeat the same measure is played again.
  const playedOf = played.flatMap(({ measure }, i) => measure.events.map(() => i));
  let note = -1;
  const events = schedule.events.map((source, i): ScoreEvent => {
    const { event, measure, time, end } = source;
    if (event.kind === 'note') note++;
    const beat = beatOf(measure.meter);
    const seconds = toNumber(beat.length) * whole;
    const place = toNumber(event.onset) / toNumber(beat.length);
    const inBeat = place - Math.floor(place + 1e-9);
    return {
      source,
      kind: event.kind,
      time,
      end,
      beat: seconds,
      division: beat.division,
      beats: (end - time) / seconds,
      inBeat: inBeat < 1e-9 ? 0 : inBeat,
      note: event.kind === 'rest' ? -1 : note,
      played: playedOf[i]!,
    };
  });
  const measures = played.map(({ at, measure }) => {
    const from = toNumber(at) * whole;
    return { number: measure.number, from, to: from + toNumber(measure.length) * whole };
  });
  const first = beatOf(played[0]!.measure.meter);
  const { upper, lower } = played[0]!.measure.meter;
  const written: Score = {
    schedule,
    events,
    notes: events.flatMap(({ kind }, i) => (kind === 'note' ? [i] : [])),
    measures,
    beat: toNumber(first.length) * whole,
    beatsInMeasure: upper / lower / toNumber(first.length),
  };
  KNOWN.set(schedule, written);
  return written;
}

/** A plain eighth, no part of a tuplet. */
export function isEighth({ source: { event } }: ScoreEvent): boolean {
  return !event.tuplet && equal(event.length, EIGHTH);
}
