import { EPSILON } from '../../timing/tolerance.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score, ScoreEvent } from '../scoreEvents.ts';

/** What a sentence can name, in the class's own words. */
export interface SentenceWords {
  /** The count under the event of the place, as it is said: "3", "&", "ta-a". */
  readonly count: string;
  /** The name of the written value: "dotted quarter". */
  readonly value: string;
  /** How long it lasts: "1 1/2 beats". */
  readonly length: string;
  /** Further beats that a long note is held through, as said: "2, 3". */
  readonly holds: string;
  /** Of a stretch: the place from which all is right again; of a whole take: how many beats it is off. */
  readonly until: string;
}

/** One way to misread one place: how the claps come then. */
export interface Hypothesis {
  readonly code: MisreadingCode;
  /** Index into `written.events` of the event it is about. */
  readonly event: number;
  /** Nats: how unlikely it is before anything is heard. */
  readonly cost: number;
  /** The claps, in written order, as they come with this misreading. */
  readonly apply: (claps: readonly ExpectedClap[]) => ExpectedClap[];
  /** From which written time on all comes by how many counted beats later (negative: earlier). */
  readonly shift?: { readonly from: number; readonly beats: number; readonly seconds: number };
  /** Written times of claps it adds: without a clap there that belongs to no note it did not happen. */
  readonly adds?: readonly number[];
  /** Speed of the take beside the set tempo. */
  readonly speed?: number;
  /** Moves claps so little that every note may still have its clap. */
  readonly subtle?: true;
  /** About the whole take, not a place in it. */
  readonly wholeTake?: true;
}

export const MISREADING_CODES = [
  'rest-clapped',
  'rest-skipped',
  'rest-too-long',
  'dot-too-long',
  'dot-too-short',
  'tie-restruck',
  'hold-pulsed',
  'hold-cut',
  'upbeat-on-beat',
  'eighths-uneven',
  'sixteenths-slow',
  'syncopation-straightened',
  'entered-early',
  'entered-late',
  'half-tempo',
  'double-tempo',
  'rushing',
  'dragging',
  'lost-and-recovered',
  'measure-skipped',
  'measure-repeated',
  'stopped-early',
] as const;
export type MisreadingCode = (typeof MISREADING_CODES)[number];

/** About a take as a whole: no measure of it is to be practised for them. */
export const WHOLE_TAKE_CODES: ReadonlySet<MisreadingCode> = new Set<MisreadingCode>([
  'rushing',
  'dragging',
  'half-tempo',
  'double-tempo',
  'entered-early',
  'entered-late',
]);

/** One kind of misreading. To add one: an entry with its hypotheses, and it is looked for everywhere. */
export interface MisreadingKind {
  readonly code: MisreadingCode;
  /** A few words for lists and legends. */
  readonly title: string;
  /** Every place where it can happen. Kinds that are found in another way have none. */
  readonly hypotheses: (written: Score) => Hypothesis[];
  /** What was heard, and what to do; the place is put before it. */
  readonly sentence: (words: SentenceWords) => string;
}

/** Written out, for this is done very often and spreading is slow. */
function later({ note, written, time }: ExpectedClap, seconds: number): ExpectedClap {
  return { note, written, time: time + seconds };
}

/** Everything from a written time on comes later by some seconds (negative: earlier). */
export function shifted(claps: readonly ExpectedClap[], from: number, seconds: number): ExpectedClap[] {
  return claps.map((clap) => (clap.written >= from - EPSILON ? later(clap, seconds) : clap));
}

/** One clap more, between those before and after it on paper; it moves with what was moved there. */
function inserted(claps: readonly ExpectedClap[], times: readonly number[]): ExpectedClap[] {
  const all = [...claps];
  for (const written of times) {
    const before = all.findLast((clap) => clap.written < written - EPSILON);
    const moved = before ? before.time - before.written : (all[0]?.time ?? written) - (all[0]?.written ?? written);
    all.push({ note: -1, written, time: written + moved });
    all.sort((a, b) => a.written - b.written);
  }
  return all;
}

/** A hypothesis that only adds claps, at these written times. */
export function adding(code: MisreadingCode, event: number, cost: number, times: readonly number[]): Hypothesis {
  return { code, event, cost, apply: (claps) => inserted(claps, times), adds: times };
}

/** Single notes moved by some seconds. */
export function moved(claps: readonly ExpectedClap[], by: ReadonlyMap<number, number>): ExpectedClap[] {
  return claps.map((clap) => (by.has(clap.note) ? later(clap, by.get(clap.note)!) : clap));
}

/** A hypothesis in which all that follows an event comes later by some of its beats (negative: earlier). */
export function shiftAfter(
  code: MisreadingCode,
  event: number,
  cost: number,
  { end, beat }: ScoreEvent,
  beats: number,
): Hypothesis {
  const seconds = beats * beat;
  return {
    code,
    event,
    cost,
    apply: (claps) => shifted(claps, end, seconds),
    shift: { from: end, beats, seconds },
  };
}
