import { t } from '../words/say.ts';
import { wordTrouble } from './sayable.ts';
import type { CountingSystem, Words } from './countingSystem.ts';

export interface HouseWordsCheck {
  /** Words that cannot work, each with what to do. */
  readonly refused: readonly { readonly key: string; readonly reason: string }[];
  /** Two places that sound alike, so that speech cannot be led back to writing with certainty. */
  readonly alike: readonly { readonly keys: readonly [string, string]; readonly word: string }[];
}

const LONGEST_WORD = 24;

/**
 * Can a system be spoken with these words of the teacher's?
 * @param own  only what differs from the system's words
 */
export function checkHouseWords(school: CountingSystem, own: Words): HouseWordsCheck {
  const refused = Object.entries(own).flatMap(([key, word]) => {
    if (!Object.hasOwn(school.words, key)) return [{ key, reason: t`${school.title} has no such place` }];
    if (word.trim() === '') return [{ key, reason: t`a syllable is missing: write one, or reset it` }];
    if (word.length > LONGEST_WORD) return [{ key, reason: t`a word of at most ${LONGEST_WORD} letters` }];
    const reason = wordTrouble(word);
    return reason === undefined ? [] : [{ key, reason }];
  });
  const now = Object.entries({ ...school.words, ...own });
  const alike = now.flatMap(([a, word], i) =>
    now.slice(i + 1).flatMap(([b, other]) => {
      const same = word.trim().toLowerCase() === other.trim().toLowerCase();
      const always = school.words[a] === school.words[b];
      return same && !always ? [{ keys: [a, b] as const, word }] : [];
    }),
  );
  return { refused, alike };
}
