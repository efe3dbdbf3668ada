import { type ExtraKind } from './extras.ts';
import type { MisreadingCode } from './misreadings/misreading.ts';
import { type JudgedHold } from './holds.ts';
import { type FeetResult } from './feet.ts';

export type Verdict = 'on-time' | 'early' | 'late' | 'missed';

export interface JudgedNote {
  /** Counts the sounded notes from 0 in playing order. */
  readonly index: number;
  readonly measure: number;
  /** "1 1/2": in counted beats from 1. */
  readonly beat: string;
  readonly verdict: Verdict;
  /** Late is positive; lead, drift and what the child was followed in taken off. Absent when missed. */
  readonly errorMs?: number;
}

export interface Extra {
  /** Seconds, as it was given. */
  readonly time: number;
  readonly measure: number;
  readonly beat: string;
  readonly kind: ExtraKind;
}

export interface Misreading {
  readonly code: MisreadingCode;
  readonly measure: number;
  readonly beat: string;
  readonly sentence: string;
}

export interface TakeResult {
  readonly notes: readonly JudgedNote[];
  readonly extras: readonly Extra[];
  /** At most three; the first is the one thing to fix. */
  readonly misreadings: readonly Misreading[];
  readonly tempo: {
    /** Counted beats a minute as played, on average. */
    readonly bpm: number;
    /** Change from the first to the last note; faster is positive. */
    readonly driftPct: number;
    readonly spreadMs: number;
    /** Ahead of the click is positive; 0 in a free take. */
    readonly leadMs: number;
  };
  /** From which note on the child is how many beats ahead. */
  readonly follow: readonly { readonly fromNote: number; readonly beatsAhead: string }[];
  /** Part of the notes that were with the click itself, the child not followed; null in a free take. */
  readonly withBeat?: number | null;
  /** The take as rhythm text. */
  readonly heard: string;
  readonly accuracy: number;
  readonly mark: number;
  /** Only where steps, or releases, were given. */
  readonly feet?: FeetResult;
  readonly holds?: readonly JudgedHold[];
}
