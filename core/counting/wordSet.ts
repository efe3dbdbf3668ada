import { parseRhythm } from '../rhythm/text.ts';
import { wordTrouble } from './sayable.ts';

/** A word set: for each value or cell (a beat's worth of notes as rhythm text) the syllables to say, one a note. */
export interface WordSet {
  readonly title: string;
  /**
   * Key: rhythm text of the cell, single spaces ("e e", "3{e e e}"). Value: a word with hyphens between its syllables.
   */
  readonly cells: Readonly<Record<string, string>>;
}

/** The set that ships: animals of a harbour. */
export const HARBOUR_ANIMALS: WordSet = {
  title: 'Harbour animals',
  cells: {
    w: 'whale',
    'h.': 'shark',
    h: 'seal',
    'q.': 'swan',
    q: 'crab',
    'e.': 'eel',
    e: 'gull',
    s: 'shrimp',
    'e e': 'ot-ter',
    's s s s': 'pe-ri-win-kle',
    'e s s': 'cor-mo-rant',
    's s e': 'pel-i-can',
    'e. s': 'lob-ster',
    's e.': 'her-ring',
    's e s': 'an-cho-vy',
    '3{e e e}': 'jel-ly-fish',
    'e e e': 'oc-to-pus',
    'q e': 'puf-fin',
    'q. e': 'dol-phin',
  },
};

/**
 * What is wrong with a word set, cell by cell: a word needs as many syllables (with hyphens between) as the cell has
 * notes.
 */
export function checkWordSet({ cells }: WordSet): { cell: string; reason: string }[] {
  return Object.entries(cells).flatMap(([cell, word]) => {
    const parsed = parseRhythm(cell);
    const notes = parsed.ok
      ? parsed.pattern.measures[0]!.items.flatMap((item) => (item.kind === 'tuplet' ? item.events : [item]))
      : [];
    if (notes.length === 0 || notes.some(({ kind }) => kind === 'rest'))
      return [{ cell, reason: 'the cell cannot be read: write notes such as “e e” or “3{e e e}”' }];
    if (word.trim() === '') return [{ cell, reason: 'a word is missing: write one, or remove the cell' }];
    const trouble = wordTrouble(word);
    if (trouble !== undefined) return [{ cell, reason: trouble }];
    if (word.split('-').includes('')) return [{ cell, reason: `“${word}” has a hyphen with no syllable beside it` }];
    const syllables = word.split('-').length;
    const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;
    return syllables === notes.length
      ? []
      : [{ cell, reason: `“${word}” has ${count(syllables, 'syllable')} for ${count(notes.length, 'note')}` }];
  });
}
