import { perLanguage } from '../words/say.ts';
import type { CountingSystem } from './countingSystem.ts';
import { feet } from './systems/feet.ts';
import { noteNames } from './systems/noteNames.ts';
import { numbers, numbersTe } from './systems/numbers.ts';
import { pulses } from './systems/pulses.ts';
import { ta } from './systems/ta.ts';
import { takadimi } from './systems/takadimi.ts';
import { withinNote } from './systems/withinNote.ts';
import { words } from './systems/words.ts';

/**
 * With the same fields in the same order, for the words of every note are asked of a system: where objects differ in
 * shape the engine gives up its compiled code and starts again with the next system.
 */
function alike(school: CountingSystem): CountingSystem {
  const { title, words: own, meanings, rests, refuses, note, tied, tiedByVowel, rest, cells, speech, sees } = school;
  return { title, words: own, meanings, rests, refuses, note, tied, tiedByVowel, rest, cells, speech, sees };
}

/** Every system, in the order they are offered. To add one: its file, and a row here. */
const TABLE = perLanguage(
  () =>
    ({
      numbers: alike(numbers()),
      pulses: alike(pulses()),
      'numbers-te': alike(numbersTe()),
      takadimi: alike(takadimi()),
      ta: alike(ta()),
      'note-names': alike(noteNames()),
      'within-note': alike(withinNote()),
      feet: alike(feet()),
      words: alike(words()),
    }) as const,
);

export type CountingSystemId = keyof ReturnType<typeof TABLE>;
export const COUNTING_SYSTEMS: () => Readonly<Record<CountingSystemId, CountingSystem>> = TABLE;
export const COUNTING_SYSTEM_IDS = Object.keys(TABLE()) as readonly CountingSystemId[];

/** Id and title of each, in order: for lists to choose from. */
export const COUNTING_SYSTEM_CHOICES = perLanguage((): readonly (readonly [id: CountingSystemId, title: string])[] =>
  COUNTING_SYSTEM_IDS.map((id) => [id, COUNTING_SYSTEMS()[id].title]),
);
