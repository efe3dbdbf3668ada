import { type Static, Type } from '@sinclair/typebox';
import { PLACED_MISREADINGS } from '../core/making/focus.ts';
import { SPLITS } from '../core/making/partsOf.ts';
import { MOST_MADE_MEASURES } from '../core/making/makePattern.ts';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { CARD_SIZES, MOST_QUESTIONS, PAPERS } from '../core/sheets/sheet.ts';
import { SHEET_KINDS, VERSIONS } from '../core/sheets/sheetKinds.ts';
import { MarkScale } from './judging.ts';
import {
  AgesOf,
  BeatValue,
  Bpm,
  LevelNumber,
  Onsets,
  Releases,
  Rests,
  RhythmText,
  CountingSystem,
  Seed,
  oneOf,
  strict,
} from './parts.ts';

const RequestId = Type.Optional(Type.Union([Type.String(), Type.Number()]));

/** One line of `count --batch`. */
export const CountRequest = Type.Object(
  {
    id: RequestId,
    text: Type.String(),
    school: CountingSystem,
    rests: Type.Optional(Rests),
    beat: Type.Optional(BeatValue),
  },
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
    school: Type.Optional(CountingSystem),
    meter: Type.Optional(Type.String()),
    beat: Type.Optional(BeatValue),
  },
  strict,
);

export type SayRequest = Static<typeof SayRequest>;

/** One line of `together --batch`: a recording of a class. Seconds. */
export const TogetherRequest = Type.Object(
  {
    id: RequestId,
    wav: Type.String({ minLength: 1 }),
    pattern: RhythmText,
    bpm: Bpm,
    /** When beat 1 of measure 1 was due in the recording; left out it is its beginning. */
    start: Type.Optional(Type.Number()),
    free: Type.Optional(Type.Boolean()),
    clicks: Type.Optional(Onsets),
  },
  strict,
);

export type TogetherRequest = Static<typeof TogetherRequest>;

/** One line of the file of `together --takes`: what one child clapped; what else a take has is not looked at. */
export const TogetherTake = Type.Object({ onsets: Onsets, start: Type.Optional(Type.Number()) });

/** One line of `score --batch`. Onsets and start in seconds. */
export const ScoreRequest = Type.Object(
  {
    id: RequestId,
    pattern: RhythmText,
    bpm: Bpm,
    /** Of a pattern in parts: which one; or what was clapped in each of them. */
    part: Type.Optional(Type.String()),
    onsets: Type.Optional(Onsets),
    streams: Type.Optional(Type.Record(Type.String(), Onsets, { minProperties: 1, maxProperties: 4 })),
    start: Type.Optional(Type.Number()),
    free: Type.Optional(Type.Boolean()),
    /** Steps on the beat, the second stream; and for each onset when the key was lifted. */
    feet: Type.Optional(Onsets),
    releases: Type.Optional(Releases),
    ages: Type.Optional(AgesOf),
    /** What the mark is of; left out it is 0 to 4. */
    scale: Type.Optional(MarkScale),
  },
  strict,
);

export type ScoreRequest = Static<typeof ScoreRequest>;

const Count = Type.Optional(Type.Integer({ minimum: 1, maximum: 10_000 }));

/** `ear choose`: questions about a text, or about rhythms made of elements. */
export const EarChooseRequest = Type.Object(
  {
    id: RequestId,
    seed: Type.Optional(Seed),
    count: Count,
    text: Type.Optional(RhythmText),
    elements: Type.Optional(Type.Array(oneOf(ELEMENT_IDS), { minItems: 1, uniqueItems: true })),
    meter: Type.Optional(Type.String()),
    beats: Type.Optional(Type.Integer({ minimum: 1, maximum: 64 })),
  },
  strict,
);

export type EarChooseRequest = Static<typeof EarChooseRequest>;

/** `ear write`: what was heard, and how it was written down. */
export const EarWriteRequest = Type.Object({ id: RequestId, text: RhythmText, answer: RhythmText }, strict);

export type EarWriteRequest = Static<typeof EarWriteRequest>;

export const EarSameRequest = Type.Object({ id: RequestId, text: RhythmText }, strict);

export type EarSameRequest = Static<typeof EarSameRequest>;

export const EarSignsRequest = Type.Object({ id: RequestId, seed: Seed, count: Count }, strict);

export type EarSignsRequest = Static<typeof EarSignsRequest>;

const Moment = Type.Union([Type.Number(), Type.String({ maxLength: 40 })]);

/** One line of `records --batch`: a take as `score` reads it, of which child and when. */
export const RecordsRequest = Type.Composite(
  [
    ScoreRequest,
    Type.Object({
      child: Type.Union([Type.String(), Type.Number()]),
      /** Milliseconds since 1970, or a date with its time. */
      takenAt: Moment,
      /** The teacher's own mark, as it stands in the scale. */
      mark: Type.Optional(Type.Union([Type.Integer({ minimum: 0, maximum: 100 }), Type.String(), Type.Null()])),
    }),
  ],
  strict,
);

export type RecordsRequest = Static<typeof RecordsRequest>;

/** One line of `convert --batch`: files by name, the measures as "5-8" or "5". */
export const ConvertRequest = Type.Object(
  {
    id: RequestId,
    in: Type.String({ minLength: 1 }),
    out: Type.String({ minLength: 1 }),
    part: Type.Optional(Type.String()),
    voice: Type.Optional(Type.String()),
    measures: Type.Optional(Type.String({ pattern: '^\\s*\\d{1,6}\\s*(-\\s*\\d{1,6}\\s*)?$' })),
    letters: Type.Optional(Type.Boolean()),
    bpm: Type.Optional(Bpm),
    /** Counts under the notes, where a format has room for them. */
    school: Type.Optional(CountingSystem),
    eachRest: Type.Optional(Type.Boolean()),
  },
  strict,
);

export type ConvertRequest = Static<typeof ConvertRequest>;

/** `parts WAY`: a rhythm in parts, made of one, or of two. */
export const PartsRequest = Type.Object(
  {
    id: RequestId,
    way: oneOf([...SPLITS, 'beat', 'missing', 'canon', 'join', 'ostinato', 'pass-on'] as const),
    text: RhythmText,
    /** The second rhythm, of `join` and `ostinato`. */
    other: Type.Optional(RhythmText),
    names: Type.Optional(Type.Array(Type.String({ minLength: 1, maxLength: 40 }), { minItems: 1, maxItems: 4 })),
    /** Of a canon: counted beats from one part to the next, and how many there are. */
    beats: Type.Optional(Type.Integer({ minimum: 1, maximum: 64 })),
    voices: Type.Optional(Type.Integer({ minimum: 2, maximum: 4 })),
  },
  strict,
);

export type PartsRequest = Static<typeof PartsRequest>;

/** `sheet KIND`: the questions of one part of a sheet. */
export const SheetRequest = Type.Object(
  {
    id: RequestId,
    kind: oneOf(SHEET_KINDS),
    seed: Type.Optional(Seed),
    elements: Type.Optional(Type.Array(oneOf(ELEMENT_IDS), { minItems: 1 })),
    level: Type.Optional(LevelNumber),
    count: Type.Optional(Type.Integer({ minimum: 1, maximum: MOST_QUESTIONS })),
    paper: Type.Optional(oneOf(PAPERS)),
    version: Type.Optional(oneOf(VERSIONS)),
    large: Type.Optional(Type.Boolean()),
    meter: Type.Optional(Type.String()),
    beat: Type.Optional(BeatValue),
    school: Type.Optional(CountingSystem),
    rests: Type.Optional(Rests),
    cards: Type.Optional(oneOf(CARD_SIZES)),
    /** The teacher's own patterns instead of made ones. */
    text: Type.Optional(RhythmText),
  },
  strict,
);

export type SheetRequest = Static<typeof SheetRequest>;

/** `elements` and `level`: one rhythm. */
export const PatternRequest = Type.Object({ id: RequestId, text: RhythmText }, strict);

export type PatternRequest = Static<typeof PatternRequest>;

/** `make`: patterns of chosen elements; `known` are the class's own, which none may sound like. */
export const MakeRequest = Type.Object(
  {
    id: RequestId,
    meter: Type.Optional(Type.String()),
    measures: Type.Optional(Type.Integer({ minimum: 1, maximum: MOST_MADE_MEASURES })),
    elements: Type.Optional(Type.Array(oneOf(ELEMENT_IDS), { minItems: 1 })),
    focus: Type.Optional(oneOf(ELEMENT_IDS)),
    misreading: Type.Optional(oneOf(PLACED_MISREADINGS)),
    level: Type.Optional(LevelNumber),
    count: Count,
    seed: Type.Optional(Seed),
    known: Type.Optional(Type.Array(RhythmText, { maxItems: 1000 })),
  },
  strict,
);

export type MakeRequest = Static<typeof MakeRequest>;
