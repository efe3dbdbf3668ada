import { EPSILON } from '../../timing/tolerance.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { ScoreMeasure } from '../scoreEvents.ts';
import { type Hypothesis, type MisreadingKind, ORDER, shifted } from './hypothesis.ts';
import { firstEvent, soundsIn } from './writtenPlaces.ts';

function twice(claps: readonly ExpectedClap[], { from, to }: ScoreMeasure): ExpectedClap[] {
  const seconds = to - from;
  const inside = claps.filter(({ written }) => written >= from - EPSILON && written < to - EPSILON);
  const before = claps.filter(({ written }) => written < to - EPSILON);
  const after = shifted(
    claps.filter(({ written }) => written >= to - EPSILON),
    to,
    seconds,
  );
  // The second time stands at the very end of the measure on paper, in its own order.
  const again = inside.map(({ time }, k): ExpectedClap => ({
    note: -1,
    replayed: true,
    written: to - (inside.length - k) * ORDER,
    time: time + seconds,
  }));
  return [...before, ...again, ...after];
}

export const measureRepeated: MisreadingKind = {
  about: 'place',
  noHabit: true,
  hypotheses: (score) =>
    score.measures.flatMap((measure, i): Hypothesis[] => {
      if (!soundsIn(score, measure)) return [];
      const seconds = measure.to - measure.from;
      const shift = { from: measure.to, beats: seconds / score.beat, seconds };
      return [{ event: firstEvent(score, i), cost: 5, apply: (claps) => twice(claps, measure), shift }];
    }),
};
