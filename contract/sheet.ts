import { type Static, Type } from '@sinclair/typebox';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { CARD_SIZES, MOST_PARTS, MOST_PATTERNS, MOST_QUESTIONS, PAPERS } from '../core/sheets/sheet.ts';
import { SHEET_KINDS } from '../core/sheets/sheetKinds.ts';
import { NAMING_IDS } from '../core/wording/valueNames.ts';
import {
  BeatValue,
  Bpm,
  Id,
  LevelNumber,
  MadeBy,
  Name,
  Rests,
  RhythmText,
  CountingSystem,
  Seed,
  WordSet,
  oneOf,
  orNull,
  strict,
} from './parts.ts';

/** One kind of question; see core/sheets/sheet.ts for what each field means. */
export const SheetPartEdit = Type.Object(
  {
    key: Type.Integer({ minimum: 0, maximum: 1_000_000 }),
    kind: oneOf(SHEET_KINDS),
    count: Type.Integer({ minimum: 1, maximum: MOST_QUESTIONS }),
    level: LevelNumber,
    elements: Type.Optional(Type.Array(oneOf(ELEMENT_IDS), { minItems: 1, maxItems: ELEMENT_IDS.length })),
    meter: Type.Optional(Type.String({ minLength: 3, maxLength: 40 })),
    beat: Type.Optional(BeatValue),
    cards: Type.Optional(oneOf(CARD_SIZES)),
    patterns: Type.Optional(Type.Array(RhythmText, { minItems: 1, maxItems: MOST_PATTERNS })),
  },
  strict,
);
export type SheetPartEdit = Static<typeof SheetPartEdit>;

/** A sheet as it is kept, with the way of speaking of its day: next year it is printed the same. */
export const SheetEdit = Type.Object(
  {
    title: Name,
    seed: Seed,
    paper: oneOf(PAPERS),
    large: Type.Boolean(),
    versions: Type.Boolean(),
    twoToAPage: Type.Optional(Type.Boolean()),
    bpm: Bpm,
    parts: Type.Array(SheetPartEdit, { minItems: 1, maxItems: MOST_PARTS }),
    /** The class it is for, and whether its children’s names stand on it. */
    classId: orNull(Id),
    names: Type.Boolean(),
    counts: Type.Object(
      {
        school: CountingSystem,
        rests: Type.Optional(Rests),
        houseWords: Type.Optional(Type.Record(Type.String(), Type.String({ maxLength: 40 }))),
        wordSet: Type.Optional(WordSet),
      },
      strict,
    ),
    naming: oneOf(NAMING_IDS),
    /** Of a copy: who made it. */
    from: Type.Optional(MadeBy),
  },
  strict,
);
export type SheetEdit = Static<typeof SheetEdit>;

export const SavedSheet = Type.Composite([Type.Object({ id: Id }), SheetEdit]);
export type SavedSheet = Static<typeof SavedSheet>;
