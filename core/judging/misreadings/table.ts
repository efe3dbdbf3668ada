import type { Score } from '../scoreEvents.ts';
import { eighthsUneven, sixteenthsSlow, syncopationStraightened, upbeatOnBeat } from './divisions.ts';
import { dotTooLong, dotTooShort, holdCut, holdPulsed, tieRestruck } from './holds.ts';
import type { MisreadingCode, MisreadingKind, Hypothesis } from './misreading.ts';
import { restClapped, restSkipped, restTooLong } from './rests.ts';
import {
  doubleTempo,
  dragging,
  enteredEarly,
  enteredLate,
  halfTempo,
  lostAndRecovered,
  measureRepeated,
  measureSkipped,
  rushing,
  stoppedEarly,
} from './wholeTakes.ts';

/** Every known misreading (handbook §8). To add one: its entry in a file of this folder, its code, and a line here. */
export const MISREADINGS: Readonly<Record<MisreadingCode, MisreadingKind>> = {
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
};

/** Only a click can tell these: without one there is no right moment to come in and no set tempo. */
const NEEDS_CLICK: ReadonlySet<MisreadingCode> = new Set<MisreadingCode>([
  'entered-early',
  'entered-late',
  'half-tempo',
  'double-tempo',
]);

/** Where a misreading can happen at many places, each of them is the less likely. */
const PLACE_WEIGHT = 0.6;

function weighed(hypotheses: readonly Hypothesis[]): Hypothesis[] {
  const places = new Set(hypotheses.map(({ event }) => event)).size;
  return hypotheses.map((hypothesis) => ({ ...hypothesis, cost: hypothesis.cost + PLACE_WEIGHT * Math.log(places) }));
}

const KNOWN = new WeakMap<Score, readonly Hypothesis[]>();

/** Every way in which what is written can be misread at one place. */
export function hypothesesOf(written: Score, free: boolean): readonly Hypothesis[] {
  let all = KNOWN.get(written);
  if (!all)
    KNOWN.set(written, (all = Object.values(MISREADINGS).flatMap(({ hypotheses }) => weighed(hypotheses(written)))));
  return free ? all.filter(({ code }) => !NEEDS_CLICK.has(code)) : all;
}
