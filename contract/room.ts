import { type Static, Type } from '@sinclair/typebox';
import { NAMING_IDS } from '../core/wording/valueNames.ts';
import { COUNTED_TAKES } from './schoolClass.ts';
import { Borders, MarkScale } from './judging.ts';
import {
  LanguageOf,
  AgesOf,
  Bpm,
  CountingSystem,
  Id,
  Onsets,
  Releases,
  Rests,
  RhythmText,
  WordSet,
  oneOf,
  orNull,
  strict,
} from './parts.ts';
import { CODE_LENGTH, PICTURES, PICTURES_OF_A_ROOM } from './roomPictures.ts';
import { TakeResult } from './takeResult.ts';

/** A room ends by itself after a lesson. */
export const ROOM_LASTS_MS = 90 * 60_000;

/** Milliseconds since 1970 on the clock of the room. */
const Moment = Type.Number({ minimum: 0, maximum: 8_640_000_000_000 });

export const RoomPictures = Type.Array(oneOf(PICTURES), {
  minItems: PICTURES_OF_A_ROOM,
  maxItems: PICTURES_OF_A_ROOM,
});

/** The pictures as they were tapped. */
export const EnterRoom = Type.Object({ pictures: RoomPictures }, strict);
export type EnterRoom = Static<typeof EnterRoom>;

/** Who sits down: by its name from those that are free, or by its code. */
export const TakeSeat = Type.Union([
  Type.Object({ childId: Id }, strict),
  Type.Object({ code: Type.String({ pattern: `^[0-9]{${CODE_LENGTH}}$` }) }, strict),
]);
export type TakeSeat = Static<typeof TakeSeat>;

/** What somebody who has the pictures sees: the names that are free, or that a code is asked for. */
export const RoomDoor = Type.Object({
  codes: Type.Boolean(),
  names: Type.Array(Type.Object({ id: Id, name: Type.String() })),
});
export type RoomDoor = Static<typeof RoomDoor>;

const Heard = Type.Object({ text: RhythmText, bpm: Bpm }, strict);

/** A part of a pattern in parts, as its devices are given it. */
const TaskPart = Type.Object({ name: Type.String({ minLength: 1, maxLength: 60 }), text: RhythmText }, strict);

const Line = Type.String({ maxLength: 400 });

/** All clap the same, or each its part. */
const TakeTask = Type.Object(
  {
    kind: Type.Literal('take'),
    patternId: orNull(Id),
    title: Type.String({ maxLength: 120 }),
    text: RhythmText,
    bpm: Bpm,
    heardBy: oneOf(['tap', 'microphone']),
    /** Nothing is shown: it is played first, and clapped back. */
    echo: Type.Boolean(),
    /** Of a pattern in parts what each device has, one after the other. */
    parts: Type.Array(TaskPart, { maxItems: 8 }),
  },
  strict,
);
export type TakeTask = Static<typeof TakeTask>;

/** A question with answers at A to D, as on paper. Words are made where it is asked. */
const QuestionTask = Type.Object(
  {
    kind: Type.Literal('question'),
    view: oneOf(['choose', 'signs', 'values']),
    asked: Line,
    /** What is played to the class before it answers. */
    heard: orNull(Heard),
    /** All of it as facts, for the board alone: no device is told. */
    facts: Type.String({ maxLength: 8000 }),
    options: Type.Array(Type.Object({ words: Line, rhythm: orNull(RhythmText) }, strict), { minItems: 2, maxItems: 4 }),
    right: Type.Array(Type.Integer({ minimum: 0, maximum: 3 }), { minItems: 1, maxItems: 4 }),
    /** Why, for when the answer is shown. */
    reasons: Type.Array(Line, { maxItems: 12 }),
  },
  strict,
);
export type QuestionTask = Static<typeof QuestionTask>;

/** What is heard is written down. */
const WriteTask = Type.Object({ kind: Type.Literal('write'), text: RhythmText, bpm: Bpm }, strict);
export type WriteTask = Static<typeof WriteTask>;

export const RoomTask = Type.Union([TakeTask, QuestionTask, WriteTask]);
export type RoomTask = Static<typeof RoomTask>;

export const PHASES = ['ready', 'going', 'answer'] as const;
export type Phase = (typeof PHASES)[number];

/** One thing that all do, as the teacher sends it. */
export const RoundEdit = Type.Object(
  {
    /** Counts the rounds of a room from 1. */
    number: Type.Integer({ minimum: 1, maximum: 1000 }),
    task: RoomTask,
    phase: oneOf(PHASES),
    /** Beat 1 of measure 1 of a take; where it is an echo, of the second time. Null where nothing is in time. */
    startsAt: orNull(Moment),
  },
  strict,
);
export type RoundEdit = Static<typeof RoundEdit>;

/** Set while a room is open. */
export const RoomSettings = Type.Object(
  {
    /** Children sit down by a code instead of their names. */
    codes: Type.Boolean(),
    /** Each sees the mark of its own take. */
    marksShown: Type.Boolean(),
    /** The names of those who are in stand on the board. */
    namesShown: Type.Boolean(),
  },
  strict,
);
export type RoomSettings = Static<typeof RoomSettings>;

export const RoomEdit = Type.Object({ ...RoomSettings.properties, newPictures: Type.Optional(Type.Boolean()) }, strict);
export type RoomEdit = Static<typeof RoomEdit>;

/** What a child said or did in a round. */
const Done = Type.Object({
  ready: Type.Boolean(),
  option: orNull(Type.Integer()),
  text: orNull(Type.String()),
  takeId: orNull(Id),
});
export type Done = Static<typeof Done>;

/** A child at its device, as its teacher sees it. */
const Seat = Type.Object({
  childId: Id,
  name: Type.String(),
  /** Its device has not been heard of for a while. */
  away: Type.Boolean(),
  /** Of a pattern in parts which it has: counts who sat down. */
  place: Type.Integer(),
  done: Done,
  mark: orNull(Type.Integer()),
});
export type Seat = Static<typeof Seat>;

export const Room = Type.Object({
  id: Id,
  classId: Id,
  pictures: RoomPictures,
  ...RoomSettings.properties,
  openedAt: Moment,
  endsAt: Moment,
  /** Somebody tries pictures that are not those of this room, and nearly are. */
  guessed: Type.Boolean(),
  size: Type.Integer(),
  /** Where devices of the server's own networks come in: none where it listens to its machine alone. */
  addresses: Type.Array(Type.String()),
  seats: Type.Array(Seat),
  round: orNull(RoundEdit),
});
export type Room = Static<typeof Room>;

/** The room of a class that is open, if one is. */
export const OpenRooms = Type.Array(Type.Object({ id: Id, openedAt: Moment, endsAt: Moment }));
export type OpenRooms = Static<typeof OpenRooms>;

/** The codes of a class, for its teacher. */
export const RoomCodes = Type.Array(Type.Object({ childId: Id, name: Type.String(), code: Type.String() }));
export type RoomCodes = Static<typeof RoomCodes>;

/** What was clapped in a round. */
export const RoundResults = Type.Array(
  Type.Object({ childId: Id, takeId: Id, part: orNull(Type.String()), mark: Type.Integer(), result: TakeResult }),
);
export type RoundResults = Static<typeof RoundResults>;

/** A round as a child's device is told: nothing that is right is in it before the answer is shown. */
const ChildTask = Type.Union([
  Type.Object({
    kind: Type.Literal('take'),
    title: Type.String(),
    text: Type.String(),
    part: orNull(Type.String()),
    bpm: Type.Number(),
    heardBy: oneOf(['tap', 'microphone']),
    echo: Type.Boolean(),
  }),
  Type.Object({
    kind: Type.Literal('question'),
    asked: Type.String(),
    options: Type.Array(Type.Object({ words: Type.String(), rhythm: orNull(Type.String()) })),
    right: orNull(Type.Array(Type.Integer())),
    reasons: Type.Array(Type.String()),
  }),
  Type.Object({
    kind: Type.Literal('write'),
    meter: Type.String(),
    measures: Type.Integer(),
    bpm: Type.Number(),
    text: orNull(Type.String()),
  }),
]);
export type ChildTask = Static<typeof ChildTask>;

/** How a class speaks and judges: what a device needs to say its result in the class's words. */
export const ClassVoice = Type.Object({
  ages: AgesOf,
  school: CountingSystem,
  rests: orNull(Rests),
  naming: Type.Optional(oneOf(NAMING_IDS)),
  language: Type.Optional(orNull(LanguageOf)),
  houseWords: Type.Optional(Type.Record(Type.String(), Type.Record(Type.String(), Type.String()))),
  wordSet: Type.Optional(orNull(WordSet)),
  onTimeMs: Type.Optional(orNull(Type.Integer())),
  borders: Type.Optional(orNull(Borders)),
  scale: Type.Optional(orNull(MarkScale)),
  clickCounts: Type.Optional(Type.Boolean()),
  counts: Type.Optional(oneOf(COUNTED_TAKES)),
});
export type ClassVoice = Static<typeof ClassVoice>;

/** A room as one child's device sees it. */
export const ChildRoom = Type.Object({
  name: Type.String(),
  endsAt: Moment,
  voice: ClassVoice,
  /** Its windows are so many times as wide. */
  wider: Type.Number(),
  marksShown: Type.Boolean(),
  round: orNull(
    Type.Object({ number: Type.Integer(), phase: oneOf(PHASES), startsAt: orNull(Moment), task: ChildTask }),
  ),
  done: Done,
  mark: orNull(Type.Integer()),
});
export type ChildRoom = Static<typeof ChildRoom>;

/** What a child answers. */
export const RoundAnswer = Type.Union([
  Type.Object({ option: Type.Integer({ minimum: 0, maximum: 3 }) }, strict),
  Type.Object({ text: Type.String({ minLength: 1, maxLength: 400 }) }, strict),
]);
export type RoundAnswer = Static<typeof RoundAnswer>;

/** What a child clapped, in seconds from beat 1 of measure 1; whose and what it is the room knows. */
export const RoomTake = Type.Object(
  {
    round: Type.Integer({ minimum: 1 }),
    onsets: Onsets,
    releases: Type.Optional(Releases),
    /** How it was heard, where that is not as it was asked for. */
    source: Type.Optional(oneOf(['tap', 'microphone'])),
  },
  strict,
);
export type RoomTake = Static<typeof RoomTake>;

/** What the clock of the room shows. */
export const RoomClock = Type.Object({ now: Moment });
export type RoomClock = Static<typeof RoomClock>;
