import { byRhythm, rhythmFor } from '../material.ts';
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
  ...byRhythm,
  points: ({ pattern }) => pattern.measures.length - 1,
  usual: 4,
};
