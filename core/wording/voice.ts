import type { CountOptions } from '../counting/count.ts';
import type { RestStyle, Words } from '../counting/countingSystem.ts';
import type { CountingSystemId } from '../counting/countingSystems.ts';
import type { WordSet } from '../counting/wordSet.ts';
import type { Language } from '../words/say.ts';
import type { NamingId } from './valueNames.ts';

/** How a class speaks: every sentence is made in its words. */
export interface Voice {
  readonly counts: CountOptions;
  readonly naming: NamingId;
  /** What the class hears and reads; left out it is the language of who reads. */
  readonly language?: Language | undefined;
}

/** Where no class is at hand. */
export const PLAIN_VOICE: Voice = { counts: { school: 'numbers' }, naming: 'quarters' };

/** How a class speaks, as its teacher set it. */
export interface ClassWords {
  readonly school: CountingSystemId;
  readonly rests: RestStyle | null;
  readonly naming?: NamingId | undefined;
  readonly language?: Language | null | undefined;
  /** The teacher's own words, by school. */
  readonly houseWords?: Readonly<Record<string, Words>> | null | undefined;
  readonly wordSet?: WordSet | null | undefined;
}

/** How a class counts; with `school` another way of counting, in the class's own words for it. */
export function countsOf(words: ClassWords, school: CountingSystemId = words.school): CountOptions {
  return {
    school,
    rests: school === words.school ? (words.rests ?? undefined) : undefined,
    houseWords: words.houseWords?.[school],
    wordSet: words.wordSet ?? undefined,
    ...(words.language ? { language: words.language } : {}),
  };
}

export function namingOf(words: { readonly naming?: NamingId | undefined } | undefined): NamingId {
  return words?.naming ?? PLAIN_VOICE.naming;
}

export function voiceOf(words: ClassWords | undefined): Voice {
  if (!words) return PLAIN_VOICE;
  const { language } = words;
  return { counts: countsOf(words), naming: namingOf(words), ...(language ? { language } : {}) };
}
