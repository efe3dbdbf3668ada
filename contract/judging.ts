import { type Static, Type } from '@sinclair/typebox';
import { FEWEST_WORDS, LONGEST_WORD, MOST_WORDS, NAMED_SCALES } from '../core/judging/scale.ts';
import { AgesOf, oneOf, orNull, strict } from './parts.ts';

/** A mark as a step of its scale, from 0; the longest scale is per cent. */
export const Mark = Type.Integer({ minimum: 0, maximum: 100 });

/** The scale that a class has, by name or in words of its own, the lowest first. */
export const MarkScale = Type.Union([
  oneOf(NAMED_SCALES),
  Type.Array(Type.String({ minLength: 1, maxLength: LONGEST_WORD }), { minItems: FEWEST_WORDS, maxItems: MOST_WORDS }),
]);

export type MarkScale = Static<typeof MarkScale>;

/** What each mark needs. */
export const Borders = Type.Array(
  Type.Object(
    {
      mark: Type.Integer({ minimum: 1, maximum: 100 }),
      accuracy: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
      driftPct: Type.Optional(Type.Number({ minimum: 0, maximum: 100 })),
    },
    strict,
  ),
  { minItems: 1, maxItems: 10 },
);

/** What judging depends on, tried out on the takes there are. */
export const JudgingTrial = Type.Object(
  {
    ages: AgesOf,
    onTimeMs: orNull(Type.Integer({ minimum: 20, maximum: 400 })),
    borders: orNull(Borders),
    clickCounts: Type.Optional(Type.Boolean()),
    /** null is 0 to 4. */
    scale: Type.Optional(orNull(MarkScale)),
  },
  strict,
);

export type JudgingTrial = Static<typeof JudgingTrial>;

/**
 * How many marks would change, from which to which; all of them in the scale that is tried, what there is now carried
 * into it.
 */
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
