import { type Static, Type } from '@sinclair/typebox';
import { MISREADING_CODES } from '../core/judging/misreadings/misreading.ts';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { AgesOf, BeatValue, Bpm, Id, Onsets, Releases, Rests, RhythmText, School, oneOf, strict } from './parts.ts';

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

const Verdict = oneOf(['on-time', 'early', 'late', 'missed'] as const);
const ExtraKind = oneOf(['rest', 'hold', 'tie', 'bounce', 'after', 'other'] as const);
const Place = { measure: Type.Integer(), beat: Type.String() };

/** What judging gives; the server stores it beside the onsets it came from. */
export const TakeResult = Type.Object({
  notes: Type.Array(
    Type.Object({ index: Type.Integer(), ...Place, verdict: Verdict, errorMs: Type.Optional(Type.Number()) }),
  ),
  extras: Type.Array(Type.Object({ time: Type.Number(), ...Place, kind: ExtraKind })),
  misreadings: Type.Array(Type.Object({ code: oneOf(MISREADING_CODES), ...Place, sentence: Type.String() })),
  tempo: Type.Object({ bpm: Type.Number(), driftPct: Type.Number(), spreadMs: Type.Number(), leadMs: Type.Number() }),
  follow: Type.Array(Type.Object({ fromNote: Type.Integer(), beatsAhead: Type.String() })),
  /** Absent in takes judged before it was measured; null without a click. */
  withBeat: Type.Optional(Type.Union([Type.Number(), Type.Null()])),
  heard: Type.String(),
  accuracy: Type.Number(),
  mark: Type.Integer(),
  feet: Type.Optional(
    Type.Object({
      onBeat: Type.Integer(),
      beats: Type.Integer(),
      extras: Type.Integer(),
      leadMs: Type.Optional(Type.Number()),
      handsLaterMs: Type.Number(),
      apartMs: Type.Number(),
    }),
  ),
  holds: Type.Optional(
    Type.Array(
      Type.Object({
        index: Type.Integer(),
        verdict: oneOf(['kept', 'cut', 'held-over'] as const),
        heldS: Type.Number(),
        writtenS: Type.Number(),
      }),
    ),
  ),
});
export type TakeResult = Static<typeof TakeResult>;

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
    /** Steps on the beat, where the feet were heard too; and for each onset when it was let go, where long notes were held. */
    feet: Type.Optional(Onsets),
    releases: Type.Optional(Releases),
    /** There was no click. */
    free: Type.Optional(Type.Boolean()),
    source: Type.Optional(TakeSource),
    /** When it was played, milliseconds since 1970. */
    takenAt: Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 }),
  },
  strict,
);
export type TakeUpload = Static<typeof TakeUpload>;

/** A take in the list of a class; the onsets stay behind. */
export const TakeSummary = Type.Object({
  id: Id,
  childId: Id,
  patternId: Type.Union([Id, Type.Null()]),
  title: Type.String(),
  bpm: Type.Number(),
  takenAt: Type.Integer(),
  accuracy: Type.Number(),
  mark: Type.Integer(),
  override: Type.Union([Type.Integer(), Type.Null()]),
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
    result: TakeResult,
    overrideReason: Type.String(),
    /** Until when a recording of it is kept, milliseconds since 1970; null when there is none. */
    recordingUntil: Type.Union([Type.Integer(), Type.Null()]),
  }),
]);
export type TakeDetail = Static<typeof TakeDetail>;

/** How well a child knows each element of rhythm it has met, in their usual order. */
export const ChildMastery = Type.Array(
  Type.Object({ element: oneOf(ELEMENT_IDS), heard: Type.Integer(), right: Type.Number(), lastSeen: Type.Integer() }),
);
export type ChildMastery = Static<typeof ChildMastery>;

/** Claps that were found wrongly, struck out or added by hand. */
export const OnsetCorrection = Type.Object({ onsets: Onsets }, strict);
export type OnsetCorrection = Static<typeof OnsetCorrection>;

export const MarkOverride = Type.Object(
  {
    mark: Type.Union([Type.Integer({ minimum: 0, maximum: 4 }), Type.Null()]),
    reason: Type.Optional(Type.String({ maxLength: 200 })),
  },
  strict,
);
export type MarkOverride = Static<typeof MarkOverride>;
