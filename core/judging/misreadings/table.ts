import type { Score } from '../scoreEvents.ts';
import { anotherRhythm } from './anotherRhythm.ts';
import { beatMisread } from './beatMisread.ts';
import { dotTooLong } from './dotTooLong.ts';
import { dotTooShort } from './dotTooShort.ts';
import { dragging, rushing } from './drifting.ts';
import { eighthsUneven } from './eighthsUneven.ts';
import { enteredEarly, enteredLate } from './entered.ts';
import { hesitated, holdTooLong, restTooShort } from './gaps.ts';
import { holdCut } from './holdCut.ts';
import { holdPulsed } from './holdPulsed.ts';
import { type HeardSoFar, type Hypothesis, type MisreadingKind, habitOf } from './hypothesis.ts';
import { looped } from './looped.ts';
import { lostAndRecovered } from './lostAndRecovered.ts';
import { measuresTooLong, measuresTooShort } from './measureLength.ts';
import { measureRepeated } from './measureRepeated.ts';
import { measureSkipped } from './measureSkipped.ts';
import { aheadOfTheClick, behindTheClick } from './offTheClick.ts';
import { clappedTheCounts, onlyTheBeat } from './onlyTheBeat.ts';
import { doubleTempo, halfTempo } from './otherTempo.ts';
import { ownTempo } from './ownTempo.ts';
import { restClapped } from './restClapped.ts';
import { restSkipped } from './restSkipped.ts';
import { restTooLong } from './restTooLong.ts';
import { joinedLate, measureSilent } from './silent.ts';
import { sixteenthsSlow } from './sixteenthsSlow.ts';
import { startedAgain } from './startedAgain.ts';
import { stoppedEarly } from './stoppedEarly.ts';
import { syncopationStraightened } from './syncopationStraightened.ts';
import { tieRestruck } from './tieRestruck.ts';
import { upbeatOnBeat } from './upbeatOnBeat.ts';

/** Every known misreading (rules §8). To add one: its file and a row here; the compiler then asks for its words. */
const TABLE = {
  'rest-clapped': restClapped,
  'rest-skipped': restSkipped,
  'rest-too-short': restTooShort,
  'rest-too-long': restTooLong,
  'dot-too-long': dotTooLong,
  'dot-too-short': dotTooShort,
  'tie-restruck': tieRestruck,
  'hold-pulsed': holdPulsed,
  'hold-cut': holdCut,
  'hold-too-long': holdTooLong,
  'upbeat-on-beat': upbeatOnBeat,
  'eighths-uneven': eighthsUneven,
  'sixteenths-slow': sixteenthsSlow,
  'syncopation-straightened': syncopationStraightened,
  'beat-misread': beatMisread,
  'entered-early': enteredEarly,
  'entered-late': enteredLate,
  'half-tempo': halfTempo,
  'double-tempo': doubleTempo,
  'behind-the-click': behindTheClick,
  'ahead-of-the-click': aheadOfTheClick,
  'joined-late': joinedLate,
  'measure-silent': measureSilent,
  'own-tempo': ownTempo,
  hesitated,
  'started-again': startedAgain,
  'only-the-beat': onlyTheBeat,
  'clapped-the-counts': clappedTheCounts,
  'another-rhythm': anotherRhythm,
  rushing,
  dragging,
  'lost-and-recovered': lostAndRecovered,
  'measure-skipped': measureSkipped,
  'measure-repeated': measureRepeated,
  looped,
  'measures-too-long': measuresTooLong,
  'measures-too-short': measuresTooShort,
  'stopped-early': stoppedEarly,
} as const satisfies Readonly<Record<string, MisreadingKind>>;

export type MisreadingCode = keyof typeof TABLE;
export const MISREADINGS: Readonly<Record<MisreadingCode, MisreadingKind>> = TABLE;
export const MISREADING_CODES = Object.keys(TABLE) as readonly MisreadingCode[];

/** A hypothesis with its kind. */
export interface CodedHypothesis extends Hypothesis {
  readonly code: MisreadingCode;
}

/** About a take as a whole, or only its tempo: no measure of it is to be practised for it, and the rhythm was right. */
export function isAboutTake({ code, part }: { readonly code: MisreadingCode; readonly part?: true }): boolean {
  const { about, ofTempo } = MISREADINGS[code];
  return about === 'take' && (part !== true || ofTempo === true);
}

/** The rhythm may be right; what was not kept is the click. */
export function isOffClick({ code, part }: { readonly code: MisreadingCode; readonly part?: true }): boolean {
  const { needsClick, about, ofRhythmOnly } = MISREADINGS[code];
  return needsClick === true && about === 'take' && ofRhythmOnly !== true && part !== true;
}

/** Where a misreading can happen at many places, each of them is the less likely. */
const PLACE_WEIGHT = 0.6;

function coded(code: MisreadingCode, score: Score): CodedHypothesis[] {
  const kind = MISREADINGS[code];
  const hypotheses = 'hypotheses' in kind ? kind.hypotheses(score) : [];
  const places = new Set(hypotheses.flatMap(({ event, wholeTake }) => (wholeTake ? [] : [event]))).size;
  return [...hypotheses, ...(kind.noHabit ? [] : habits(hypotheses))].map((one) => ({
    ...one,
    code,
    cost: one.cost + (one.parts || one.wholeTake ? 0 : PLACE_WEIGHT * Math.log(places)),
  }));
}

/** A habit is less usual than one slip, and each further place lets it be a little less sure. */
const HABIT_COST = 1.6;
const HABIT_EACH = 0.35;

/** Every dot ignored, every rest skipped: the same way to misread at all places at once. */
function habits(hypotheses: readonly Hypothesis[]): Hypothesis[] {
  const ways = new Map<number, Hypothesis[]>();
  const seen = new Map<number, number>();
  for (const one of hypotheses) {
    if (one.wholeTake) return [];
    const way = seen.get(one.event) ?? 0;
    seen.set(one.event, way + 1);
    ways.set(way, [...(ways.get(way) ?? []), one]);
  }
  return [...ways.values()]
    .filter((parts) => parts.length > 1)
    .map((parts) => habitOf(parts, parts[0]!.cost + HABIT_COST + HABIT_EACH * parts.length));
}

/** What the take itself suggests, under what explains it so far. */
export function suggestedBy(score: Score, take: HeardSoFar, codes = MISREADING_CODES): CodedHypothesis[] {
  return codes.flatMap((code) => {
    const kind = MISREADINGS[code];
    if (take.free && kind.needsClick) return [];
    return 'inTake' in kind && kind.inTake ? kind.inTake(score, take).map((one) => ({ ...one, code })) : [];
  });
}

/** Those that may be there though every note has its clap. */
export const SUBTLE_CODES = MISREADING_CODES.filter((code) => MISREADINGS[code].asHeard);

const KNOWN = new WeakMap<Score, readonly CodedHypothesis[]>();

/** Those that move claps so little that every note may still have its clap. */
export function subtleHypotheses(score: Score): readonly CodedHypothesis[] {
  return coded('eighths-uneven', score);
}

/** Every way in which what is written can be misread at one place. */
export function hypothesesOf(score: Score, free: boolean): readonly CodedHypothesis[] {
  let all = KNOWN.get(score);
  if (!all)
    KNOWN.set(
      score,
      (all = MISREADING_CODES.filter((code) => !MISREADINGS[code].asHeard).flatMap((code) => coded(code, score))),
    );
  return free ? all.filter(({ code, wholeTake }) => !(wholeTake && MISREADINGS[code].needsClick)) : all;
}
