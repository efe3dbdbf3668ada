import { missingPart as partMissing } from '../../making/partsOf.ts';
import { eventCount, printRhythm } from '../../rhythm/text.ts';
import { placePattern } from '../../rhythm/place.ts';
import { rhythmFor } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

const MEASURES = 2;
/** Fewer claps to be found are no work. */
const FEWEST = 2;

const notesIn = (pattern: Parameters<typeof placePattern>[0]) =>
  placePattern(pattern).reduce((sum, { events }) => sum + events.filter(({ kind }) => kind === 'note').length, 0);

/** The second of two parts: a clap on every beat that the first leaves free, so that each beat has just one. */
export const missingPart: SheetMaker<'missing-part'> = {
  make: (settings, random, nth) => {
    const pattern = rhythmFor(settings, random, nth, MEASURES);
    if (!pattern || pattern.pickup) return undefined;
    const missing = partMissing(pattern);
    return notesIn(missing) < FEWEST ? undefined : { kind: 'missing-part', pattern, missing };
  },
  key: ({ pattern }) => printRhythm(pattern),
  // For each measure, however many beats are free in it: two versions are worth the same.
  points: ({ pattern }) => placePattern(pattern).length,
  difficulty: ({ pattern, missing }) => eventCount(pattern) + notesIn(missing),
  usual: 4,
};
