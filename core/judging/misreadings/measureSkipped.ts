import { EPSILON } from '../../timing/tolerance.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { ScoreMeasure } from '../scoreEvents.ts';
import { type Hypothesis, type MisreadingKind, shifted } from './hypothesis.ts';
import { firstEvent, soundsIn } from './writtenPlaces.ts';

function without(claps: readonly ExpectedClap[], { from, to }: ScoreMeasure): ExpectedClap[] {
  return claps.filter(({ written }) => written < from - EPSILON || written >= to - EPSILON);
}

export const measureSkipped: MisreadingKind = {
  about: 'place',
  noHabit: true,
  hypotheses: (score) =>
    score.measures.flatMap((measure, i): Hypothesis[] => {
      const later = score.measures.slice(i + 1).some((next) => soundsIn(score, next));
      // A measure of rests that is left out is a rest that was skipped; the last measure left out is an early end.
      if (!later || !soundsIn(score, measure)) return [];
      const { from, to } = measure;
      const seconds = from - to;
      return [
        {
          event: firstEvent(score, i),
          cost: 5,
          apply: (claps) => shifted(without(claps, measure), to, seconds),
          shift: { from: to, beats: seconds / score.beat, seconds },
          leavesOut: { from, to },
        },
      ];
    }),
};
