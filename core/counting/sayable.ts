/** Signs that stand for something else in written counts. */
const TAKEN_SIGNS = /[\s|()~_·,;]/;

/** Why this cannot be said for a note; undefined when it can. */
export function wordTrouble(word: string): string | undefined {
  return TAKEN_SIGNS.test(word) || word.startsWith('-')
    ? 'one word without spaces, bars, parentheses or commas'
    : undefined;
}
