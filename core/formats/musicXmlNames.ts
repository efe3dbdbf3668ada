import type { ValueLetter } from '../rhythm/value.ts';

/** What this program calls itself in the files that it writes; it reads those literally. */
export const WRITTEN_BY = 'Clapboard';

/** MusicXML's names of the values (`note-type-value`, MusicXML 4.0). */
export const TYPE_NAMES: Readonly<Record<ValueLetter, string>> = {
  w: 'whole',
  h: 'half',
  q: 'quarter',
  e: 'eighth',
  s: '16th',
  t: '32nd',
};

export const LETTER_OF_TYPE: Readonly<Record<string, ValueLetter>> = Object.fromEntries(
  Object.entries(TYPE_NAMES).map(([letter, name]) => [name, letter as ValueLetter]),
);

/** Wholes in the names that rhythm text has no letter for. */
export const OTHER_TYPES: Readonly<Record<string, readonly [number, number]>> = {
  maxima: [8, 1],
  long: [4, 1],
  breve: [2, 1],
  '64th': [1, 64],
  '128th': [1, 128],
  '256th': [1, 256],
  '512th': [1, 512],
  '1024th': [1, 1024],
};
