import { EPSILON } from '../../timing/tolerance.ts';
import { type MisreadingKind, shiftAfter } from './hypothesis.ts';
import { eachEvent, isFollowed } from './writtenPlaces.ts';

export const holdCut: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachEvent(score, (event, i) =>
      event.kind !== 'rest' && event.beats > 2 - EPSILON && isFollowed(score, i)
        ? shiftAfter(i, 4.2, event, -1)
        : undefined,
    ),
};
