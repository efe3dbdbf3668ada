import { EPSILON } from '../../timing/tolerance.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score } from '../scoreEvents.ts';
import { type Hypothesis, type MisreadingKind, ORDER, type Stretch, shifted } from './hypothesis.ts';
import { firstEvent, soundsIn } from './writtenPlaces.ts';

const COST = { one: 5, several: 7 };

function twice(claps: readonly ExpectedClap[], { from, to }: Stretch): ExpectedClap[] {
  const seconds = to - from;
  const inside = claps.filter(({ written }) => written >= from - EPSILON && written < to - EPSILON);
  const before = claps.filter(({ written }) => written < to - EPSILON);
  const after = shifted(
    claps.filter(({ written }) => written >= to - EPSILON),
    to,
    seconds,
  );
  // The second time stands at the very end of the measures on paper, in its own order.
  const again = inside.map(({ time }, k): ExpectedClap => ({
    note: -1,
    replayed: true,
    written: to - (inside.length - k) * ORDER,
    time: time + seconds,
  }));
  return [...before, ...again, ...after];
}

/** So many measures from one on played twice; undefined where nothing sounds in them. */
export function playedTwice(score: Score, first: number, count: number): Hypothesis | undefined {
  const measures = score.measures.slice(first, first + count);
  if (first < 0 || measures.length < count || !measures.some((measure) => soundsIn(score, measure))) return undefined;
  const stretch = { from: measures[0]!.from, to: measures.at(-1)!.to };
  const seconds = stretch.to - stretch.from;
  return {
    event: firstEvent(score, first),
    cost: count === 1 ? COST.one : COST.several,
    apply: (claps) => twice(claps, stretch),
    shift: { from: stretch.to, beats: seconds / score.beat, seconds },
    count,
  };
}

export const measureRepeated: MisreadingKind = {
  about: 'place',
  noHabit: true,
  hypotheses: (score) => score.measures.flatMap((_measure, i) => playedTwice(score, i, 1) ?? []),
};
