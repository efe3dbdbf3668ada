import { Child } from './child.ts';
import { edited } from './edited.ts';
import { Borders, MarkScale } from './judging.ts';
import { type Static, Type } from '@sinclair/typebox';
import { NAMING_IDS } from '../core/wording/valueNames.ts';
import { AgesOf, Id, LanguageOf, Name, Rests, CountingSystem, WordSet, oneOf, orNull, strict } from './parts.ts';

/** Which of several takes of a pattern counts. */
export const COUNTED_TAKES = ['best', 'last', 'average'] as const;
export type CountedTake = (typeof COUNTED_TAKES)[number];

/** What a teacher sets for a class. */
export const ClassSettings = Type.Object(
  {
    name: Name,
    ages: AgesOf,
    school: CountingSystem,
    rests: orNull(Rests),
    /** What the values are called. */
    naming: Type.Optional(oneOf(NAMING_IDS)),
    /** What children see and hear; null is the language of the teacher. */
    language: Type.Optional(orNull(LanguageOf)),
    /** The teacher's own words, by school and place; what is left out is as in the school. */
    houseWords: Type.Optional(Type.Record(Type.String(), Type.Record(Type.String(), Type.String({ maxLength: 40 })))),
    /** Words for cells; null for the set that ships. */
    wordSet: Type.Optional(orNull(WordSet)),
    /** What is on time, milliseconds either way; null is as usual for the ages. */
    onTimeMs: Type.Optional(orNull(Type.Integer({ minimum: 20, maximum: 400 }))),
    /** What each mark needs; null is as usual. */
    borders: Type.Optional(orNull(Borders)),
    /** What marks look like; null is 0 to 4. */
    scale: Type.Optional(orNull(MarkScale)),
    /** Keeping the click counts too: an own tempo or a wrong entry lowers the mark by one. */
    clickCounts: Type.Optional(Type.Boolean()),
    /** Which of several takes of a pattern counts; left out it is the best. */
    counts: Type.Optional(oneOf(COUNTED_TAKES)),
    /** Recordings of children are kept for so many days; null keeps none. */
    recordingDays: Type.Optional(orNull(Type.Integer({ minimum: 1, maximum: 365 }))),
  },
  strict,
);
export type ClassSettings = Static<typeof ClassSettings>;

/**
 * A class that is made, at a school of its teacher's, or changed; then the school is of no account. It stands in what a
 * class was, for pages send back what they were given.
 */
export const NewOrEditedClass = edited(
  Type.Composite([ClassSettings, Type.Object({ schoolId: Type.Optional(Id) })], strict),
);

/** What a teacher may do with a class: look at it, also hear its children and give marks, or all. */
export const ROLES = ['look', 'hear', 'owner'] as const;
export type Role = (typeof ROLES)[number];

/** What this teacher may do, whose class it is, and at which school; that is not known of answers kept from before. */
const access = { role: oneOf(ROLES), owner: Type.String(), schoolId: Type.Optional(Id) };

export const ClassSummary = Type.Composite([
  Type.Object({ id: Id, children: Type.Integer(), ...access }),
  ClassSettings,
]);
export type ClassSummary = Static<typeof ClassSummary>;
/** A class with its children; their marks are in its records. */
export const ClassDetail = Type.Composite([
  Type.Object({ id: Id, children: Type.Array(Child), ...access }),
  ClassSettings,
]);
export type ClassDetail = Static<typeof ClassDetail>;
