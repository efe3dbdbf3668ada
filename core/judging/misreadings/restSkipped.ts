import { type MisreadingKind, shiftAfter } from './hypothesis.ts';
import { eachRest, soundsAfter } from './writtenPlaces.ts';

export const restSkipped: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachRest(score, (event, i) => (soundsAfter(score, event.end) ? [shiftAfter(i, 4.2, event, -event.beats)] : [])),
};
