import type { Meter } from './meter.ts';
import type { NoteValue } from './value.ts';

export interface Note {
  readonly kind: 'note';
  readonly value: NoteValue;
  /** Tied to the next note: that one adds its time and is not sounded. */
  readonly tied?: true;
  /** A letter name or a word to say. */
  readonly label?: string;
}

export interface Rest {
  readonly kind: 'rest';
  readonly value: NoteValue;
}

/** n notes of the written values in the time of m. */
export interface Tuplet {
  readonly kind: 'tuplet';
  readonly n: number;
  readonly m: number;
  readonly events: readonly (Note | Rest)[];
}

export type Item = Note | Rest | Tuplet;

export interface Measure {
  readonly meter: Meter;
  readonly items: readonly Item[];
  /** `(M7)`: so many whole measures of rest; then `items` is empty. */
  readonly rests?: number;
  /** Of a piece that was cut out inside a run of rests: so many measures of the run stand before it. */
  readonly restsBefore?: number;
  readonly repeatStart?: true;
  readonly repeatEnd?: true;
  /** `#5`: its number on paper where it is not the one after the measure before; the next ones count on from it. */
  readonly number?: number;
  /** `"A"`: the rehearsal letter over its bar line. */
  readonly letter?: string;
}

/** A rhythm as written: measures in reading order. */
export interface Pattern {
  /** The first measure is a pickup: shorter, and its beats are the last ones of a measure. */
  readonly pickup: boolean;
  readonly measures: readonly Measure[];
}
