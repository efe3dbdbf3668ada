import type { Score } from '../scoreEvents.ts';
import { type Hypothesis, type MisreadingKind, shifted, without } from './hypothesis.ts';
import { firstEvent, soundsIn } from './writtenPlaces.ts';

const COST = { one: 5, several: 7.5, each: 0.3 };
/** With fewer claps after them nothing shows that it went on there, and did not stop. */
export const FEWEST_AFTER = 4;

/** So many measures from one on left out; undefined where that is something else. */
export function leftOut(score: Score, first: number, count: number): Hypothesis | undefined {
  const measures = score.measures.slice(first, first + count);
  const later = score.measures.slice(first + count).some((next) => soundsIn(score, next));
  // Measures of rests that are left out are a rest that was skipped; the last ones left out are an early end.
  if (measures.length < count || !later || !measures.some((measure) => soundsIn(score, measure))) return undefined;
  const { from } = measures[0]!;
  const { to } = measures.at(-1)!;
  const seconds = from - to;
  return {
    event: firstEvent(score, first),
    cost: count === 1 ? COST.one : COST.several + COST.each * (count - 2),
    apply: (claps) => shifted(without(claps, { from, to }), to, seconds),
    shift: { from: to, beats: seconds / score.beat, seconds },
    leavesOut: { from, to },
    count,
  };
}

export const measureSkipped: MisreadingKind = {
  about: 'place',
  noHabit: true,
  hypotheses: (score) => score.measures.flatMap((_measure, i) => leftOut(score, i, 1) ?? []),
};
