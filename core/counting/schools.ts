import { feet } from './feet.ts';
import { noteNames } from './noteNames.ts';
import { numbers, numbersTe } from './numbers.ts';
import { pulses } from './pulses.ts';
import type { School, SchoolId } from './school.ts';
import { ta } from './ta.ts';
import { takadimi } from './takadimi.ts';
import { withinNote } from './withinNote.ts';
import { words } from './words.ts';

/** Every school, in the order they are offered. To add one: its file, its id in `SCHOOL_IDS`, and a line here. */
export const SCHOOLS: Readonly<Record<SchoolId, School>> = {
  numbers,
  pulses,
  'numbers-te': numbersTe,
  takadimi,
  ta,
  'note-names': noteNames,
  'within-note': withinNote,
  feet,
  words,
};
