import { type MisreadingKind, shiftAfter } from './hypothesis.ts';
import { eachEvent, isDottedBeat, isFollowed } from './writtenPlaces.ts';

export const dotTooLong: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachEvent(score, (event, i) =>
      isDottedBeat(event) && isFollowed(score, i) ? shiftAfter(i, 4.2, event, 0.5) : undefined,
    ),
};
