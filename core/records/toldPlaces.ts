import { type MisreadingCode, isAboutTake } from '../judging/misreadings/table.ts';
import type { Misreading, TakeResult } from '../judging/takeResult.ts';
import type { ElementId } from '../rhythm/elements.ts';
import { compare } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlayedPlace, playedPlace } from '../timing/schedule.ts';
import { type ElementPlace, type PlayedEvents, elementPlacesPlayed, eventsOf } from './elementPlaces.ts';

/** What a take says of one place of an element (rules §9). */
export const PLACE_VERDICTS = ['right', 'misread', 'not-told'] as const;
export type PlaceVerdict = (typeof PLACE_VERDICTS)[number];

/** One place of an element in a take, as it was played. */
export interface ToldPlace {
  readonly element: ElementId;
  readonly at: PlayedPlace;
  /** Indices of its first event and of the one after its last, in playing order. */
  readonly from: number;
  readonly to: number;
  readonly verdict: PlaceVerdict;
  /** What was misread, where it has a name. */
  readonly code?: MisreadingCode;
}

type Facts = Pick<TakeResult, 'notes' | 'extras' | 'misreadings' | 'follow' | 'tempo'>;

/** Which elements a misreading is about, the most likely first; without any it is the hardest that stands there. */
const ABOUT: Readonly<Partial<Record<MisreadingCode, readonly ElementId[]>>> = {
  'rest-clapped': ['eighth-rest', 'half-rest', 'quarter-rest'],
  'rest-skipped': ['eighth-rest', 'half-rest', 'quarter-rest'],
  'rest-too-short': ['half-rest', 'quarter-rest', 'eighth-rest'],
  'rest-too-long': ['eighth-rest', 'half-rest', 'quarter-rest'],
  'dot-too-long': ['dotted-quarter', 'dotted-eighth', 'dotted-half'],
  'dot-too-short': ['dotted-quarter', 'dotted-eighth', 'dotted-half'],
  'tie-restruck': ['tie'],
  'hold-pulsed': ['tie', 'whole', 'dotted-half', 'half', 'dotted-quarter'],
  'hold-cut': ['tie', 'whole', 'dotted-half', 'half'],
  'hold-too-long': ['tie', 'whole', 'dotted-half', 'half'],
  'upbeat-on-beat': ['eighth-rest', 'dotted-quarter', 'eighth-pair'],
  'eighths-uneven': ['eighth-pair'],
  'sixteenths-slow': ['sixteenths'],
  'syncopation-straightened': ['syncopation'],
};

/** Instead of what is written something else was clapped: nothing is told of any element. */
const INSTEAD: ReadonlySet<MisreadingCode> = new Set([
  'another-rhythm',
  'only-the-beat',
  'clapped-the-counts',
  'looped',
]);
/** A stretch without the rhythm; it says nothing of what stands in it. */
const STRETCHES: ReadonlySet<MisreadingCode> = new Set([
  ...(['lost-and-recovered', 'measure-skipped', 'measure-silent', 'joined-late', 'stopped-early'] as const),
]);
/** The rhythm itself is right there. */
const HARMLESS: ReadonlySet<MisreadingCode> = new Set([
  ...(['hesitated', 'started-again', 'measure-repeated', 'measures-too-long', 'measures-too-short'] as const),
]);

/** What the claps alone say of a harder element rather than of an easier one it stands in; the hardest first. */
const BLAMED: readonly ElementId[] = [
  ...(['triplet', 'dotted-eighth', 'sixteenths', 'dotted-quarter', 'syncopation', 'eighth-rest', 'tie'] as const),
  ...(['half-rest', 'quarter-rest', 'whole', 'dotted-half', 'half', 'compound', 'eighth-pair', 'quarter'] as const),
];

/** So many faults side by side are no slip: the child was lost there. */
const MOST_SIDE_BY_SIDE = 5;
/** With more of its notes left out a take says nothing. */
const MOST_MISSED = 0.5;

/** Something that went wrong at a written event. */
interface Fault {
  readonly event: number;
  readonly code?: MisreadingCode;
}

const covers = ({ from, to }: ElementPlace, event: number) => from <= event && event < to;

/** Index of the event that stands at a place or sounds on there; -1 where nothing is written. */
function eventAt({ events, measures }: PlayedEvents, { played, beat }: PlayedPlace): number {
  return events.findLastIndex(
    (one) => one.played === played && compare(playedPlace(measures, played, one.event.onset).beat, beat) <= 0,
  );
}

/** Events that misreadings of single places are about, each with its code. */
function misread(misreadings: readonly Misreading[], written: PlayedEvents, places: readonly ElementPlace[]): Fault[] {
  return misreadings.flatMap((one): Fault[] => {
    const { code, event, again = [], instead } = one;
    if (instead || isAboutTake(one) || STRETCHES.has(code) || HARMLESS.has(code)) return [];
    // Swung pairs are swung all through.
    if (code === 'eighths-uneven')
      return places.flatMap(({ element, from }) => (element === 'eighth-pair' ? [{ event: from, code }] : []));
    return [event, ...again.map((place) => eventAt(written, place))].map((at) => ({ event: at, code }));
  });
}

/** Written events of which the take says nothing. */
function untold({ misreadings }: Facts, written: PlayedEvents): (event: number) => boolean {
  const stretches = misreadings.flatMap(({ code, event, until, count = 1 }) => {
    if (!STRETCHES.has(code)) return [];
    const { played } = written.events[event] ?? { played: 0 };
    if (code === 'stopped-early') return [{ from: event, to: Infinity }];
    if (until) return [{ from: event, to: eventAt(written, until) }];
    return [{ from: event, to: written.events.findLastIndex((one) => one.played < played + count) + 1 }];
  });
  return (event) => stretches.some(({ from, to }) => from <= event && event < to);
}

/** Where all that follows came earlier or later, and no misreading says why: at what stands before. */
function unexplained({ follow, misreadings }: Facts, written: PlayedEvents, places: readonly Fault[]): Fault[] {
  const known = [...places.map(({ event }) => event), ...misreadings.map(({ event }) => event)];
  return follow.flatMap(({ fromNote }): Fault[] => {
    const [before, to] = [written.notes[fromNote - 1], written.notes[fromNote]];
    if (before === undefined || to === undefined) return [];
    return known.some((event) => before <= event && event <= to) ? [] : [{ event: to - 1 }];
  });
}

/** Beside where it is written by so much of a beat a note was read otherwise … */
const ELSEWHERE = 0.17;
/** … where the hands themselves are not as unsteady: so many times what is usual of all notes of the take. */
const UNLIKE_HANDS = 4;

/** Notes that came so early or late that unsteady hands do not explain it. */
function elsewhere({ notes, tempo }: Facts, written: PlayedEvents): Fault[] {
  const errors = notes
    .flatMap(({ errorMs }) => (errorMs === undefined ? [] : [Math.abs(errorMs)]))
    .sort((a, b) => a - b);
  const usual = errors[Math.floor(errors.length / 2)] ?? 0;
  const most = Math.max((ELSEWHERE * 60_000) / tempo.bpm, UNLIKE_HANDS * usual);
  return notes.flatMap(({ index, errorMs = 0 }) =>
    Math.abs(errorMs) > most ? [{ event: written.notes[index]! }] : [],
  );
}

/** Faults that stand side by side are one slip. */
function sideBySide(faults: readonly Fault[]): Fault[][] {
  const groups: Fault[][] = [];
  for (const fault of [...faults].sort((a, b) => a.event - b.event)) {
    const last = groups.at(-1);
    if (last && fault.event - last.at(-1)!.event <= 1) last.push(fault);
    else groups.push([fault]);
  }
  return groups;
}

/** The one place that a slip is about. */
function blamed(group: readonly Fault[], places: readonly ElementPlace[]): ElementPlace | undefined {
  for (const { event, code } of group)
    for (const element of (code && ABOUT[code]) ?? []) {
      const place = places.find((one) => one.element === element && covers(one, event));
      if (place) return place;
    }
  const here = places.filter((place) => group.some(({ event }) => covers(place, event)));
  return here.sort((a, b) => BLAMED.indexOf(a.element) - BLAMED.indexOf(b.element))[0];
}

/** What a take says of each place of each element of its pattern, in playing order, element by element. */
export function toldPlaces(pattern: Pattern, result: Facts): ToldPlace[] {
  const written = eventsOf(pattern);
  const places = elementPlacesPlayed(written);
  const missed = new Set(
    result.notes.flatMap(({ index, verdict }) => (verdict === 'missed' ? [written.notes[index]!] : [])),
  );
  const nothing =
    result.misreadings.some(({ code, part }) => INSTEAD.has(code) && part !== true) ||
    missed.size > MOST_MISSED * written.notes.length;
  const isUntold = untold(result, written);
  const named = misread(result.misreadings, written, places);
  const faults = [
    ...named,
    ...unexplained(result, written, named),
    ...elsewhere(result, written),
    ...[...missed].map((event) => ({ event })),
    ...result.extras.flatMap((extra) =>
      ['rest', 'hold', 'tie', 'other'].includes(extra.kind) ? [{ event: eventAt(written, extra) }] : [],
    ),
  ].filter(({ event }) => event >= 0 && !isUntold(event));
  const isRunning = result.misreadings.some(({ code }) => code === 'rushing' || code === 'dragging');
  const guilty = new Map<ElementPlace, MisreadingCode | undefined>();
  const touched = new Set<number>();
  for (const group of sideBySide(faults)) {
    for (const { event } of group) touched.add(event);
    const size = new Set(group.map(({ event }) => event)).size;
    // Where the tempo runs away, what has no name is not told from what the tempo did.
    const isUnclear = size > MOST_SIDE_BY_SIDE || (isRunning && group.every(({ code }) => code === undefined));
    const place = isUnclear ? undefined : blamed(group, places);
    if (place) guilty.set(place, group.find(({ code }) => code)?.code);
  }
  const verdictOf = (place: ElementPlace): PlaceVerdict => {
    if (nothing) return 'not-told';
    if (guilty.has(place)) return 'misread';
    const events = Array.from({ length: place.to - place.from }, (_, i) => place.from + i);
    const shown = [...events, ...place.beside];
    return shown.some((event) => isUntold(event) || missed.has(event)) || events.some((event) => touched.has(event))
      ? 'not-told'
      : 'right';
  };
  return places.map((place): ToldPlace => {
    const { played, event } = written.events[place.from]!;
    const verdict = verdictOf(place);
    const code = verdict === 'misread' ? guilty.get(place) : undefined;
    const at = playedPlace(written.measures, played, event.onset);
    return { element: place.element, at, from: place.from, to: place.to, verdict, ...(code && { code }) };
  });
}
