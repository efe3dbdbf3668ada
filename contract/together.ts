import { type Static, Type } from '@sinclair/typebox';
import { Bpm, Id, RhythmText, oneOf, strict } from './parts.ts';

/** How it was heard: by the microphone while it was led, from a file, from single takes. */
export const HEARD_FROM = ['microphone', 'recording', 'takes'] as const;
/** As many notes as a pattern plays at most. */
const MOST_NOTES = 4000;
const Milliseconds = Type.Number({ minimum: -60_000, maximum: 60_000 });
const Share = Type.Number({ minimum: 0, maximum: 1000 });

const place = {
  played: Type.Integer({ minimum: 0 }),
  measure: Type.Integer(),
  timeThrough: Type.Optional(Type.Integer({ minimum: 1 })),
  beat: Type.Object({ n: Type.Integer(), d: Type.Integer({ minimum: 1 }) }, strict),
};
const Silence = Type.Object({ kind: oneOf(['rest', 'hold'] as const), ...place, share: Share }, strict);
const AtNote = Type.Object({ index: Type.Integer({ minimum: 0 }), ...place }, strict);

/** What `classHeard` of the core makes. */
export const HeardClass = Type.Object(
  {
    notes: Type.Array(
      Type.Object(
        {
          index: Type.Integer({ minimum: 0 }),
          ...place,
          widthMs: Type.Optional(Milliseconds),
          aheadMs: Type.Optional(Milliseconds),
          loudness: Share,
          early: Type.Optional(Share),
          late: Type.Optional(Share),
        },
        strict,
      ),
      { maxItems: MOST_NOTES },
    ),
    rests: Type.Array(Silence, { maxItems: MOST_NOTES }),
    holds: Type.Array(Silence, { maxItems: MOST_NOTES }),
    fallsApart: Type.Optional(AtNote),
    runs: Type.Optional(AtNote),
    driftPct: Type.Number({ minimum: -1000, maximum: 1000 }),
    widthMs: Type.Optional(Milliseconds),
    aheadMs: Type.Optional(Milliseconds),
    tooFew: Type.Boolean(),
    confidence: Type.Number({ minimum: 0, maximum: 1 }),
  },
  strict,
);

/** How a class clapped a pattern together, one pass of it; nobody in it is named. */
export const HearingEdit = Type.Object(
  {
    takenAt: Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 }),
    title: Type.String({ maxLength: 120 }),
    patternText: RhythmText,
    bpm: Bpm,
    from: oneOf(HEARD_FROM),
    heard: HeardClass,
  },
  strict,
);
export type HearingEdit = Static<typeof HearingEdit>;

export const Hearing = Type.Composite([Type.Object({ id: Id }), HearingEdit], strict);
export type Hearing = Static<typeof Hearing>;

/** Of a class, newest first. */
export const Hearings = Type.Array(Hearing);
