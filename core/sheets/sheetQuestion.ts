import type { CountOptions } from '../counting/count.ts';
import type { DrawnSign } from '../ear/strokes.ts';
import type { Question } from '../exercises/question.ts';
import type { StaffSign } from '../exercises/signs.ts';
import type { Part } from '../exercises/valueSums.ts';
import type { Level } from '../making/level.ts';
import type { Random } from '../random.ts';
import type { ElementId } from '../rhythm/elements.ts';
import type { Fraction } from '../rhythm/fraction.ts';
import type { Meter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import type { NoteValue, ValueLetter } from '../rhythm/value.ts';

/** What stands on paper, as facts: the page, its key and the command line show the same (rules §13). */
export type SheetQuestion =
  | { readonly kind: 'counts'; readonly pattern: Pattern }
  /** The item `gap` of its one measure is to be found. */
  | {
      readonly kind: 'complete';
      readonly pattern: Pattern;
      readonly gap: number;
      readonly missing: Pick<Part, 'kind' | 'value'>;
      /** The value that gets the beat in its sum. */
      readonly beat: ValueLetter;
    }
  | { readonly kind: 'bar-lines'; readonly pattern: Pattern }
  /** One measure is wrong on purpose; `off` in beats, negative where it is short. */
  | {
      readonly kind: 'wrong-measure';
      readonly pattern: Pattern;
      readonly index: number;
      readonly off: Fraction;
      readonly beat: ValueLetter;
    }
  /** A part beside it that claps on every beat it leaves free. */
  | { readonly kind: 'missing-part'; readonly pattern: Pattern; readonly missing: Pattern }
  | { readonly kind: 'how-many'; readonly times: number; readonly whole: NoteValue; readonly small: ValueLetter }
  | { readonly kind: 'true-false'; readonly question: Question }
  | { readonly kind: 'sums'; readonly parts: readonly Part[]; readonly beat: ValueLetter }
  | { readonly kind: 'circle'; readonly question: Question }
  | { readonly kind: 'name-sign'; readonly question: Question }
  | { readonly kind: 'stems'; readonly heads: readonly StaffSign[] }
  | { readonly kind: 'draw'; readonly sign: DrawnSign }
  /** The answer is clapped by the teacher. */
  | { readonly kind: 'choose'; readonly question: Question; readonly pattern: Pattern }
  | { readonly kind: 'write'; readonly pattern: Pattern }
  /** A whole cut into so many. */
  | { readonly kind: 'strips'; readonly value: NoteValue; readonly many: number }
  | { readonly kind: 'fold'; readonly folds: number }
  | { readonly kind: 'cards'; readonly pattern: Pattern }
  | { readonly kind: 'slip'; readonly pattern: Pattern };

export type SheetKind = SheetQuestion['kind'];
export type QuestionOf<Kind extends SheetKind> = Extract<SheetQuestion, { kind: Kind }>;

/** What the questions of a part are made of. */
export interface SheetSettings {
  readonly elements: readonly ElementId[];
  readonly level: Level;
  readonly meter: Meter;
  /** How the class speaks. */
  readonly counts: CountOptions;
  /** The value that gets the beat where that is asked; any but the quarter when left out. */
  readonly beat?: ValueLetter | undefined;
  /** One cell or one measure on a card. */
  readonly cards: 'cells' | 'measures';
  /** The teacher's own patterns instead of made ones. */
  readonly patterns: readonly Pattern[];
}

/** One kind of question. */
export interface SheetMaker<Kind extends SheetKind> {
  /**
   * @param nth  the question's number, from 0
   * @returns undefined where the settings and the seed lead to none
   */
  readonly make: (settings: SheetSettings, random: Random, nth: number) => QuestionOf<Kind> | undefined;
  /** Two questions with the same are the same. */
  readonly key: (question: QuestionOf<Kind>) => string;
  /** What can be earned; 0 where nothing is asked. */
  readonly points: (question: QuestionOf<Kind>) => number;
  /** For two versions that are as hard. */
  readonly difficulty: (question: QuestionOf<Kind>) => number;
  /**
   * Where making one takes long: another as hard as a model, instead of the nearest of several.
   * @param isNew  whether the sheet has no question with this key
   */
  readonly like?: (
    model: QuestionOf<Kind>,
    settings: SheetSettings,
    random: Random,
    nth: number,
    isNew: (key: string) => boolean,
  ) => QuestionOf<Kind> | undefined;
  /** How many questions a part has where nothing else is said. */
  readonly usual: number;
}
