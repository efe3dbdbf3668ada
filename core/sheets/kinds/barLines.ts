import { difficultyOf } from '../../making/level.ts';
import { printRhythm } from '../../rhythm/text.ts';
import { rhythmFor } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

const MEASURES = 4;

/** Where do the bar lines go? The double bar at the end is there. */
export const barLines: SheetMaker<'bar-lines'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, MEASURES);
    const oneMeter = pattern?.measures.every(({ meter }) => meter === pattern.measures[0]!.meter);
    const restful = pattern?.measures.some(({ rests }) => rests !== undefined);
    return pattern && oneMeter && !restful && pattern.measures.length > 1 ? { kind: 'bar-lines', pattern } : undefined;
  },
  key: ({ pattern }) => printRhythm(pattern),
  points: ({ pattern }) => pattern.measures.length - 1,
  difficulty: ({ pattern }) => difficultyOf(pattern).score,
  usual: 4,
};
