import { type Static, Type } from '@sinclair/typebox';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { TermStepEdit } from './lesson.ts';
import { Day, Time, oneOf, orNull, strict } from './parts.ts';

/** Lessons of a term at most: twice on every school day of a year. */
export const MOST_LESSONS = 400;

const Steps = Type.Array(TermStepEdit, { maxItems: 60 });

/** What a class does in a term: its days, the new elements in the teacher's order, and what is done in each lesson. */
export const TermPlanEdit = Type.Object(
  {
    from: Day,
    until: Day,
    slots: Type.Array(
      Type.Object(
        {
          weekday: Type.Integer({ minimum: 0, maximum: 6 }),
          starts: Time,
          minutes: Type.Integer({ minimum: 5, maximum: 240 }),
        },
        strict,
      ),
      { maxItems: 14 },
    ),
    holidays: Type.Array(Type.Object({ from: Day, until: Day }, strict), { maxItems: 30 }),
    order: Type.Array(oneOf(ELEMENT_IDS), { maxItems: ELEMENT_IDS.length, uniqueItems: true }),
    /** New steps, lesson by lesson in the order of the days. */
    contents: Type.Array(Steps, { maxItems: MOST_LESSONS }),
    /** What does not fit into the term any more. */
    left: Steps,
  },
  strict,
);
export type TermPlanEdit = Static<typeof TermPlanEdit>;

/** Null where the class has none yet. */
export const TermPlan = orNull(TermPlanEdit);

/** What was heard of an element in a week: see core/planning/picture.ts. */
export const HeardWeeks = Type.Array(
  Type.Object({
    week: Day,
    element: oneOf(ELEMENT_IDS),
    children: Type.Integer(),
    right: Type.Number(),
    weight: Type.Number(),
  }),
);
export type HeardWeeks = Static<typeof HeardWeeks>;
