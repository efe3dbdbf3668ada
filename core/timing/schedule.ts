import { type Fraction, ONE, add, div, mixed, toNumber } from '../rhythm/fraction.ts';
import { type Meter, beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedEvent, type PlacedMeasure, type PlayedMeasure, playPattern } from '../rhythm/place.ts';

/** A written event in playing order with its time. */
export interface ScheduledEvent {
  readonly event: PlacedEvent;
  readonly measure: PlacedMeasure;
  /** In counted beats from 1: "1 1/2". */
  readonly beat: string;
  /** Seconds from beat 1 of measure 1; a pickup is before 0. */
  readonly time: number;
  readonly end: number;
}

/** What should be heard: all written events of a pattern as played, repeats obeyed. */
export interface Schedule {
  readonly measures: readonly PlayedMeasure[];
  readonly events: readonly ScheduledEvent[];
  /** The sounded notes among them, in order: what is to be clapped. */
  readonly notes: readonly ScheduledEvent[];
  /** Some note starts between the halves (in compound meter the thirds) of a beat. */
  readonly fine: boolean;
  /** Seconds a whole note takes. */
  readonly whole: number;
  /** When the written time is over. */
  readonly end: number;
}

const KNOWN = new WeakMap<Pattern, { bpm: number; expected: Schedule }>();

/**
 * The written notes in seconds. A class is heard on one pattern at one tempo, so the last answer is kept with each pattern.
 * @param bpm  counted beats of the first meter a minute; the whole note keeps its time through meter changes
 */
export function scheduleOf(pattern: Pattern, bpm: number): Schedule {
  const known = KNOWN.get(pattern);
  if (known?.bpm === bpm) return known.expected;
  const expected = timed(pattern, bpm);
  KNOWN.set(pattern, { bpm, expected });
  return expected;
}

/** When the sound of a note is over: what is tied to it is held too. */
export function soundEnd({ events }: Schedule, note: ScheduledEvent): number {
  let last = events.indexOf(note);
  while (events[last + 1]?.event.kind === 'tied') last++;
  return events[last]!.end;
}

/** "2 1/2": a place in a measure (part of a whole note from the bar line) in counted beats from 1. */
export function beatText(meter: Meter, onset: Fraction): string {
  return mixed(add(div(onset, beatOf(meter).length), ONE));
}

function onGrid(onset: Fraction, meter: Meter): boolean {
  const beat = beatOf(meter);
  return (div(onset, beat.length).n * beat.division) % div(onset, beat.length).d === 0;
}

function timed(pattern: Pattern, bpm: number): Schedule {
  const measures = playPattern(pattern);
  const first = pattern.measures[0]!.meter;
  const whole = 60 / bpm / toNumber(beatOf(first).length);
  const seconds = (time: Fraction) => toNumber(time) * whole;
  const events: ScheduledEvent[] = [];
  for (const { at, measure } of measures) {
    const from = seconds(at) - seconds(measure.onset);
    for (const event of measure.events) {
      const time = from + seconds(event.onset);
      events.push({
        event,
        measure,
        beat: beatText(measure.meter, event.onset),
        time,
        end: time + seconds(event.length),
      });
    }
  }
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
