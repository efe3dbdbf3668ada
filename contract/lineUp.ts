import { type Static, Type } from '@sinclair/typebox';
import { MOST_DEALT, ORDERS } from '../core/records/lineUp.ts';
import { TURN_STATES } from '../core/records/turns.ts';
import { Mark } from './judging.ts';
import { SavedPattern } from './pattern.ts';
import { Bpm, Id, Name, oneOf, orNull, strict } from './parts.ts';

/** Set before a line-up starts. */
export const LineUpSettings = Type.Object(
  {
    /** One pattern for all, or several that are dealt out so that neighbours have different ones. */
    patternIds: Type.Array(Id, { minItems: 1, maxItems: MOST_DEALT }),
    seed: Type.Integer({ minimum: 0, maximum: 0xffff_ffff }),
    bpm: Bpm,
    heardBy: oneOf(['tap', 'microphone']),
    /** Each child may try so often; the best of them counts or the last, as the class has it. */
    tries: Type.Integer({ minimum: 1, maximum: 5 }),
    order: oneOf(ORDERS),
    /** With the microphone: the next child is counted in as soon as the room is quiet. */
    startsItself: Type.Boolean(),
    /** Of a pattern in parts two children tap two parts at once. */
    pairs: Type.Optional(Type.Boolean()),
  },
  strict,
);
export type LineUpSettings = Static<typeof LineUpSettings>;

/** What is said of one child. */
export const Said = Type.Object({ state: oneOf(TURN_STATES), mark: orNull(Mark) }, strict);

/** What stood there, and what the same device said of it since without an answer. */
export const Seen = Type.Union([Said, Type.Array(Said, { minItems: 1, maxItems: 200 })]);

/** How much slower than the line-up a child is heard: a part of its tempo. */
export const Slower = Type.Number({ minimum: 0.2, maximum: 1 });

/** One child's place. */
const Turn = Type.Object({
  childId: Id,
  patternId: Id,
  state: oneOf(TURN_STATES),
  mark: orNull(Type.Integer()),
  takeId: orNull(Id),
  slower: orNull(Slower),
  /** What else was said of it by somebody who had not seen this. */
  clash: orNull(Said),
});
export type Turn = Static<typeof Turn>;

/** A new line-up: who is heard, in order, and on which pattern. */
export const NewLineUp = Type.Object(
  {
    title: Name,
    settings: LineUpSettings,
    startedAt: Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 }),
    turns: Type.Array(Type.Object({ childId: Id, patternId: Id }, strict), { minItems: 1, maxItems: 200 }),
  },
  strict,
);
export type NewLineUp = Static<typeof NewLineUp>;

/** What became of a turn, without a take: a mark by hand makes it heard. A child who is not in line yet comes last. */
export const TurnEdit = Type.Object(
  {
    state: oneOf(TURN_STATES),
    mark: Type.Optional(orNull(Mark)),
    patternId: Type.Optional(Id),
    slower: Type.Optional(Slower),
    /** What stood there where it was made; and that it is the answer to the question which of two is so. */
    seen: Type.Optional(Seen),
    settles: Type.Optional(Type.Boolean()),
  },
  strict,
);
export type TurnEdit = Static<typeof TurnEdit>;

export const LineUp = Type.Object({
  id: Id,
  title: Type.String(),
  settings: LineUpSettings,
  startedAt: Type.Integer(),
  turns: Type.Array(Turn),
  /** What is heard in it: another teacher may have started it with patterns of her own. */
  patterns: Type.Array(SavedPattern),
});
export type LineUp = Static<typeof LineUp>;

export const LineUps = Type.Array(LineUp);
