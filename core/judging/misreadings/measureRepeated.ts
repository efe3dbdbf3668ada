import { EPSILON, nearlyEqual } from '../../timing/tolerance.ts';
import type { Seconds } from '../../timing/units.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score } from '../scoreEvents.ts';
import {
  type HeardSoFar,
  type Hypothesis,
  type MisreadingKind,
  ORDER,
  type Stretch,
  shifted,
  without,
} from './hypothesis.ts';
import { firstEvent, soundsIn } from './writtenPlaces.ts';

/** So many measures are wrong at most where one of them was another. */
const MOST_WRONG = 3;
const COST = { one: 5, several: 7, instead: 8 };

function within(claps: readonly ExpectedClap[], { from, to }: Stretch): ExpectedClap[] {
  return claps.filter(({ written }) => written >= from - EPSILON && written < to - EPSILON);
}

/** Claps once more, some seconds later: on paper at the very end of measures that end there, in their own order. */
function replayed(claps: readonly ExpectedClap[], end: Seconds, later: Seconds): ExpectedClap[] {
  return claps.map(({ time }, k) => ({
    note: -1,
    replayed: true,
    written: end - (claps.length - k) * ORDER,
    time: time + later,
  }));
}

/** Both measures are clapped alike. */
function sameClaps(score: Score, a: Stretch, b: Stretch): boolean {
  const times = ({ from, to }: Stretch) =>
    score.notes
      .map((i) => score.events[i]!.time - from)
      .filter((time) => time > -EPSILON && time < to - from - EPSILON);
  const [first, second] = [times(a), times(b)];
  return first.length === second.length && first.every((time, i) => nearlyEqual(time, second[i]!));
}

function twice(claps: readonly ExpectedClap[], { from, to }: Stretch): ExpectedClap[] {
  const seconds = to - from;
  const inside = within(claps, { from, to });
  const before = claps.filter(({ written }) => written < to - EPSILON);
  const after = shifted(
    claps.filter(({ written }) => written >= to - EPSILON),
    to,
    seconds,
  );
  return [...before, ...replayed(inside, to, seconds), ...after];
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

/** Something in it did not come as written. */
function isStrange({ claps, strange }: HeardSoFar, { from, to }: Stretch): boolean {
  return claps.some(({ written }, i) => strange[i] && written >= from - EPSILON && written < to - EPSILON);
}

/** A measure in whose place the one before it was played again: what follows comes where it should. */
function playedInstead(score: Score, played: number): Hypothesis[] {
  const [before, { from, to }] = [score.measures[played - 1], score.measures[played]!];
  if (!before || !nearlyEqual(before.to - before.from, to - from) || !soundsIn(score, before)) return [];
  if (sameClaps(score, before, { from, to })) return [];
  return [
    {
      event: firstEvent(score, played),
      cost: COST.instead,
      apply: (claps) => {
        const again = within(claps, before);
        const others = without(claps, { from, to });
        const at = others.filter(({ written }) => written < from - EPSILON).length;
        return [...others.slice(0, at), ...replayed(again, to, to - from), ...others.slice(at)];
      },
      shift: { from: to, beats: 0, seconds: 0 },
      within: { from, to },
      count: 1,
    },
  ];
}

export const measureRepeated: MisreadingKind = {
  about: 'place',
  noHabit: true,
  hypotheses: (score) => score.measures.flatMap((_measure, i) => playedTwice(score, i, 1) ?? []),
  inTake: (score, take) => {
    // Where more measures are wrong, it came about otherwise.
    const wrong = score.measures.flatMap((measure, i) => (isStrange(take, measure) ? [i] : []));
    return wrong.length > MOST_WRONG ? [] : wrong.flatMap((measure) => playedInstead(score, measure));
  },
};
