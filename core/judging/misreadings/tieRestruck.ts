import { type MisreadingKind, adding } from './hypothesis.ts';
import { eachEvent } from './writtenPlaces.ts';

export const tieRestruck: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachEvent(score, (event, i) => (event.kind === 'tied' ? adding(i, 1.4, [event.time]) : undefined)),
};
