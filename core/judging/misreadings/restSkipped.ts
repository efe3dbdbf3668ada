import { restsIn } from './gaps.ts';
import { type MisreadingKind, shifted } from './hypothesis.ts';

/** Rests in a row are one: who leaves out some of them gave it too little time. */
export const restSkipped: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    restsIn(score).map(({ event, end, beats }) => {
      const seconds = -beats * score.events[event]!.beat;
      const shift = { from: end, beats: -beats, seconds };
      return { event, cost: 4.2, apply: (claps) => shifted(claps, end, seconds), shift, got: 0 };
    }),
};
