import { type Static, Type } from '@sinclair/typebox';
import { Id, oneOf, strict } from './parts.ts';

/** The views in which a class is asked. */
export const EAR_KINDS = ['echo', 'choose', 'write', 'signs'] as const;
export type EarKind = (typeof EAR_KINDS)[number];

const MOST_ASKED = 100_000;

/** How a run with the whole class went: of so many answers so many right, and what the others were taken for. */
export const EarTallyEdit = Type.Object(
  {
    kind: oneOf(EAR_KINDS),
    takenAt: Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 }),
    right: Type.Integer({ minimum: 0, maximum: MOST_ASKED }),
    asked: Type.Integer({ minimum: 1, maximum: MOST_ASKED }),
    /** By what was mistaken, how often. */
    mistakes: Type.Record(
      Type.String({ pattern: '^[a-z-]{1,40}$' }),
      Type.Integer({ minimum: 1, maximum: MOST_ASKED }),
      { ...strict, maxProperties: 60 },
    ),
  },
  strict,
);
export type EarTallyEdit = Static<typeof EarTallyEdit>;

export const EarTally = Type.Composite([Type.Object({ id: Id }), EarTallyEdit], strict);
export type EarTally = Static<typeof EarTally>;

/** Of a class, newest first. */
export const EarTallies = Type.Array(EarTally);
