import { LANGUAGE_IDS } from '../core/words/say.ts';
import { type TSchema, Type } from '@sinclair/typebox';
import { REST_STYLES } from '../core/counting/countingSystem.ts';
import { COUNTING_SYSTEM_IDS } from '../core/counting/countingSystems.ts';
import { AGES } from '../core/judging/windows.ts';
import { LEVELS, type Level } from '../core/making/level.ts';
import { LARGEST_SEED } from '../core/random.ts';
import { LONGEST_TEXT } from '../core/rhythm/text.ts';
import { VALUES } from '../core/rhythm/value.ts';
import { FASTEST_BPM, MOST_ONSETS, SLOWEST_BPM } from '../core/timing/limits.ts';

/** One of some words, as a plain JSON Schema enum. */
export function oneOf<const T extends readonly string[]>(words: T) {
  return Type.Unsafe<T[number]>({ type: 'string', enum: [...words] });
}

export const strict = { additionalProperties: false } as const;

export function orNull<S extends TSchema>(schema: S) {
  return Type.Union([schema, Type.Null()]);
}

/** A day of the calendar, as in 2026-09-28. */
export const Day = Type.String({ pattern: '^\\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])$' });
/** Of a day, as in 09:40. */
export const Time = Type.String({ pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' });

/** Who made a thing, and where: "Robin Quay, Marrow Lane School". */
export const MadeBy = Type.String({ minLength: 1, maxLength: 160, pattern: '\\S' });

/** What a class, a child or a pattern is called. */
export const Name = Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' });
export const RhythmText = Type.String({ minLength: 1, maxLength: LONGEST_TEXT });
export const Bpm = Type.Number({ minimum: SLOWEST_BPM, maximum: FASTEST_BPM });
export const Onsets = Type.Array(Type.Number({ minimum: -3600, maximum: 36_000 }), { maxItems: MOST_ONSETS });
/** For each onset when it was let go; null where that is not known. */
export const Releases = Type.Array(Type.Union([Type.Number({ minimum: -3600, maximum: 36_000 }), Type.Null()]), {
  maxItems: MOST_ONSETS,
});
export const AgesOf = oneOf(AGES);
export const CountingSystem = oneOf(COUNTING_SYSTEM_IDS);
/** A language there are catalogues of. */
export const LanguageOf = oneOf(LANGUAGE_IDS);
export const Rests = oneOf(REST_STYLES);
export const BeatValue = oneOf(VALUES.map(({ letter }) => letter));
/** Made by the client, so that sending a thing twice stores it once. */
export const Id = Type.String({ pattern: '^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$' });
/** What questions and sheets are made from. */
export const Seed = Type.Integer({ minimum: 0, maximum: LARGEST_SEED });
/** How hard a rhythm is to read. */
export const LevelNumber = Type.Unsafe<Level>({ type: 'integer', minimum: LEVELS[0], maximum: LEVELS.at(-1)! });
/** Words that a class says for cells. */
export const WordSet = Type.Object(
  {
    title: Type.String({ minLength: 1, maxLength: 60 }),
    cells: Type.Record(Type.String(), Type.String({ maxLength: 60 })),
  },
  strict,
);
