import { EPSILON } from '../../timing/tolerance.ts';
import { timeGiven } from './gaps.ts';
import { type MisreadingKind, shiftAfter } from './hypothesis.ts';
import { eachEvent, isFollowed } from './writtenPlaces.ts';

/** Nats: what is lost between a note and the one after a rest is more likely to be the rest's. */
const COST = { before: 4.2, beforeRest: 6.2 };

export const holdCut: MisreadingKind = {
  about: 'place',
  inTake: timeGiven('hold', -1),
  hypotheses: (score) =>
    eachEvent(score, (event, i) =>
      event.kind !== 'rest' && event.beats > 2 - EPSILON && isFollowed(score, i)
        ? shiftAfter(i, score.events[i + 1]?.kind === 'rest' ? COST.beforeRest : COST.before, event, -1)
        : undefined,
    ),
};
