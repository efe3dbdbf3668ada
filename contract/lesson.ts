import { type Static, Type } from '@sinclair/typebox';
import { BLOCK_KINDS } from '../core/planning/lesson.ts';
import { STEPS } from '../core/planning/term.ts';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { Bpm, Day, Id, MadeBy, Name, RhythmText, Time, oneOf, orNull, strict } from './parts.ts';
import { PlanEdit } from './plan.ts';

/** What a lesson may be long, in minutes. */
const LessonMinutes = Type.Integer({ minimum: 5, maximum: 240 });
const BlockKey = Type.Integer({ minimum: 0, maximum: 1_000_000 });
export const MOST_BLOCKS = 24;
export const MOST_IN_BLOCK = 12;
/** A lesson is held so many times beside the first. */
export const MOST_AGAIN = 20;

/** A step of an element in a term; see core/planning/term.ts. */
export const TermStepEdit = Type.Object({ element: oneOf(ELEMENT_IDS), step: oneOf(STEPS) }, strict);

/** One part of a lesson; its patterns as they were when they were chosen. See core/planning/lesson.ts. */
export const BlockEdit = Type.Object(
  {
    key: BlockKey,
    kind: oneOf(BLOCK_KINDS),
    /** Typed; computed or usual where it is left out. */
    minutes: Type.Optional(Type.Number({ minimum: 0.5, maximum: 240 })),
    note: Type.Optional(Type.String({ maxLength: 200 })),
    patterns: Type.Array(Type.Object({ patternId: Id, title: Name, text: RhythmText }, strict), {
      maxItems: MOST_IN_BLOCK,
    }),
    /** What of the term is done in it; what is met is new from here on. */
    steps: Type.Array(TermStepEdit, { maxItems: ELEMENT_IDS.length * STEPS.length, uniqueItems: true }),
    plan: Type.Optional(PlanEdit),
    lineUp: Type.Optional(Type.Object({ bpm: Bpm, tries: Type.Integer({ minimum: 1, maximum: 5 }) }, strict)),
  },
  strict,
);
export type BlockEdit = Static<typeof BlockEdit>;

/** How a lesson went: when it began, how long it took, and which blocks were left out. */
const Held = Type.Object(
  {
    at: Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 }),
    seconds: Type.Integer({ minimum: 0, maximum: 86_400 }),
    leftOut: Type.Array(BlockKey, { maxItems: MOST_BLOCKS, uniqueItems: true }),
  },
  strict,
);

export const LessonEdit = Type.Object(
  {
    title: Name,
    minutes: LessonMinutes,
    /** Its day, and when it begins on it; null where it is planned for no day. */
    day: orNull(Day),
    starts: orNull(Time),
    blocks: Type.Array(BlockEdit, { maxItems: MOST_BLOCKS }),
    held: orNull(Held),
    /** It was held once more; the first time stays what counts. */
    again: Type.Optional(Type.Array(Held, { maxItems: MOST_AGAIN })),
    /** Of a copy: who made it. */
    from: Type.Optional(MadeBy),
  },
  strict,
);
export type LessonEdit = Static<typeof LessonEdit>;

export const SavedLesson = Type.Composite([Type.Object({ id: Id }), LessonEdit]);
export type SavedLesson = Static<typeof SavedLesson>;
export const SavedLessons = Type.Array(SavedLesson);
