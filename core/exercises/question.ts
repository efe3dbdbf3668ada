import type { Random } from '../random.ts';
import type { Fraction } from '../rhythm/fraction.ts';
import type { Meter } from '../rhythm/meter.ts';
import type { NoteValue, ValueLetter } from '../rhythm/value.ts';
import type { MistakeId } from './misconceptions.ts';
import type { ChangeId } from './rhythms/changes.ts';
import type { Sign, SignSettings, StaffHeight, StaffPlace, StaffSign, Stem } from './signs.ts';
import type { Part, SumStep } from './valueSums.ts';

/** What an option says; the words are made when it is shown. */
export type Answer =
  | { readonly is: 'beats'; readonly beats: Fraction }
  | { readonly is: 'count'; readonly count: Fraction }
  | { readonly is: 'claps'; readonly claps: number }
  | { readonly is: 'value'; readonly value: NoteValue }
  | { readonly is: 'values'; readonly values: readonly NoteValue[] }
  | { readonly is: 'truth'; readonly truth: boolean }
  /** A measure that is so many beats too long; too short where negative. */
  | { readonly is: 'off'; readonly measure: number; readonly beats: Fraction }
  /** A rhythm, to be heard or seen. */
  | { readonly is: 'rhythm'; readonly text: string }
  | { readonly is: 'sign'; readonly sign: Sign }
  /** One of the signs on the staff, from 0. */
  | { readonly is: 'nth'; readonly index: number }
  | { readonly is: 'syllable'; readonly text: string }
  | ({ readonly is: 'staff' } & StaffPlace)
  | ({ readonly is: 'stem' } & Stem);

export interface Option {
  readonly answer: Answer;
  /** The misconception that leads to it; absent for the right one, and for a plain slip. */
  readonly misconception?: MistakeId;
  /** Of a rhythm that is not the one heard: what of it was changed. */
  readonly change?: ChangeId;
}

/** One line of the worked answer. */
export type Step =
  | ({ readonly step: 'sum' } & SumStep)
  | { readonly step: 'other-side'; readonly beats: Fraction }
  | { readonly step: 'staccato' }
  | { readonly step: 'missing'; readonly all: Fraction; readonly used: Fraction; readonly value: NoteValue }
  | { readonly step: 'clap-notes'; readonly notes: number }
  | { readonly step: 'no-clap-tied'; readonly tied: number }
  | { readonly step: 'no-clap-rests'; readonly rests: number }
  /** Folding from one value to another: each fold doubles. */
  | { readonly step: 'folds'; readonly from: ValueLetter; readonly to: ValueLetter }
  | { readonly step: 'dot-of-folds'; readonly plain: Fraction; readonly half: Fraction }
  | { readonly step: 'wrong-total'; readonly measure: number; readonly total: Fraction; readonly off: Fraction }
  | { readonly step: 'others-full'; readonly beats: Fraction }
  | ({ readonly step: 'ruled-out' } & RuledOut)
  /** What tells a sign from others. */
  | { readonly step: 'sign'; readonly sign: Sign }
  | ({ readonly step: 'staff' } & StaffPlace)
  | { readonly step: 'stem'; readonly at: StaffHeight };

/** What is asked, by kind. */
export type Asked =
  | { readonly kind: 'beats'; readonly parts: readonly Part[]; readonly beat: ValueLetter }
  | { readonly kind: 'how-many'; readonly whole: NoteValue; readonly small: ValueLetter }
  | { readonly kind: 'true-false'; readonly left: readonly Part[]; readonly right: readonly Part[] }
  | { readonly kind: 'balance' }
  | { readonly kind: 'claps' }
  | { readonly kind: 'complete'; readonly meter: Meter }
  | { readonly kind: 'wrong-measure' }
  | { readonly kind: 'order' }
  | { readonly kind: 'choose-rhythm' }
  | { readonly kind: 'sign-name' }
  /** All of them are to be found: of notes that can be beamed also those under a beam, or single ones only. */
  | { readonly kind: 'sign-spot'; readonly sign: Sign; readonly single?: boolean }
  /** Each sign on the staff goes with one option. */
  | { readonly kind: 'sign-match'; readonly to: 'name' | 'beats' | 'syllable'; readonly beat: ValueLetter }
  | { readonly kind: 'staff-place' }
  | { readonly kind: 'stem-side' }
  | { readonly kind: 'which-rest' }
  | { readonly kind: 'same-length'; readonly to: 'note' | 'rest' };
export type QuestionKind = Asked['kind'];

/** The first beat at which a candidate is not the rhythm that was heard. */
export interface RuledOut {
  /** Index of the candidate. */
  readonly option: number;
  readonly measure: number;
  /** Which time through, from 1, where the measure repeats. */
  readonly timeThrough?: number;
  /** Counted, from 1. */
  readonly beat: number;
  /** Claps heard inside the beat, and how many the candidate has there. */
  readonly claps: number;
  readonly hasClaps: number;
  /** Where as many are elsewhere in it: the first that is, heard and written, in counted beats. */
  readonly heardAt?: Fraction;
  readonly writtenAt?: Fraction;
}

/** A question as facts: the board and printed sheets show the same. */
export interface Question {
  readonly asked: Asked;
  /** Rhythm text of what the question shows; measures may be wrong on purpose. */
  readonly shows: string;
  /** Which of the signs it shows have a dot above or below the head, by index from 0. */
  readonly staccato?: readonly number[];
  /** Of an equation: its two sides, as they lie on a balance. */
  readonly sides?: readonly [readonly Part[], readonly Part[]];
  /** The signs it shows, from left to right, where it is about signs on five lines. */
  readonly staff?: readonly StaffSign[];
  readonly options: readonly Option[];
  /** Index of the right option; where there are `answers`, of the first. */
  readonly answer: number;
  /** Where more than one option is right, all of them; in a match, for each sign its own. */
  readonly answers?: readonly number[];
  readonly steps: readonly Step[];
}

/** What a set of questions is made of. */
export interface QuestionSettings {
  readonly values: readonly ValueLetter[];
  readonly dots: boolean;
  readonly ties: boolean;
  readonly rests: boolean;
  /** The value that gets the beat. */
  readonly beat: ValueLetter;
}

/** Makes one question of a kind; undefined where the settings and the seed lead to none. */
export type QuestionMaker = (settings: QuestionSettings, random: Random) => Question | undefined;

/** The same for questions about signs. */
export type SignQuestionMaker = (settings: SignSettings, random: Random) => Question | undefined;
