/** A word set: for each value or cell (a beat's worth of notes as rhythm text) the syllables to say, one a note. */
export interface WordSet {
  readonly title: string;
  /** Key: rhythm text of the cell, single spaces ("e e", "3{e e e}"). Value: a word with hyphens between its syllables. */
  readonly cells: Readonly<Record<string, string>>;
}

/** The set that ships: animals of a harbour. */
export const HARBOUR_ANIMALS: WordSet = {
  title: 'Harbour animals',
  cells: {
    w: 'whale', 'h.': 'shark', h: 'seal', 'q.': 'swan', q: 'crab', 'e.': 'eel', e: 'gull', s: 'shrimp',
    'e e': 'ot-ter', 's s s s': 'pe-ri-win-kle', 'e s s': 'cor-mo-rant', 's s e': 'pel-i-can', 'e. s': 'lob-ster', 's e.': 'her-ring',
    's e s': 'an-cho-vy', '3{e e e}': 'jel-ly-fish', 'e e e': 'oc-to-pus', 'q e': 'puf-fin', 'q. e': 'dol-phin',
  },
};
