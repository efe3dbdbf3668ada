import { type Static, Type } from '@sinclair/typebox';
import { NAMING_IDS } from '../core/wording/valueNames.ts';
import { AgesOf, Id, Rests, RhythmText, School, oneOf, orNull, strict } from './parts.ts';
import { TakeSummary } from './take.ts';

const Name = Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' });

export const SignIn = Type.Object(
  { name: Type.String({ minLength: 1, maxLength: 60 }), password: Type.String({ minLength: 1, maxLength: 200 }) },
  strict,
);
export type SignIn = Static<typeof SignIn>;

export const Teacher = Type.Object({ id: Id, name: Type.String() });
export type Teacher = Static<typeof Teacher>;

/** What the page needs before it can draw anything: who is signed in, and whether this is the demo. */
export const SessionState = Type.Object({ teacher: orNull(Teacher), demo: Type.Boolean() });
export type SessionState = Static<typeof SessionState>;

const WordSet = Type.Object(
  {
    title: Type.String({ minLength: 1, maxLength: 60 }),
    cells: Type.Record(Type.String(), Type.String({ maxLength: 60 })),
  },
  strict,
);

const Borders = Type.Array(
  Type.Object(
    {
      mark: Type.Integer({ minimum: 2, maximum: 4 }),
      accuracy: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
      driftPct: Type.Optional(Type.Number({ minimum: 0, maximum: 100 })),
    },
    strict,
  ),
  { minItems: 1, maxItems: 3 },
);

/** What judging depends on, tried out on the takes there are. */
export const JudgingTrial = Type.Object(
  { ages: AgesOf, onTimeMs: orNull(Type.Integer({ minimum: 20, maximum: 400 })), borders: orNull(Borders) },
  strict,
);
export type JudgingTrial = Static<typeof JudgingTrial>;

/** How many marks would change, from which to which. */
export const JudgingPreview = Type.Object({
  takes: Type.Integer(),
  changed: Type.Integer(),
  higher: Type.Integer(),
  lower: Type.Integer(),
  marks: Type.Array(Type.Object({ mark: Type.Integer(), now: Type.Integer(), then: Type.Integer() })),
});
export type JudgingPreview = Static<typeof JudgingPreview>;

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
    /** What is on time, milliseconds either way; null is as usual for the ages. */
    onTimeMs: Type.Optional(orNull(Type.Integer({ minimum: 20, maximum: 400 }))),
    /** What each mark needs; null is as usual. */
    borders: Type.Optional(orNull(Borders)),
    /** Recordings of children are kept for so many days; null keeps none. */
    recordingDays: Type.Optional(orNull(Type.Integer({ minimum: 1, maximum: 365 }))),
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
export const ClassDetail = Type.Composite([
  Type.Object({ id: Id, children: Type.Array(Child), takes: Type.Array(TakeSummary) }),
  ClassSettings,
]);
export type ClassDetail = Static<typeof ClassDetail>;

export const PatternEdit = Type.Object({ title: Name, text: RhythmText }, strict);
export type PatternEdit = Static<typeof PatternEdit>;
export const SavedPattern = Type.Object({ id: Id, title: Type.String(), text: Type.String() });
export type SavedPattern = Static<typeof SavedPattern>;
