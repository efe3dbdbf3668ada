import { type Static, Type } from '@sinclair/typebox';
import { AgesOf, orNull, strict } from './parts.ts';

/** What each mark needs. */
export const Borders = Type.Array(
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
  {
    ages: AgesOf,
    onTimeMs: orNull(Type.Integer({ minimum: 20, maximum: 400 })),
    borders: orNull(Borders),
    clickCounts: Type.Optional(Type.Boolean()),
  },
  strict,
);

export type JudgingTrial = Static<typeof JudgingTrial>;

/** How many marks would change, from which to which. */
export const JudgingPreview = Type.Object({
  /** So many were tried, the newest, of all there are. */
  takes: Type.Integer(),
  all: Type.Integer(),
  changed: Type.Integer(),
  higher: Type.Integer(),
  lower: Type.Integer(),
  marks: Type.Array(Type.Object({ mark: Type.Integer(), now: Type.Integer(), then: Type.Integer() })),
});

export type JudgingPreview = Static<typeof JudgingPreview>;

/** How far the marks of a class are that are being worked out anew. */
export const RejudgingState = Type.Union([
  Type.Object({ running: Type.Literal(false) }),
  Type.Object({
    running: Type.Literal(true),
    done: Type.Integer(),
    total: Type.Integer(),
    /** It can be broken off. */
    cancels: Type.Boolean(),
  }),
]);

export type RejudgingState = Static<typeof RejudgingState>;
