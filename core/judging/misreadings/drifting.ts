import { heardTime } from '../../timing/tempoCurve.ts';
import { EPSILON } from '../../timing/tolerance.ts';
import type { Score } from '../scoreEvents.ts';
import type { HeardSoFar, Hypothesis, MisreadingKind } from './hypothesis.ts';
import { paced } from './otherTempo.ts';
import { measureOf } from './writtenPlaces.ts';

/** Change of tempo of a child that rushes or drags, as a part. */
const RUSHES = { least: 0.07, more: 0.08 };
/** Nats: at a bar line a child takes another tempo and keeps it; rarer than a tempo that bends. */
const STEP_COST = 7.5;
/** Parts by which the time between notes changes then: less is a bend, more is half the tempo or twice it. */
const STEP = { least: 0.09, most: 0.4 };
/** From fewer notes no tempo can be told. */
const FEWEST = 4;

/** All from a bar line to the end slower by a part of its time, or faster where that is negative, as its end tells. */
function steppedFrom(score: Score, { onsets, claps, curve }: HeardSoFar, played: number): Hypothesis[] {
  const measure = score.measures[played];
  if (!measure || played < 1) return [];
  const { from } = measure;
  const [last, end] = [claps.at(-1), onsets.at(-1)];
  const left = claps.filter(({ note, written }) => note >= 0 && written >= from - EPSILON).length;
  if (!last || end === undefined || left < FEWEST || left > claps.length - FEWEST) return [];
  const moved = last.time - last.written;
  const due = heardTime(curve, last.time) - heardTime(curve, from + moved);
  const slower = (end - heardTime(curve, from + moved)) / due - 1;
  if (Math.abs(slower) < STEP.least || Math.abs(slower) > STEP.most) return [];
  return [stepped(score, played, slower)];
}

/** All from the beginning of a measure to the end slower by a part of its time, or faster where that is negative. */
export function stepped(score: Score, played: number, slower: number): Hypothesis {
  const stretch = { ...score.measures[played]!, to: score.measures.at(-1)!.to };
  const { within: _, ...hypothesis } = paced(score, stretch, played, slower, STEP_COST);
  return { ...hypothesis, count: score.measures.length - played };
}

function drifting(side: 1 | -1): MisreadingKind {
  return {
    about: 'take',
    ofTempo: true,
    inTake: (score, take) => {
      const first = measureOf(score, take);
      return [first - 1, first, first + 1]
        .flatMap((played) => steppedFrom(score, take, played))
        .filter(({ paced: pace }) => pace!.slower * side < 0);
    },
    slip: (take, { notes }, random) => {
      take.drift += side * (RUSHES.least + RUSHES.more * random.next());
      return notes[0] ?? 0;
    },
  };
}

/** A bend is found by the tempo curve of the whole take; another tempo from a bar line on by what the take shows. */
export const rushing = drifting(1);
export const dragging = drifting(-1);
