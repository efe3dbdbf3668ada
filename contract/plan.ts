import { type Static, Type } from '@sinclair/typebox';
import { COUNT_IN_KINDS } from '../core/leading/countIn.ts';
import { LONGEST_STUDY } from '../core/leading/fading.ts';
import { ACTIVITY_IDS, MOST_PASSES, PARTS_PLANS, WHO_IDS } from '../core/leading/plan.ts';
import { Bpm, Id, MadeBy, oneOf, strict } from './parts.ts';

const MeasureNumber = Type.Integer({ minimum: 1, maximum: 10_000 });

/** How a pattern is led; see core/leading/plan.ts for what each part means. */
export const PlanEdit = Type.Object(
  {
    title: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' }),
    passes: Type.Array(Type.Object({ activity: oneOf(ACTIVITY_IDS), who: oneOf(WHO_IDS) }, strict), {
      minItems: 1,
      maxItems: MOST_PASSES,
    }),
    chunks: Type.Union([
      Type.Object({ kind: Type.Literal('whole') }, strict),
      Type.Object({ kind: Type.Literal('joined'), by: Type.Integer({ minimum: 1, maximum: 64 }) }, strict),
      Type.Object({ kind: Type.Literal('lines') }, strict),
      Type.Object({ kind: Type.Literal('range'), from: MeasureNumber, to: MeasureNumber }, strict),
    ]),
    ladder: Type.Array(
      Type.Object(
        {
          bpm: Bpm,
          passes: Type.Integer({ minimum: 1, maximum: MOST_PASSES }),
          factor: Type.Optional(Type.Union([Type.Literal(0.5), Type.Literal(1), Type.Literal(1.5), Type.Literal(2)])),
        },
        strict,
      ),
      { minItems: 1, maxItems: MOST_PASSES },
    ),
    restBeats: Type.Integer({ minimum: 0, maximum: 32 }),
    countIn: oneOf(COUNT_IN_KINDS),
    countInWords: Type.Optional(Type.Array(Type.String({ minLength: 1, maxLength: 24 }), { maxItems: 24 })),
    countInEach: Type.Boolean(),
    divided: Type.Boolean(),
    twoLines: Type.Boolean(),
    fades: Type.Optional(Type.Boolean()),
    study: Type.Optional(Type.Integer({ minimum: 0, maximum: LONGEST_STUDY })),
    parts: Type.Optional(oneOf(PARTS_PLANS)),
    /** Of a copy: who made it. */
    from: Type.Optional(MadeBy),
  },
  strict,
);
export type PlanEdit = Static<typeof PlanEdit>;
export const SavedPlan = Type.Composite([Type.Object({ id: Id }), PlanEdit]);
export type SavedPlan = Static<typeof SavedPlan>;
