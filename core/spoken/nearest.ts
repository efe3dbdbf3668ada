/** Letters to change, to put in or to leave out, until one word is the other. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let k = 1; k <= b.length; k++)
      next.push(Math.min(row[k]! + 1, next[k - 1]! + 1, row[k - 1]! + (a[i - 1] === b[k - 1] ? 0 : 1)));
    row = next;
  }
  return row[b.length]!;
}

/** Longer words than this are nobody's slip of the finger. */
const LONGEST = 24;

/**
 * The known word that is most like a mistyped one; undefined where none is alike, or where the word itself is known.
 * @param words  the first of several that are as near wins
 */
export function nearest(typed: string, words: Iterable<string>): string | undefined {
  const word = typed.toLowerCase().slice(0, LONGEST);
  let best: { word: string; off: number } | undefined;
  for (const known of words) {
    const off = distance(word, known);
    if (off === 0) return undefined;
    if (off <= Math.max(1, Math.floor(Math.min(word.length, known.length) / 2)) && off < (best?.off ?? Infinity))
      best = { word: known, off };
  }
  // Of one letter any other is one change away.
  return word.length > 1 ? best?.word : undefined;
}
