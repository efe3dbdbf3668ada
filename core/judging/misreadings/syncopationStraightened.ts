import { type Hypothesis, type MisreadingKind, moved } from './hypothesis.ts';
import { eachEvent, isSyncopation } from './writtenPlaces.ts';

export const syncopationStraightened: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachEvent(score, (event, i) => {
      if (!isSyncopation(score, i)) return undefined;
      const [middle, last] = [score.events[i + 1]!, score.events[i + 2]!];
      const half = event.beat / 2;
      const make = (note: number, by: number): Hypothesis => ({
        event: i,
        cost: 4.2,
        apply: (claps) => moved(claps, new Map([[note, by]])),
      });
      return [make(last.note, -half), make(middle.note, half)];
    }),
};
