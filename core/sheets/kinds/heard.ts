import { chooseQuestions } from '../../exercises/kinds/chooseRhythm.ts';
import { difficultyOf } from '../../making/level.ts';
import { printRhythm } from '../../rhythm/text.ts';
import { rhythmFor } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

/** So many are told apart by ear in one go. */
const CHOOSE_MEASURES = 1;
const WRITE_MEASURES = 2;
const SEEDS = 2 ** 31;

/** The teacher claps; which of four is it? */
export const choose: SheetMaker<'choose'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, CHOOSE_MEASURES);
    if (!pattern) return undefined;
    const [question] = chooseQuestions({ pattern, met: settings.elements }, random.below(SEEDS), 1);
    return question && { kind: 'choose', question, pattern };
  },
  key: ({ pattern }) => printRhythm(pattern),
  points: () => 1,
  difficulty: ({ pattern }) => difficultyOf(pattern).score,
  usual: 6,
};

/** The teacher claps; it is written on an empty ruler. A point a measure. */
export const write: SheetMaker<'write'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, WRITE_MEASURES);
    return pattern && { kind: 'write', pattern };
  },
  key: ({ pattern }) => printRhythm(pattern),
  points: ({ pattern }) => pattern.measures.length,
  difficulty: ({ pattern }) => difficultyOf(pattern).score,
  usual: 4,
};
