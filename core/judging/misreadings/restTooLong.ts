import { nearlyEqual } from '../../timing/tolerance.ts';
import { type MisreadingKind, shiftAfter } from './hypothesis.ts';
import { eachRest, soundsAfter } from './writtenPlaces.ts';

export const restTooLong: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachRest(score, (event, i) =>
      nearlyEqual(event.beats, 0.5) && soundsAfter(score, event.end) ? [shiftAfter(i, 4.2, event, 0.5)] : [],
    ),
};
