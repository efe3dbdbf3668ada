import { type Static, Type } from '@sinclair/typebox';
import { LONGEST_KEPT, LONGEST_WORD, MOST_SENT, VOICE_RATE } from '../core/listening/voiceFacts.ts';
import { strict } from './parts.ts';

/** Each sample has two bytes, the lower one first; one channel. */
const MOST_BYTES = Math.ceil(LONGEST_KEPT * VOICE_RATE) * 2 + 64;
/** Words of one teacher. */
export const MOST_WORDS = 300;

/** As it is written in the counts, in small letters; of another language than English with that before it: “de/1”. */
const Word = Type.String({ minLength: 1, maxLength: LONGEST_WORD, pattern: '^[^\\s\\u0000-\\u001f\\u007f]+$' });

/** One word of counting in a teacher's own voice. */
export const VoiceWord = Type.Object(
  {
    word: Word,
    /** Seconds from its start to what falls on the beat. */
    vowel: Type.Number({ minimum: 0, maximum: LONGEST_KEPT }),
    /** Its samples, base64. */
    sound: Type.String({
      minLength: 400,
      maxLength: Math.ceil(MOST_BYTES / 3) * 4,
      pattern: '^(?:[A-Za-z0-9+/]{4})*(?:[A-Za-z0-9+/]{2}==|[A-Za-z0-9+/]{3}=)?$',
    }),
  },
  strict,
);
export type VoiceWord = Static<typeof VoiceWord>;

/** Words to be kept, each in the place of what was said before. */
export const VoiceWords = Type.Object({ words: Type.Array(VoiceWord, { minItems: 1, maxItems: MOST_SENT }) }, strict);
export type VoiceWords = Static<typeof VoiceWords>;

/** Whether the app speaks with it. */
export const SpeakWith = Type.Object({ speaks: Type.Boolean() }, strict);
export type SpeakWith = Static<typeof SpeakWith>;

/** A teacher's own voice. */
export const Voice = Type.Object({ speaks: Type.Boolean(), words: Type.Array(VoiceWord) });
export type Voice = Static<typeof Voice>;
