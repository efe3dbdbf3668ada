import { nearlyEqual } from '../../timing/tolerance.ts';
import { restsIn, timeGiven } from './gaps.ts';
import { type MisreadingKind, shiftAfter } from './hypothesis.ts';

/** Beats: the rest that is oftenest given twice its time. */
const USUAL = 0.5;

export const restTooLong: MisreadingKind = {
  about: 'place',
  inTake: timeGiven('rest', 1),
  hypotheses: (score) =>
    restsIn(score).flatMap(({ event, beats }) =>
      nearlyEqual(beats, USUAL) ? [shiftAfter(event, 4.2, score.events[event]!, USUAL)] : [],
    ),
};
