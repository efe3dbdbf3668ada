import { toNumber } from '../../rhythm/fraction.ts';
import { type Meter, beamGroups, meterKind } from '../../rhythm/meter.ts';
import { valueText } from '../../rhythm/value.ts';
import { EPSILON, nearlyEqual } from '../../timing/tolerance.ts';
import type { Beats, Seconds } from '../../timing/units.ts';
import type { Score, ScoreEvent } from '../scoreEvents.ts';
import { cellText } from './beatCells.ts';
import { type Hypothesis, type MisreadingKind, adding, habitOf, moved } from './hypothesis.ts';
import { eachEvent, firstEvent, isBeatUndivided } from './writtenPlaces.ts';

/**
 * Nats. A clap that is merely far off costs four; one that comes just where another division of the beat has it is
 * likelier to be meant. Where a clap is missing or added as well, more must speak for it.
 */
const COST = { same: 2.9, other: 4.7, turned: 4.2, habit: 1.6, each: 0.35 };

/** Seconds. */
const HEARD = 0.11;

/** Where the claps of a beat can be, in beats, by how it divides. */
const DIVISIONS: Readonly<Record<2 | 3, readonly (readonly Beats[])[]>> = {
  2: [
    [0, 1 / 2],
    [0, 3 / 4],
    [0, 1 / 4],
    [0, 1 / 2, 3 / 4],
    [0, 1 / 4, 1 / 2],
    [0, 1 / 4, 3 / 4],
    [0, 1 / 4, 1 / 2, 3 / 4],
  ],
  3: [
    [0, 2 / 3],
    [0, 1 / 3],
    [0, 1 / 2],
    [0, 1 / 3, 2 / 3],
  ],
};

/** The notes that fill one beat, from its beginning; undefined where a rest, a tie or a longer note stands in it. */
function beatFrom({ events }: Score, first: number): readonly ScoreEvent[] | undefined {
  const cell: ScoreEvent[] = [];
  let beats = 0;
  for (let i = first; beats < 1 - EPSILON; i++) {
    const event = events[i];
    if (!event || event.kind !== 'note' || event.source.event.tiedToNext) return undefined;
    cell.push(event);
    beats += event.beats;
  }
  return cell.length > 1 && nearlyEqual(beats, 1) ? cell : undefined;
}

/** All but one of some places, so that those left are nearest to others. */
function withoutOne(places: readonly Beats[], others: readonly Beats[]): number {
  const far = places.map((_place, gone) =>
    places.filter((_p, i) => i !== gone).reduce((sum, place, i) => sum + Math.abs(place - others[i]!), 0),
  );
  return far.indexOf(Math.min(...far));
}

/** The claps of a beat divided otherwise. */
function divided(cell: readonly ScoreEvent[], at: readonly Beats[]): Hypothesis['apply'] {
  const [{ time, beat }] = cell as [ScoreEvent];
  const written = cell.map((event) => (event.time - time) / beat);
  const later = (notes: readonly ScoreEvent[], places: readonly Beats[]): ReadonlyMap<number, Seconds> =>
    new Map(notes.map((event, i) => [event.note, time + places[i]! * beat - event.time]));
  if (at.length === cell.length) {
    const by = later(cell, at);
    return (claps) => moved(claps, by);
  }
  if (at.length < cell.length) {
    const gone = withoutOne(written, at);
    const by = later(
      cell.filter((_event, i) => i !== gone),
      at,
    );
    return (claps) => moved(claps, by).filter(({ note }) => note !== cell[gone]!.note);
  }
  const more = withoutOne(at, written);
  const by = later(
    cell,
    at.filter((_place, i) => i !== more),
  );
  const added = adding(0, 0, [time + at[more]! * beat]);
  return (claps) => moved(added.apply(claps), by);
}

/** Every other way to divide a beat that has nearly as many claps. */
function otherwise(score: Score, event: ScoreEvent, i: number): Hypothesis[] {
  const { meter } = event.source.measure;
  // In meters of unequal groups of eighths a beat has no parts; there the groups are turned.
  if (!nearlyEqual(event.inBeat, 0) || isBeatUndivided(meter)) return [];
  const cell = beatFrom(score, i);
  if (!cell) return [];
  const written = cell.map(({ time }) => (time - event.time) / event.beat);
  return DIVISIONS[event.division].flatMap((at): Hypothesis[] => {
    if (Math.abs(at.length - cell.length) > 1) return [];
    // Where only a clap is missing, it was left out and nothing else.
    if (at.every((place) => written.some((one) => nearlyEqual(one, place))) && at.length <= cell.length) return [];
    // Moved by so little nobody hears another rhythm.
    const moves = at.length === cell.length ? at.map((place, k) => Math.abs(place - written[k]!)) : [1];
    if (Math.max(...moves) * event.beat < HEARD) return [];
    const as = cellText(meter, at);
    return [
      {
        event: i,
        cost: at.length === cell.length ? COST.same : COST.other,
        apply: divided(cell, at),
        as,
        way: `${cellText(meter, written)} ${as}`,
        within: { from: event.time, to: event.time + event.beat },
      },
    ];
  });
}

/** Orders of the groups of a measure but their own. */
function turns(groups: readonly number[]): number[][] {
  const indices = groups.map((_group, i) => i);
  const own = groups.join(' ');
  const seen = new Set([own]);
  return indices
    .map((_i, by) => [...indices.slice(by), ...indices.slice(0, by)])
    .filter((order) => {
      const key = order.map((i) => groups[i]).join(' ');
      return seen.size < seen.add(key).size;
    });
}

/** The groups of an unequal measure, each beginning with a note, turned round. */
function turned(score: Score, played: number): Hypothesis[] {
  const first = firstEvent(score, played);
  const { meter } = score.events[first]!.source.measure;
  if (meterKind(meter) !== 'unequal') return [];
  const groups = groupsIn(score, played, meter);
  if (!groups) return [];
  const { from, to } = score.measures[played]!;
  return turns(groups.map(({ length }) => length)).map((order): Hypothesis => {
    let at = from;
    const by = new Map<number, Seconds>();
    for (const k of order) {
      const { begin, length, events } = groups[k]!;
      for (const { kind, note } of events) if (kind === 'note') by.set(note, at - begin);
      at += length;
    }
    const text = (event: ScoreEvent) => {
      const value = valueText(event.source.event.value);
      return event.kind === 'rest' ? `(${value})` : value;
    };
    const as = order.map((k) => groups[k]!.events.map(text).join(' ')).join(' ');
    return {
      event: first,
      cost: COST.turned,
      apply: (claps) => moved(claps, by),
      as,
      way: order.join(' '),
      count: 1,
      within: { from, to },
    };
  });
}

interface Group {
  readonly begin: Seconds;
  readonly length: Seconds;
  readonly events: readonly ScoreEvent[];
}

function groupsIn({ events, measures, schedule }: Score, played: number, meter: Meter): Group[] | undefined {
  const { from, to } = measures[played]!;
  const inside = events.filter((event) => event.played === played);
  let at = from;
  const groups = beamGroups(meter).map((size): Group => {
    const begin = at;
    const length = toNumber(size) * schedule.whole;
    at += length;
    return {
      begin,
      length,
      events: inside.filter(({ time }) => time >= begin - EPSILON && time < begin + length - EPSILON),
    };
  });
  const whole =
    nearlyEqual(at, to) &&
    groups.every(({ begin, length, events: [first, ...more] }) => {
      const last = more.at(-1) ?? first;
      return first?.kind === 'note' && nearlyEqual(first.time, begin) && last!.end <= begin + length + EPSILON;
    });
  return whole ? groups : undefined;
}

/** Divided a beat otherwise than written, or turned the groups of an unequal meter round. */
export const beatMisread: MisreadingKind = {
  about: 'place',
  asHeard: true,
  hypotheses: (score) => [
    ...eachEvent(score, (event, i) => otherwise(score, event, i)),
    ...score.measures.flatMap((_measure, played) => turned(score, played)),
  ],
  inTake: (score, { claps, strange }) => {
    // A clap too many may be nearer to the note after it than to those of its own beat.
    const notes = claps.flatMap(({ note }, i) => (note >= 0 && strange[i] ? [Math.max(0, note - 1), note] : []));
    const beats = new Set(notes.map((note) => beginningOf(score, score.notes[note]!)));
    const measures = new Set(notes.map((note) => score.events[score.notes[note]!]!.played));
    const single = [
      ...[...beats].flatMap((i) => otherwise(score, score.events[i]!, i)),
      ...[...measures].flatMap((played) => turned(score, played)),
    ];
    return [...single, ...together(single)];
  },
};

/** Index of the event that begins the beat in which an event stands. */
function beginningOf({ events }: Score, index: number): number {
  let i = index;
  while (i > 0 && events[i]!.inBeat > EPSILON && events[i - 1]!.played === events[i]!.played) i--;
  return i;
}

/** The same beat divided in the same other way, wherever it was: a habit. */
function together(single: readonly Hypothesis[]): Hypothesis[] {
  const ways = new Map<string, Hypothesis[]>();
  for (const one of single) ways.set(one.way!, [...(ways.get(one.way!) ?? []), one]);
  return [...ways.values()]
    .filter((parts) => parts.length > 1)
    .map((parts) => habitOf(parts, parts[0]!.cost + COST.habit + COST.each * parts.length));
}
