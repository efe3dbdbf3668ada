import { EPSILON, nearlyEqual } from '../../timing/tolerance.ts';
import type { Seconds } from '../../timing/units.ts';
import { type Score, type ScoreEvent, type ScoreMeasure, isEighth } from '../scoreEvents.ts';
import type { Random } from '../../random.ts';
import { type Meter, meterKind } from '../../rhythm/meter.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { HeardSoFar, Hypothesis, SlippingTake } from './hypothesis.ts';

/** What several misreadings ask of a place in the score. */

/** The hypotheses of each event that has some. */
export function eachEvent(
  { events }: Score,
  make: (event: ScoreEvent, index: number) => Hypothesis | readonly Hypothesis[] | undefined,
): Hypothesis[] {
  return events.flatMap((event, i) => make(event, i) ?? []);
}

export function eachRest(
  score: Score,
  make: (event: ScoreEvent, index: number) => readonly Hypothesis[],
): Hypothesis[] {
  return eachEvent(score, (event, i) => (event.kind === 'rest' ? make(event, i) : undefined));
}

/** A note comes later on paper. */
export function isFollowed({ events }: Score, index: number): boolean {
  return events.some(({ kind }, i) => i > index && kind === 'note');
}

/** Something sounds from this moment on, so that it can come at the wrong time. */
export function soundsAfter({ events }: Score, moment: Seconds): boolean {
  return events.some(({ kind, time }) => kind === 'note' && time >= moment - EPSILON);
}

export function soundsIn({ events, notes }: Score, { from, to }: ScoreMeasure): boolean {
  return notes.some((i) => events[i]!.time >= from - EPSILON && events[i]!.time < to - EPSILON);
}

export function noteAt({ events }: Score, moment: Seconds): boolean {
  return events.some((event) => event.kind === 'note' && nearlyEqual(event.time, moment));
}

/** Index of the first event of a measure, which counts in playing order. */
export function firstEvent({ events }: Score, measure: number): number {
  return events.findIndex(({ played }) => played === measure);
}

/** In meters of unequal groups of eighths the beat is a part of a group, and has none itself. */
export function isBeatUndivided(meter: Meter): boolean {
  return meterKind(meter) === 'unequal' && meter.lower > LARGEST_DIVIDED;
}

/** A beat of a smaller value is a part of a group. */
const LARGEST_DIVIDED = 4;

/** The measure, in playing order, in which something is strange first. */
export function measureOf({ events, notes }: Score, { claps, first }: HeardSoFar): number {
  const written = claps.slice(first).find(({ note }) => note >= 0) ?? claps.findLast(({ note }) => note >= 0);
  return events[notes[written?.note ?? 0] ?? 0]?.played ?? 0;
}

/** The beats of a stretch of written time: its start, and each beat that starts in it. */
export function beatStarts({ time, end, beat, inBeat }: ScoreEvent): Seconds[] {
  const times = [time];
  for (let at = time + (1 - inBeat) * beat; at < end - EPSILON; at += beat) times.push(at);
  return times;
}

/** A note that is dotted and lasts one and a half beats: the dotted quarter where the quarter gets the beat. */
export function isDottedBeat({ kind, beats, division, source: { event } }: ScoreEvent): boolean {
  return kind !== 'rest' && division === 2 && event.value.dots === 1 && !event.tuplet && nearlyEqual(beats, 1.5);
}

/** Eighth, quarter, eighth from a beat on: where the middle note stands on the half. */
export function isSyncopation({ events }: Score, i: number): boolean {
  const [a, b, c] = [events[i], events[i + 1], events[i + 2]];
  return (
    a !== undefined &&
    b !== undefined &&
    c !== undefined &&
    [a, b, c].every(({ kind, division }) => kind === 'note' && division === 2) &&
    nearlyEqual(a.inBeat, 0) &&
    nearlyEqual(a.beats, 0.5) &&
    nearlyEqual(b.beats, 1) &&
    nearlyEqual(c.beats, 0.5)
  );
}

/** Pairs of eighths, the first on a beat: the sounded note of the second. */
export function eighthPairs({ events }: Score): ScoreEvent[] {
  return events.filter((event, i) => {
    const before = events[i - 1];
    return (
      event.kind === 'note' &&
      before?.kind === 'note' &&
      event.division === 2 &&
      isEighth(event) &&
      isEighth(before) &&
      nearlyEqual(before.inBeat, 0) &&
      nearlyEqual(event.inBeat, 0.5)
    );
  });
}

/** A written clap in the middle of a take, for a simulated child; undefined where the take is too short. */
export function randomPlace({ claps }: SlippingTake, random: Random): ExpectedClap | undefined {
  const written = claps.filter(({ note }) => note >= 0);
  return written.length < 7 ? undefined : written[3 + random.below(written.length - 5)];
}
