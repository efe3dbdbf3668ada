import type { CountOptions } from '../counting/count.ts';
import type { RestStyle, Words } from '../counting/countingSystem.ts';
import type { CountingSystemId } from '../counting/countingSystems.ts';
import type { WordSet } from '../counting/wordSet.ts';
import type { NamingId } from './valueNames.ts';

/** How a class speaks: every sentence is made in its words. */
export interface Voice {
  readonly counts: CountOptions;
  readonly naming: NamingId;
}

/** Where no class is at hand. */
export const PLAIN_VOICE: Voice = { counts: { school: 'numbers' }, naming: 'quarters' };

/** How a class speaks, as its teacher set it. */
export interface ClassWords {
  readonly school: CountingSystemId;
  readonly rests: RestStyle | null;
  readonly naming?: NamingId | undefined;
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
  };
}

export function namingOf(words: { readonly naming?: NamingId | undefined } | undefined): NamingId {
  return words?.naming ?? PLAIN_VOICE.naming;
}

export function voiceOf(words: ClassWords | undefined): Voice {
  return words ? { counts: countsOf(words), naming: namingOf(words) } : PLAIN_VOICE;
}
