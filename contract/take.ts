import { TakeResult } from './takeResult.ts';
import { type Static, Type } from '@sinclair/typebox';
import { LONGEST_LABEL } from '../core/rhythm/text.ts';
import { Mark, MarkScale } from './judging.ts';
import { Seen } from './lineUp.ts';
import { AgesOf, Bpm, Id, Onsets, Releases, RhythmText, oneOf, orNull, strict } from './parts.ts';

const PartName = Type.String({ minLength: 1, maxLength: LONGEST_LABEL, pattern: '\\S' });

/** How a take was heard. */
export const TAKE_SOURCES = ['tap', 'microphone', 'recording', 'practice'] as const;
const TakeSource = oneOf(TAKE_SOURCES);

/** What the browser keeps in its outbox and puts to the server: no result, for the server judges it itself. */
export const TakeUpload = Type.Object(
  {
    childId: Id,
    patternId: Type.Union([Id, Type.Null()]),
    title: Type.String({ maxLength: 120 }),
    patternText: RhythmText,
    bpm: Bpm,
    onsets: Onsets,
    /**
     * Steps on the beat, where the feet were heard too; and for each onset when it was let go, where long notes were
     * held.
     */
    feet: Type.Optional(Onsets),
    releases: Type.Optional(Releases),
    /** There was no click. */
    free: Type.Optional(Type.Boolean()),
    source: Type.Optional(TakeSource),
    /** Of a pattern in several parts the one that was played; its text and title are that part's. */
    part: Type.Optional(PartName),
    /** The take that was played beside it at the same time, of another part. */
    besideId: Type.Optional(Id),
    /** In which line-up. */
    lineUpId: Type.Optional(Id),
    /** What stood there of the child when it began, and what the same device had said of it without an answer. */
    turnSeen: Type.Optional(Seen),
    /** When it was played, milliseconds since 1970. */
    takenAt: Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 }),
  },
  strict,
);
export type TakeUpload = Static<typeof TakeUpload>;

/** A mark as it was given, in the scale of then. */
export const GivenMark = Type.Object({ mark: Mark, scale: MarkScale }, strict);

export type GivenMark = Static<typeof GivenMark>;

/** A take in the list of a class; the onsets stay behind. */
export const TakeSummary = Type.Object({
  id: Id,
  childId: Id,
  patternId: Type.Union([Id, Type.Null()]),
  /** The same for all takes of one pattern, also when it is gone. */
  patternKey: Type.String(),
  title: Type.String(),
  bpm: Type.Number(),
  takenAt: Type.Integer(),
  accuracy: Type.Number(),
  mark: Type.Integer(),
  override: Type.Union([Type.Integer(), Type.Null()]),
  /** Where it was given in another scale than the class has now. */
  given: orNull(GivenMark),
  source: TakeSource,
  /** Claps were struck out or added by hand. */
  corrected: Type.Boolean(),
});
export type TakeSummary = Static<typeof TakeSummary>;

export const TakeDetail = Type.Composite([
  TakeSummary,
  Type.Object({
    patternText: Type.String(),
    ages: AgesOf,
    windows: Type.Object({
      onTime: Type.Number(),
      onTimeOfGap: Type.Number(),
      reach: Type.Number(),
      reachOfGap: Type.Number(),
    }),
    free: Type.Boolean(),
    onsets: Type.Array(Type.Number()),
    feet: Type.Union([Type.Array(Type.Number()), Type.Null()]),
    releases: Type.Union([Type.Array(Type.Union([Type.Number(), Type.Null()])), Type.Null()]),
    part: orNull(PartName),
    besideId: orNull(Id),
    result: TakeResult,
    overrideReason: Type.String(),
    /** Until when a recording of it is kept, milliseconds since 1970; null when there is none. */
    recordingUntil: Type.Union([Type.Integer(), Type.Null()]),
  }),
]);
export type TakeDetail = Static<typeof TakeDetail>;
/** Claps that were found wrongly, struck out or added by hand. */
export const OnsetCorrection = Type.Object({ onsets: Onsets }, strict);
export type OnsetCorrection = Static<typeof OnsetCorrection>;

export const MarkOverride = Type.Object(
  {
    mark: orNull(Mark),
    reason: Type.Optional(Type.String({ maxLength: 200 })),
  },
  strict,
);
export type MarkOverride = Static<typeof MarkOverride>;
