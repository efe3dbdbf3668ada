import { chooseQuestions } from '../../exercises/kinds/chooseRhythm.ts';
import { difficultyOf } from '../../making/level.ts';
import type { Random } from '../../random.ts';
import type { Pattern } from '../../rhythm/pattern.ts';
import { printRhythm } from '../../rhythm/text.ts';
import { byRhythm, rhythmFor } from '../material.ts';
import type { QuestionOf, SheetMaker, SheetSettings } from '../sheetQuestion.ts';

/** So many are told apart by ear in one go. */
const CHOOSE_MEASURES = 1;
const WRITE_MEASURES = 2;
const SEEDS = 2 ** 31;

const COUNTERPARTS = 16;

function among(
  pattern: Pattern | undefined,
  { elements }: SheetSettings,
  random: Random,
): QuestionOf<'choose'> | undefined {
  if (!pattern) return undefined;
  const [question] = chooseQuestions({ pattern, met: elements }, random.below(SEEDS), 1);
  return question && { kind: 'choose', question, pattern };
}

/** The teacher claps; which of four is it? */
export const choose: SheetMaker<'choose'> = {
  make: (settings, random, nth) => among(rhythmFor(settings, random, nth, CHOOSE_MEASURES), settings, random),
  like: ({ pattern: model }, settings, random, nth, isNew) => {
    const aim = difficultyOf(model).score;
    const near = Array.from({ length: COUNTERPARTS }, () => rhythmFor(settings, random, nth, CHOOSE_MEASURES))
      .filter((pattern) => pattern !== undefined)
      .filter((pattern) => isNew(printRhythm(pattern)))
      .map((pattern) => ({ pattern, away: Math.abs(difficultyOf(pattern).score - aim) }))
      .sort((a, b) => a.away - b.away);
    // Of some rhythms there are no three look-alikes.
    for (const { pattern } of near) {
      const question = among(pattern, settings, random);
      if (question) return question;
    }
    return undefined;
  },
  ...byRhythm,
  points: () => 1,
  usual: 6,
};

/** The teacher claps; it is written on an empty ruler. A point a measure. */
export const write: SheetMaker<'write'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, WRITE_MEASURES);
    return pattern && { kind: 'write', pattern };
  },
  ...byRhythm,
  points: ({ pattern }) => pattern.measures.length,
  usual: 4,
};
