import { type Static, Type } from '@sinclair/typebox';
import type { ClassHeard } from '../core/ensemble/classHeard.ts';
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
const noted = { index: Type.Integer({ minimum: 0 }), ...place };
const Fewer = Type.Object({ ...noted, kind: oneOf(['stop', 'join'] as const), share: Share }, strict);
const AtNote = Type.Object(noted, strict);

/** What `classHeard` of the core makes. */
const HeardClass = Type.Unsafe<ClassHeard>(
  Type.Object(
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
      fewer: Type.Optional(Fewer),
      driftPct: Type.Number({ minimum: -1000, maximum: 1000 }),
      widthMs: Type.Optional(Milliseconds),
      aheadMs: Type.Optional(Milliseconds),
      tooFew: Type.Boolean(),
      confidence: Type.Number({ minimum: 0, maximum: 1 }),
    },
    strict,
  ),
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

/** Takes of one pattern, to be looked at side by side; a child may have several. */
export const TakesTogether = Type.Object({
  /** As the newest of them was written: those of another text are left out, and how many those are. */
  patternText: Type.String(),
  title: Type.String(),
  others: Type.Integer(),
  takes: Type.Array(
    Type.Object({
      id: Id,
      childId: Id,
      takenAt: Type.Integer(),
      bpm: Type.Number(),
      mark: Type.Integer(),
      accuracy: Type.Number(),
      /** Seconds from beat 1 of measure 1 at its tempo; without a click on the child's own beat. */
      onsets: Type.Array(Type.Number()),
    }),
  ),
});
export type TakesTogether = Static<typeof TakesTogether>;
