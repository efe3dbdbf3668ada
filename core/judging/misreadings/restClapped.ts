import { type MisreadingKind, adding } from './hypothesis.ts';
import { beatStarts, eachRest } from './writtenPlaces.ts';

export const restClapped: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachRest(score, (event, i) => {
      const times = beatStarts(event);
      const one = adding(i, 1.6, [event.time]);
      return times.length > 1 ? [one, adding(i, 2.8, times)] : [one];
    }),
};
