import { beatOf } from '../rhythm/meter.ts';
import { add, compare, div, floor, frac, mul, sub, toNumber } from '../rhythm/fraction.ts';
import { type PlayedPlace, type Schedule, type ScheduledEvent, playedPlace } from '../timing/schedule.ts';
import type { Seconds } from '../timing/units.ts';

/**
 * A moment at which a class claps, or could: a note, the beats of a rest, beats inside a long note, where nobody does.
 */
export interface Spot {
  readonly kind: 'note' | 'rest' | 'hold';
  /** Of the event among all of the schedule; a rest and a long note have several spots. */
  readonly event: number;
  /** Of the note, among the sounded ones. */
  readonly note?: number;
  readonly time: Seconds;
  readonly place: PlayedPlace;
}

/** Nearer to the next note than this part of a beat nobody would clap a held beat: it would be that note, early. */
const CLEAR_OF_NEXT = 0.6;

/** The counted beats inside an event, and its beginning where that is asked for. */
function beatsOf({ measures, whole }: Schedule, { event, measure, place, time }: ScheduledEvent, begins: boolean) {
  const beat = beatOf(measure.meter).length;
  const end = add(event.onset, event.length);
  const found = begins ? [event.onset] : [];
  for (let at = mul(frac(floor(div(event.onset, beat)) + 1), beat); compare(at, end) < 0; at = add(at, beat))
    found.push(at);
  return found.map((onset) => ({
    time: time + toNumber(sub(onset, event.onset)) * whole,
    place: playedPlace(measures, place.played, onset),
  }));
}

/** All spots of a pattern as it is played, in order. */
export function spotsOf(schedule: Schedule): Spot[] {
  const { events, notes } = schedule;
  const found = events.flatMap((event, i): Spot[] => {
    const { kind } = event.event;
    const note = notes.indexOf(event);
    const own: Spot[] = note < 0 ? [] : [{ kind: 'note', event: i, note, time: event.time, place: event.place }];
    const beats = beatsOf(schedule, event, kind !== 'note');
    return [...own, ...beats.map((at): Spot => ({ kind: kind === 'rest' ? 'rest' : 'hold', event: i, ...at }))];
  });
  const clear = (spot: Spot, i: number) => {
    if (spot.kind !== 'hold') return true;
    const { measure } = events[spot.event]!;
    const beat = beatOf(measure.meter).length;
    const next = found.slice(i + 1).find(({ kind }) => kind === 'note');
    return !next || next.time - spot.time >= CLEAR_OF_NEXT * toNumber(beat) * schedule.whole;
  };
  return found.filter(clear);
}
