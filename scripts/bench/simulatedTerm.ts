import { judge } from '../../core/judging/judge.ts';
import type { ExpectedClap } from '../../core/judging/expectedClap.ts';
import { type MisreadingCode, MISREADINGS } from '../../core/judging/misreadings/table.ts';
import { type Score, scoreOf } from '../../core/judging/scoreEvents.ts';
import type { TakeResult } from '../../core/judging/takeResult.ts';
import type { Ages } from '../../core/judging/windows.ts';
import type { Random } from '../../core/random.ts';
import { type ElementPlace, elementPlacesPlayed, eventsOf } from '../../core/records/elementPlaces.ts';
import type { ElementId } from '../../core/rhythm/elements.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { beatTimes } from '../../core/timing/pulses.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { clapped } from './clappedTakes.ts';

/** What a child knows that nobody sees: when it learned each element, in days of the term; Infinity: never. */
export type Knowledge = ReadonlyMap<ElementId, number>;

export interface TermChild {
  readonly ages: Ages;
  /** Standard deviation of its hands, seconds. */
  readonly spread: number;
  /** Change of tempo over a take, as a part. */
  readonly drift: number;
  readonly knows: Knowledge;
}

/** Who does not know an element misreads so many of its places; who does so few. */
export const MISREADS = 0.85;
export const SLIPS = 0.015;

type Slip = MisreadingCode | 'left-out' | 'divided' | 'moved-back' | 'moved-on' | 'halved';

/** How each element is misread: by codes of the table, and in ways that have no code. */
const WAYS: Readonly<Record<ElementId, readonly Slip[]>> = {
  quarter: ['left-out', 'divided'],
  'eighth-pair': ['left-out', 'moved-on'],
  'quarter-rest': ['rest-clapped', 'rest-skipped'],
  half: ['hold-cut', 'hold-pulsed', 'divided'],
  'half-rest': ['rest-clapped', 'rest-skipped'],
  'dotted-half': ['hold-cut', 'hold-pulsed'],
  whole: ['hold-cut', 'hold-pulsed'],
  tie: ['tie-restruck'],
  'eighth-rest': ['rest-clapped', 'rest-skipped', 'upbeat-on-beat'],
  syncopation: ['syncopation-straightened'],
  'dotted-quarter': ['dot-too-short', 'dot-too-long', 'hold-pulsed'],
  sixteenths: ['sixteenths-slow', 'halved'],
  'dotted-eighth': ['moved-back'],
  compound: ['moved-back', 'moved-on', 'divided'],
  triplet: ['halved'],
};

/** What happens to anybody now and then, and says nothing of an element. */
const ACCIDENTS: readonly MisreadingCode[] = [
  ...(['entered-early', 'entered-late', 'own-tempo', 'half-tempo', 'double-tempo', 'hesitated'] as const),
  ...(['started-again', 'lost-and-recovered', 'measure-skipped', 'measure-repeated', 'stopped-early'] as const),
  ...(['only-the-beat', 'another-rhythm'] as const),
];
const ACCIDENT = 0.12;
/** So many takes are without a click. */
const FREE = 0.2;

/** The claps with one of them. */
function happened(claps: ExpectedClap[], score: Score, random: Random): ExpectedClap[] {
  const kind = MISREADINGS[random.pick(ACCIDENTS)];
  if ('slip' in kind) {
    const state = { claps, drift: 0 };
    kind.slip(state, score, random);
    return state.claps;
  }
  const all = kind.hypotheses(score);
  return all.length > 0 ? random.pick(all).apply(claps) : claps;
}

const moved = (claps: readonly ExpectedClap[], note: number, by: number) =>
  claps.map((clap) => (clap.note === note ? { ...clap, time: clap.time + by } : clap));

/** The claps with one place misread; undefined where that cannot be done there. */
function slipped(way: Slip, place: ElementPlace, score: Score, claps: ExpectedClap[], random: Random) {
  const events = score.events.slice(place.from, place.to);
  const notes = events.filter(({ kind }) => kind === 'note');
  const last = notes.at(-1);
  switch (way) {
    case 'left-out':
      return last && claps.filter(({ note }) => note !== last.note);
    case 'divided': {
      const own = claps.find(({ note }) => note === last?.note);
      return own && [...claps, { note: -1, written: own.written, time: own.time + last!.beat / 2 }];
    }
    case 'moved-back':
    case 'moved-on': {
      // Of a measure in compound meter the note within a beat, of others the last one.
      const inner = notes.filter(({ inBeat }) => inBeat > 0.01);
      const one = place.element === 'compound' ? inner.length > 0 && random.pick(inner) : last;
      if (!one) return undefined;
      const by = one.beat * (one.division === 3 ? 1 / 3 : 1 / 4);
      return moved(claps, one.note, way === 'moved-on' ? by : -by);
    }
    case 'halved': {
      if (notes.length < 3) return undefined;
      const [first] = notes;
      const half = notes.slice(0, notes.length).map(({ note }, i) => ({ note, gone: i > 1 }));
      const kept = claps.filter(({ note }) => !half.some((one) => one.note === note && one.gone));
      const second = notes[1]!;
      return moved(kept, second.note, first!.time + first!.beat / 2 - second.time);
    }
    default: {
      const kind = MISREADINGS[way];
      if (!('hypotheses' in kind)) return undefined;
      const own = kind.hypotheses(score).filter(({ event }) => place.from <= event && event < place.to);
      return own.length > 0 ? random.pick(own).apply(claps) : undefined;
    }
  }
}

export interface HeardTerm {
  readonly result: TakeResult;
  readonly pattern: Pattern;
  readonly day: number;
}

/** One take of a child on a day of the term. */
export function termTake(pattern: Pattern, bpm: number, child: TermChild, day: number, random: Random): TakeResult {
  const schedule = scheduleOf(pattern, bpm);
  const score = scoreOf(schedule);
  let claps = score.notes.map((index, note): ExpectedClap => {
    const { time } = score.events[index]!;
    return { note, written: time, time };
  });
  const done = new Set<number>();
  for (const place of elementPlacesPlayed(eventsOf(pattern))) {
    const misreads = (child.knows.get(place.element) ?? 0) > day ? MISREADS : SLIPS;
    const touched = Array.from({ length: place.to - place.from }, (_, i) => place.from + i);
    if (random.next() >= misreads || touched.some((event) => done.has(event))) continue;
    const ways = [...WAYS[place.element]];
    while (ways.length > 0) {
      const [way] = ways.splice(random.below(ways.length), 1);
      const after = slipped(way!, place, score, claps, random);
      if (!after) continue;
      claps = after;
      for (const event of touched) done.add(event);
      break;
    }
  }
  if (random.next() < ACCIDENT) claps = happened(claps, score, random);
  const free = random.next() < FREE;
  const beats = beatTimes(pattern, bpm);
  const beat = beats[1]!.time - beats[0]!.time;
  const meant = claps.map(({ time }) => time).sort((a, b) => a - b);
  const [first, length] = [meant[0] ?? 0, Math.max(1e-9, (meant.at(-1) ?? 0) - (meant[0] ?? 0))];
  const drifted = meant.map((time) => time - (child.drift * (time - first) ** 2) / (2 * length));
  const onsets = clapped(drifted, beat, child.spread, free, random);
  const judged = judge({ pattern, bpm, onsets, free, ages: child.ages });
  if (!judged.ok) throw new Error(judged.trouble.code);
  return judged.result;
}
