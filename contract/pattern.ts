import { type Static, Type } from '@sinclair/typebox';
import { MOST_BRACKETS } from '../core/timing/limits.ts';
import { Id, MadeBy, Name, RhythmText, strict } from './parts.ts';

/** So many patterns are put into order at once. */
const MOST_ON_SHELF = 2000;

/** A place on paper: the measure as it is numbered (a pickup is 0), and a counted beat in it from 1. */
const Place = Type.Object(
  { measure: Type.Integer({ minimum: 0, maximum: 10_000 }), beat: Type.Integer({ minimum: 1, maximum: 64 }) },
  strict,
);

/** A word or two over a stretch of a pattern, from one beat up to and with another. */
export const Bracket = Type.Object(
  { from: Place, to: Place, words: Type.String({ minLength: 1, maxLength: 40, pattern: '\\S' }) },
  strict,
);
export type Bracket = Static<typeof Bracket>;

const Brackets = Type.Optional(Type.Array(Bracket, { maxItems: MOST_BRACKETS }));

/** The folder a pattern lies in; undefined: in none. */
const Folder = Type.Optional(Name);
/** Of a copy: who made it. */
const From = Type.Optional(MadeBy);

/** Where no brackets, no folder or no maker are sent, those that are there stay. */
export const PatternEdit = Type.Object(
  { title: Name, text: RhythmText, brackets: Brackets, folder: Folder, from: From },
  strict,
);

export type PatternEdit = Static<typeof PatternEdit>;

/** Put away: it stays with its takes, and is offered nowhere. */
const Archived = Type.Optional(Type.Literal(true));

export const SavedPattern = Type.Object({
  id: Id,
  title: Type.String(),
  text: Type.String(),
  brackets: Brackets,
  folder: Folder,
  from: From,
  archived: Archived,
});

export type SavedPattern = Static<typeof SavedPattern>;

/** The patterns of a teacher in the order of the list, each with its place; those not named keep theirs, at the end. */
export const ShelfEdit = Type.Object(
  {
    patterns: Type.Array(Type.Object({ id: Id, folder: Folder, archived: Archived }, strict), {
      minItems: 1,
      maxItems: MOST_ON_SHELF,
    }),
  },
  strict,
);
export type ShelfEdit = Static<typeof ShelfEdit>;
