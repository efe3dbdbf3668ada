import { cutShort, isLong } from './gaps.ts';
import { type MisreadingKind, shiftAfter } from './hypothesis.ts';
import { eachEvent, isFollowed } from './writtenPlaces.ts';

export const holdCut: MisreadingKind = {
  about: 'place',
  inTake: cutShort('hold'),
  hypotheses: (score) =>
    eachEvent(score, (event, i) => (isLong(event) && isFollowed(score, i) ? shiftAfter(i, 4.2, event, -1) : undefined)),
};
