import type { Fraction } from '../rhythm/fraction.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import type { ExtraKind } from './extras.ts';
import type { JudgedHold } from './holds.ts';
import type { MisreadingCode } from './misreadings/table.ts';

/** Raised when a result changes its shape or what it says: results of an older version are judged again. */
export const RESULT_VERSION = 12;

export const VERDICTS = ['on-time', 'early', 'late', 'missed'] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface JudgedNote extends PlayedPlace {
  /** Counts the sounded notes from 0 in playing order. */
  readonly index: number;
  readonly verdict: Verdict;
  /** Late is positive; lead, drift and what the child was followed in taken off. Absent when missed. */
  readonly errorMs?: number;
  /** Index of its onset in the take. Absent when missed. */
  readonly onset?: number;
}

/** An onset that belongs to no note. */
export interface Extra extends PlayedPlace {
  /** Index of the onset in the take. */
  readonly onset: number;
  /** As it was given. */
  readonly seconds: Seconds;
  readonly kind: ExtraKind;
}

/** What was misread, as facts; the words are made when it is shown. */
export interface Misreading extends PlayedPlace {
  readonly code: MisreadingCode;
  /** Index of the written event it is about, in playing order. */
  readonly event: number;
  /**
   * So many beats the rest or note got instead of its own; where it is about no such one, by so many all that follows,
   * or the whole take, came too early or too late, without a sign.
   */
  readonly beats?: Fraction;
  /** Change of tempo over the take in %, without a sign. */
  readonly percent?: number;
  /** So many measures in a row, where it is about measures. */
  readonly count?: number;
  /** Behind or ahead of the click by so many milliseconds, without a sign. */
  readonly ms?: number;
  /** What was clapped instead, as rhythm text. */
  readonly as?: string;
  /** Speed of the whole take beside the set tempo: a third where each part of a beat got a click. */
  readonly factor?: Fraction;
  /** A habit: where else it was the same. */
  readonly again?: readonly PlayedPlace[];
  /** Its own tempo, and that of the click. */
  readonly kept?: { readonly bpm: Bpm; readonly click: Bpm };
  /** Of what is else about a whole take: only this measure. */
  readonly part?: true;
  /** Of a stretch: from here on all is right again. */
  readonly until?: PlayedPlace;
  /** The claps alone cannot tell it from the misreading before it. */
  readonly instead?: true;
}

export interface TempoKept {
  /** Counted beats a minute as played, on average. */
  readonly bpm: Bpm;
  /** Change from the first to the last note; faster is positive. */
  readonly driftPct: number;
  readonly spreadMs: number;
  /** Ahead of the click is positive; 0 in a free take. */
  readonly leadMs: number;
}

/** What feet step: the beat, or something else in its place. */
export const STEPPED = ['beat', 'other-beats', 'first-beats', 'parts', 'rhythm'] as const;
export type Stepped = (typeof STEPPED)[number];

/** How the feet kept the beat while the hands clapped, and how far the two were apart. */
export interface FeetResult {
  /** Steps that came on the beat, and the beats there were. */
  readonly onBeat: number;
  readonly beats: number;
  readonly extras: number;
  /**
   * How far the steps were ahead of the beat on the whole, in ms; taken off before they are judged, as far as it is for
   * the hands.
   */
  readonly leadMs: number;
  /**
   * Where hands and feet fall together, how much later the hands came, in ms: on the whole, and how much that varies.
   */
  readonly handsLaterMs: number;
  readonly apartMs: number;
  readonly stepped: Stepped;
  /** What went wrong with the beat, the weightiest first; events count the beats. */
  readonly misreadings: readonly Misreading[];
}

/** A take judged: facts only. */
export interface TakeResult {
  readonly notes: readonly JudgedNote[];
  readonly extras: readonly Extra[];
  /** At most three; the first is the one thing to fix. */
  readonly misreadings: readonly Misreading[];
  /** The mark is one lower, for the class counts the click too and it was not kept. */
  readonly offClick?: boolean;
  /** The mark of the rhythm alone, where it is lower for the click. */
  readonly withoutClick?: number;
  /** Places at which the rhythm was misread though no note was early, late or missed and no clap too many: one each. */
  readonly slips: number;
  readonly tempo: TempoKept;
  /** From which note on the child is how many beats ahead. */
  readonly follow: readonly { readonly fromNote: number; readonly beatsAhead: Fraction }[];
  /** Part of the notes that were with the click itself, the child not followed; null in a free take. */
  readonly withBeat: number | null;
  /** The take as rhythm text, repeats written out. */
  readonly heard: string;
  readonly accuracy: number;
  readonly mark: number;
  /** Only where steps, or releases, were given. */
  readonly feet?: FeetResult;
  readonly holds?: readonly JudgedHold[];
}
