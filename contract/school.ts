import { type Static, Type } from '@sinclair/typebox';
import { NAMING_IDS } from '../core/rhythm/names.ts';
import { AgesOf, Id, Rests, RhythmText, School, oneOf, orNull, strict } from './parts.ts';
import { TakeSummary } from './take.ts';

const Name = Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' });

export const SignIn = Type.Object({ name: Type.String({ minLength: 1, maxLength: 60 }), password: Type.String({ minLength: 1, maxLength: 200 }) }, strict);
export type SignIn = Static<typeof SignIn>;

export const Teacher = Type.Object({ id: Id, name: Type.String() });
export type Teacher = Static<typeof Teacher>;

/** What the page needs before it can draw anything: who is signed in, and whether this is the demo. */
export const SessionState = Type.Object({ teacher: orNull(Teacher), demo: Type.Boolean() });
export type SessionState = Static<typeof SessionState>;

const WordSet = Type.Object({ title: Type.String({ minLength: 1, maxLength: 60 }), cells: Type.Record(Type.String(), Type.String({ maxLength: 60 })) }, strict);

/** What a teacher sets for a class. */
export const ClassSettings = Type.Object(
  {
    name: Name,
    ages: AgesOf,
    school: School,
    rests: orNull(Rests),
    /** What the values are called. */
    naming: Type.Optional(oneOf(NAMING_IDS)),
    /** The teacher's own words, by school and place; what is left out is as in the school. */
    houseWords: Type.Optional(Type.Record(Type.String(), Type.Record(Type.String(), Type.String({ maxLength: 40 })))),
    /** Words for cells; null for the set that ships. */
    wordSet: Type.Optional(orNull(WordSet)),
  },
  strict,
);
export type ClassSettings = Static<typeof ClassSettings>;

export const ClassSummary = Type.Composite([Type.Object({ id: Id, children: Type.Integer() }), ClassSettings]);
export type ClassSummary = Static<typeof ClassSummary>;

/** First name or a code, nothing else is kept of a child. */
export const ChildEdit = Type.Object({ name: Name }, strict);
export type ChildEdit = Static<typeof ChildEdit>;
export const Child = Type.Object({ id: Id, name: Type.String() });
export type Child = Static<typeof Child>;

/** A class with its children and all their takes, newest first. */
export const ClassDetail = Type.Composite([Type.Object({ id: Id, children: Type.Array(Child), takes: Type.Array(TakeSummary) }), ClassSettings]);
export type ClassDetail = Static<typeof ClassDetail>;

export const PatternEdit = Type.Object({ title: Name, text: RhythmText }, strict);
export type PatternEdit = Static<typeof PatternEdit>;
export const SavedPattern = Type.Object({ id: Id, title: Type.String(), text: Type.String() });
export type SavedPattern = Static<typeof SavedPattern>;
