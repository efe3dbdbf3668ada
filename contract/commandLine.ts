import { type Static, Type } from '@sinclair/typebox';
import { AgesOf, BeatValue, Bpm, Onsets, Releases, Rests, RhythmText, School, strict } from './parts.ts';

const RequestId = Type.Optional(Type.Union([Type.String(), Type.Number()]));

/** One line of `count --batch`. */
export const CountRequest = Type.Object(
  { id: RequestId, text: Type.String(), school: School, rests: Type.Optional(Rests), beat: Type.Optional(BeatValue) },
  strict,
);

export type CountRequest = Static<typeof CountRequest>;

/** One line of `check --batch`. */
export const CheckRequest = Type.Object({ id: RequestId, text: Type.String(), beat: Type.Optional(BeatValue) }, strict);

export type CheckRequest = Static<typeof CheckRequest>;

/** One line of `say --batch`. */
export const SayRequest = Type.Object(
  {
    id: RequestId,
    text: Type.String(),
    school: Type.Optional(School),
    meter: Type.Optional(Type.String()),
    beat: Type.Optional(BeatValue),
  },
  strict,
);

export type SayRequest = Static<typeof SayRequest>;

/** One line of `score --batch`. Onsets and start in seconds. */
export const ScoreRequest = Type.Object(
  {
    id: RequestId,
    pattern: RhythmText,
    bpm: Bpm,
    onsets: Onsets,
    start: Type.Optional(Type.Number()),
    free: Type.Optional(Type.Boolean()),
    /** Steps on the beat, the second stream; and for each onset when the key was lifted. */
    feet: Type.Optional(Onsets),
    releases: Type.Optional(Releases),
    ages: Type.Optional(AgesOf),
  },
  strict,
);

export type ScoreRequest = Static<typeof ScoreRequest>;

const Moment = Type.Union([Type.Number(), Type.String({ maxLength: 40 })]);

/** One line of `records --batch`: a take as `score` reads it, of which child and when. */
export const RecordsRequest = Type.Composite(
  [
    ScoreRequest,
    Type.Object({
      child: Type.Union([Type.String(), Type.Number()]),
      /** Milliseconds since 1970, or a date with its time. */
      takenAt: Moment,
      /** The teacher's own mark. */
      mark: Type.Optional(Type.Union([Type.Integer({ minimum: 0, maximum: 4 }), Type.Null()])),
    }),
  ],
  strict,
);

export type RecordsRequest = Static<typeof RecordsRequest>;
