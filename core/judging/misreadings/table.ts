import type { Score } from '../scoreEvents.ts';
import { dotTooLong } from './dotTooLong.ts';
import { dotTooShort } from './dotTooShort.ts';
import { dragging, rushing } from './drifting.ts';
import { eighthsUneven } from './eighthsUneven.ts';
import { enteredEarly, enteredLate } from './entered.ts';
import { holdCut } from './holdCut.ts';
import { holdPulsed } from './holdPulsed.ts';
import type { Hypothesis, MisreadingKind } from './hypothesis.ts';
import { lostAndRecovered } from './lostAndRecovered.ts';
import { measureRepeated } from './measureRepeated.ts';
import { measureSkipped } from './measureSkipped.ts';
import { doubleTempo, halfTempo } from './otherTempo.ts';
import { restClapped } from './restClapped.ts';
import { restSkipped } from './restSkipped.ts';
import { restTooLong } from './restTooLong.ts';
import { sixteenthsSlow } from './sixteenthsSlow.ts';
import { stoppedEarly } from './stoppedEarly.ts';
import { syncopationStraightened } from './syncopationStraightened.ts';
import { tieRestruck } from './tieRestruck.ts';
import { upbeatOnBeat } from './upbeatOnBeat.ts';

/** Every known misreading (handbook §8). To add one: its file and a row here; the compiler then asks for its words. */
const TABLE = {
  'rest-clapped': restClapped,
  'rest-skipped': restSkipped,
  'rest-too-long': restTooLong,
  'dot-too-long': dotTooLong,
  'dot-too-short': dotTooShort,
  'tie-restruck': tieRestruck,
  'hold-pulsed': holdPulsed,
  'hold-cut': holdCut,
  'upbeat-on-beat': upbeatOnBeat,
  'eighths-uneven': eighthsUneven,
  'sixteenths-slow': sixteenthsSlow,
  'syncopation-straightened': syncopationStraightened,
  'entered-early': enteredEarly,
  'entered-late': enteredLate,
  'half-tempo': halfTempo,
  'double-tempo': doubleTempo,
  rushing,
  dragging,
  'lost-and-recovered': lostAndRecovered,
  'measure-skipped': measureSkipped,
  'measure-repeated': measureRepeated,
  'stopped-early': stoppedEarly,
} as const satisfies Readonly<Record<string, MisreadingKind>>;

export type MisreadingCode = keyof typeof TABLE;
export const MISREADINGS: Readonly<Record<MisreadingCode, MisreadingKind>> = TABLE;
export const MISREADING_CODES = Object.keys(TABLE) as readonly MisreadingCode[];

/** A hypothesis with its kind. */
export interface CodedHypothesis extends Hypothesis {
  readonly code: MisreadingCode;
}

/** About a take as a whole: no measure of it is to be practised for it. */
export function isAboutTake(code: MisreadingCode): boolean {
  return MISREADINGS[code].about === 'take';
}

/** Where a misreading can happen at many places, each of them is the less likely. */
const PLACE_WEIGHT = 0.6;

function coded(code: MisreadingCode, score: Score): CodedHypothesis[] {
  const kind = MISREADINGS[code];
  const hypotheses = 'hypotheses' in kind ? kind.hypotheses(score) : [];
  const places = new Set(hypotheses.map(({ event }) => event)).size;
  return hypotheses.map((one) => ({ ...one, code, cost: one.cost + PLACE_WEIGHT * Math.log(places) }));
}

const KNOWN = new WeakMap<Score, readonly CodedHypothesis[]>();

/** Every way in which what is written can be misread at one place. */
export function hypothesesOf(score: Score, free: boolean): readonly CodedHypothesis[] {
  let all = KNOWN.get(score);
  if (!all) KNOWN.set(score, (all = MISREADING_CODES.flatMap((code) => coded(code, score))));
  return free ? all.filter(({ code }) => MISREADINGS[code].needsClick !== true) : all;
}
