import { type Static, Type } from '@sinclair/typebox';
import { MOST_BRACKETS } from '../core/timing/limits.ts';
import { Id, Name, RhythmText, strict } from './parts.ts';

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

/** Where no brackets are sent, those that are there stay. */
export const PatternEdit = Type.Object({ title: Name, text: RhythmText, brackets: Brackets }, strict);

export type PatternEdit = Static<typeof PatternEdit>;

export const SavedPattern = Type.Object({ id: Id, title: Type.String(), text: Type.String(), brackets: Brackets });

export type SavedPattern = Static<typeof SavedPattern>;
