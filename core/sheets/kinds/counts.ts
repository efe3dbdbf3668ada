import { countPattern } from '../../counting/count.ts';
import { byRhythm, rhythmFor } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

const MEASURES = 2;

/** Write the counts under the notes. A point a measure. */
export const counts: SheetMaker<'counts'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, MEASURES);
    return pattern && countPattern(pattern, settings.counts).ok ? { kind: 'counts', pattern } : undefined;
  },
  ...byRhythm,
  points: ({ pattern }) => pattern.measures.length,
  usual: 8,
};
