import type { School } from './school.ts';
import { feet } from './schools/feet.ts';
import { noteNames } from './schools/noteNames.ts';
import { numbers, numbersTe } from './schools/numbers.ts';
import { pulses } from './schools/pulses.ts';
import { ta } from './schools/ta.ts';
import { takadimi } from './schools/takadimi.ts';
import { withinNote } from './schools/withinNote.ts';
import { words } from './schools/words.ts';

/**
 * With the same fields in the same order, for the words of every note are asked of a school: where objects differ in
 * shape the engine gives up its compiled code and starts again with the next school.
 */
function alike(school: School): School {
  const { title, words: own, meanings, rests, refuses, note, tied, tiedByVowel, rest, cells, speech, sees } = school;
  return { title, words: own, meanings, rests, refuses, note, tied, tiedByVowel, rest, cells, speech, sees };
}

/** Every school, in the order they are offered. To add one: its file, and a row here. */
const TABLE = {
  numbers: alike(numbers),
  pulses: alike(pulses),
  'numbers-te': alike(numbersTe),
  takadimi: alike(takadimi),
  ta: alike(ta),
  'note-names': alike(noteNames),
  'within-note': alike(withinNote),
  feet: alike(feet),
  words: alike(words),
} as const;

export type SchoolId = keyof typeof TABLE;
export const SCHOOLS: Readonly<Record<SchoolId, School>> = TABLE;
export const SCHOOL_IDS = Object.keys(TABLE) as readonly SchoolId[];

/** Id and title of each, in order: for lists to choose from. */
export const SCHOOL_CHOICES: readonly (readonly [id: SchoolId, title: string])[] = SCHOOL_IDS.map((id) => [
  id,
  SCHOOLS[id].title,
]);
