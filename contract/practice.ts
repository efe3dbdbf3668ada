import { type Static, Type } from '@sinclair/typebox';
import { Bpm, Day, Id, Name, RhythmText, orNull, strict } from './parts.ts';

export const DAYS_A_WEEK = 7;

/** What is practised: a pattern as it is now, how fast, how often on a day, and on which days after the first. */
const PracticeItem = Type.Object(
  {
    patternId: Id,
    title: Type.String({ minLength: 1, maxLength: 120 }),
    text: RhythmText,
    bpm: Bpm,
    times: Type.Integer({ minimum: 1, maximum: 20 }),
    days: Type.Array(Type.Integer({ minimum: 0, maximum: DAYS_A_WEEK - 1 }), {
      minItems: 1,
      maxItems: DAYS_A_WEEK,
      uniqueItems: true,
    }),
  },
  strict,
);
export type PracticeItem = Static<typeof PracticeItem>;

export const PracticePlan = Type.Object(
  {
    title: Name,
    items: Type.Array(PracticeItem, { minItems: 1, maxItems: 12 }),
    /** Who practises; null is the whole class. */
    children: orNull(Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true })),
  },
  strict,
);
export type PracticePlan = Static<typeof PracticePlan>;

export const PracticeEdit = Type.Object({ starts: Day, plan: PracticePlan }, strict);
export type PracticeEdit = Static<typeof PracticeEdit>;

/** How often a child was heard with an item on a day of the week. */
const Practised = Type.Object({
  childId: Id,
  item: Type.Integer(),
  day: Type.Integer(),
  times: Type.Integer(),
});

export const PracticeWeek = Type.Object({
  id: Id,
  starts: Day,
  plan: PracticePlan,
  practised: Type.Array(Practised),
});
export type PracticeWeek = Static<typeof PracticeWeek>;

export const PracticeWeeks = Type.Array(PracticeWeek);
