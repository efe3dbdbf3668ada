import { type Fraction, frac } from '../../rhythm/fraction.ts';
import { EPSILON } from '../../timing/tolerance.ts';
import type { Score, ScoreMeasure } from '../scoreEvents.ts';
import { type Hypothesis, type MisreadingKind, delayed } from './hypothesis.ts';
import { firstEvent } from './writtenPlaces.ts';

/** Nats: the whole take, one measure of it, and all from a bar line on. */
const COST = { whole: 4.5, measure: 6, toTheEnd: 8 };
/** A measure of fewer notes has no speed of its own to speak of. */
const FEWEST = 3;

/** In compound meter a beat has three parts, and each may get a click. */
const THIRD = 3;

/** A speed as it is said: no longer a decimal. */
function factorOf(speed: number): Fraction {
  return speed < 1 ? frac(1, Math.round(1 / speed)) : frac(speed);
}

function wholeAtSpeed(score: Score, speed: number): Hypothesis[] {
  const event = score.notes[0] ?? 0;
  const first = score.events[event]?.time ?? 0;
  // From the first note, or from the bar line after a pickup: both can be where the child took its own tempo.
  return [...new Set([first, 0])].map((zero): Hypothesis => ({
    event,
    cost: COST.whole,
    apply: (claps) => claps.map(({ note, written, time }) => ({ note, written, time: zero + (time - zero) / speed })),
    speed,
    factor: factorOf(speed),
    wholeTake: true,
  }));
}

/** The eighths of one measure as quarters, or its quarters as eighths; all that follows comes later, or earlier. */
function measureAtSpeed(score: Score, measure: ScoreMeasure, played: number, speed: number): Hypothesis[] {
  const { from, to } = measure;
  const inside = (time: number) => time >= from - EPSILON && time < to - EPSILON;
  const times = score.notes.map((i) => score.events[i]!.time);
  const here = times.filter(inside).length;
  if (here < FEWEST || here === times.length) return [];
  return [paced(score, measure, played, 1 / speed - 1, COST.measure)];
}

/** From a bar line to the end; of one measure it would be the measure's own speed. */
function toTheEndAtSpeed(score: Score, { from }: ScoreMeasure, played: number, speed: number): Hypothesis[] {
  const left = score.notes.filter((i) => score.events[i]!.time >= from - EPSILON).length;
  if (played === 0 || played > score.measures.length - 2 || left < FEWEST || left === score.notes.length) return [];
  const slower = 1 / speed - 1;
  return [
    {
      event: firstEvent(score, played),
      cost: COST.toTheEnd,
      apply: (claps) =>
        claps.map((clap) => (clap.written < from - EPSILON ? clap : delayed(clap, (clap.written - from) * slower))),
      factor: factorOf(speed),
      alone: true,
    },
  ];
}

/** A measure at a pace of its own, slower by a part of its time (negative: faster); what follows is moved by it. */
export function paced(
  score: Score,
  { from, to }: ScoreMeasure,
  played: number,
  slower: number,
  cost: number,
): Hypothesis {
  const seconds = (to - from) * slower;
  return {
    event: firstEvent(score, played),
    cost,
    apply: (claps) =>
      claps.map((clap) =>
        clap.written < from - EPSILON ? clap : delayed(clap, Math.min(to - from, clap.written - from) * slower),
      ),
    shift: { from: to, beats: seconds / score.beat, seconds },
    paced: { from, to, slower },
    within: { from, to },
  };
}

function atSpeed(speed: number): (score: Score) => Hypothesis[] {
  return (score) => [
    ...wholeAtSpeed(score, speed),
    ...(score.events[0]?.division === 3 ? wholeAtSpeed(score, speed < 1 ? 1 / THIRD : THIRD) : []),
    ...score.measures.flatMap((measure, i) => [
      ...measureAtSpeed(score, measure, i, speed),
      ...toTheEndAtSpeed(score, measure, i, speed),
    ]),
  ];
}

export const halfTempo: MisreadingKind = { about: 'take', needsClick: true, hypotheses: atSpeed(0.5) };
export const doubleTempo: MisreadingKind = { about: 'take', needsClick: true, hypotheses: atSpeed(2) };
