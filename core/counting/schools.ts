import { feet } from './schools/feet.ts';
import { noteNames } from './schools/noteNames.ts';
import { numbers, numbersTe } from './schools/numbers.ts';
import { pulses } from './schools/pulses.ts';
import type { School, SchoolId } from './school.ts';
import { ta } from './schools/ta.ts';
import { takadimi } from './schools/takadimi.ts';
import { withinNote } from './schools/withinNote.ts';
import { words } from './schools/words.ts';

/**
 * With the same fields in the same order, for the words of every note are asked of a school: where objects differ in shape
 * the engine gives up its compiled code and starts again with the next school.
 */
function alike({ id, title, words, meanings, rests, refuses, note, tied, tiedByVowel, rest, cells }: School): School {
  return { id, title, words, meanings, rests, refuses, note, tied, tiedByVowel, rest, cells };
}

/** Every school, in the order they are offered. To add one: its file, its id in `SCHOOL_IDS`, and a line here. */
export const SCHOOLS: Readonly<Record<SchoolId, School>> = {
  numbers: alike(numbers),
  pulses: alike(pulses),
  'numbers-te': alike(numbersTe),
  takadimi: alike(takadimi),
  ta: alike(ta),
  'note-names': alike(noteNames),
  'within-note': alike(withinNote),
  feet: alike(feet),
  words: alike(words),
};
