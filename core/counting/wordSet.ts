import { counted, perLanguage, t } from '../words/say.ts';
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
export const HARBOUR_ANIMALS = perLanguage((): WordSet => ({
  title: t`Harbour animals`,
  cells: {
    w: t`whale`,
    'h.': t`shark`,
    h: t`seal`,
    'q.': t`swan`,
    q: t`crab`,
    'e.': t`eel`,
    e: t`gull`,
    s: t`shrimp`,
    'e e': t`ot-ter`,
    's s s s': t`pe-ri-win-kle`,
    'e s s': t`cor-mo-rant`,
    's s e': t`pel-i-can`,
    'e. s': t`lob-ster`,
    's e.': t`her-ring`,
    's e s': t`an-cho-vy`,
    '3{e e e}': t`jel-ly-fish`,
    'e e e': t`oc-to-pus`,
    'q e': t`puf-fin`,
    'q. e': t`dol-phin`,
  },
}));

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
      return [{ cell, reason: t`the cell cannot be read: write notes such as “e e” or “3{e e e}”` }];
    if (word.trim() === '') return [{ cell, reason: t`a word is missing: write one, or remove the cell` }];
    const trouble = wordTrouble(word);
    if (trouble !== undefined) return [{ cell, reason: trouble }];
    if (word.split('-').includes('')) return [{ cell, reason: t`“${word}” has a hyphen with no syllable beside it` }];
    const syllables = word.split('-').length;
    return syllables === notes.length
      ? []
      : [{ cell, reason: t`“${word}” has ${counted(syllables, 'syllable')} for ${counted(notes.length, 'note')}` }];
  });
}
