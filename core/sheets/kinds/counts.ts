import { countPattern } from '../../counting/count.ts';
import { difficultyOf } from '../../making/level.ts';
import { printRhythm } from '../../rhythm/text.ts';
import { rhythmFor } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

const MEASURES = 2;

/** Write the counts under the notes. A point a measure. */
export const counts: SheetMaker<'counts'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, MEASURES);
    return pattern && countPattern(pattern, settings.counts).ok ? { kind: 'counts', pattern } : undefined;
  },
  key: ({ pattern }) => printRhythm(pattern),
  points: ({ pattern }) => pattern.measures.length,
  difficulty: ({ pattern }) => difficultyOf(pattern).score,
  usual: 8,
};
