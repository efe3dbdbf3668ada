import { type Fraction, ONE, add, div, toNumber } from '../rhythm/fraction.ts';
import { type Meter, beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedEvent, type PlacedMeasure, type PlayedMeasure, playPattern } from '../rhythm/place.ts';
import type { Bpm, Seconds } from './units.ts';

/** A place in a pattern as it is played. */
export interface PlayedPlace {
  /** Index of the measure in playing order. */
  readonly played: number;
  /** Its number on paper; the pickup is 0. */
  readonly measure: number;
  /** Which time through, from 1; absent where the measure is played only once. */
  readonly timeThrough?: number;
  /** In counted beats of its meter; the bar line is at 1. */
  readonly beat: Fraction;
}

/** A written event in playing order with its time. */
export interface ScheduledEvent {
  readonly event: PlacedEvent;
  readonly measure: PlacedMeasure;
  readonly place: PlayedPlace;
  /** From beat 1 of measure 1; a pickup is before 0. */
  readonly time: Seconds;
  readonly end: Seconds;
}

/** What should be heard: all written events of a pattern as played, repeats obeyed. */
export interface Schedule {
  readonly measures: readonly PlayedMeasure[];
  readonly events: readonly ScheduledEvent[];
  /** The sounded notes among them, in order: what is to be clapped. */
  readonly notes: readonly ScheduledEvent[];
  /** Some note starts between the halves (in compound meter the thirds) of a beat. */
  readonly fine: boolean;
  /** How long a whole note takes. */
  readonly whole: Seconds;
  /** When the written time is over. */
  readonly end: Seconds;
}

const KNOWN = new WeakMap<Pattern, { bpm: Bpm; schedule: Schedule }>();

/**
 * The written notes in seconds. A class is heard on one pattern at one tempo, so the last answer is kept with each
 * pattern.
 * @param bpm  counted beats of the first meter a minute; the whole note keeps its time through meter changes
 */
export function scheduleOf(pattern: Pattern, bpm: Bpm): Schedule {
  const known = KNOWN.get(pattern);
  if (known?.bpm === bpm) return known.schedule;
  const schedule = timed(pattern, bpm);
  KNOWN.set(pattern, { bpm, schedule });
  return schedule;
}

/** When the sound of a note is over: what is tied to it is held too. */
export function soundEnd({ events }: Schedule, note: ScheduledEvent): number {
  let last = events.indexOf(note);
  while (events[last + 1]?.event.kind === 'tied') last++;
  return events[last]!.end;
}

/**
 * Where something stands that is so far from the bar line of a played measure.
 * @param onset  part of a whole note
 */
export function playedPlace(measures: readonly PlayedMeasure[], played: number, onset: Fraction): PlayedPlace {
  const { measure, timeThrough } = measures[played]!;
  const beat = add(div(onset, beatOf(measure.meter).length), ONE);
  return timeThrough === undefined
    ? { played, measure: measure.number, beat }
    : { played, measure: measure.number, timeThrough, beat };
}

function onGrid(onset: Fraction, meter: Meter): boolean {
  const beat = beatOf(meter);
  return (div(onset, beat.length).n * beat.division) % div(onset, beat.length).d === 0;
}

function timed(pattern: Pattern, bpm: Bpm): Schedule {
  const measures = playPattern(pattern);
  const first = pattern.measures[0]!.meter;
  const whole = 60 / bpm / toNumber(beatOf(first).length);
  const seconds = (time: Fraction) => toNumber(time) * whole;
  const events: ScheduledEvent[] = [];
  measures.forEach(({ at, measure }, played) => {
    const from = seconds(at) - seconds(measure.onset);
    for (const event of measure.events) {
      const time = from + seconds(event.onset);
      const place = playedPlace(measures, played, event.onset);
      events.push({ event, measure, place, time, end: time + seconds(event.length) });
    }
  });
  const last = measures.at(-1);
  return {
    measures,
    events,
    notes: events.filter(({ event }) => event.kind === 'note'),
    fine: events.some(({ event, measure }) => !event.tuplet && !onGrid(event.onset, measure.meter)),
    whole,
    end: last ? seconds(add(last.at, last.measure.length)) : 0,
  };
}
