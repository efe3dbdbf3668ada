import { paceAt } from '../../timing/tempoCurve.ts';
import { EPSILON } from '../../timing/tolerance.ts';
import type { Beats } from '../../timing/units.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score, ScoreEvent, ScoreMeasure } from '../scoreEvents.ts';
import { type HeardSoFar, type Hypothesis, type MisreadingKind, delayed, shifted } from './hypothesis.ts';
import { firstEvent, isBeatUndivided, measureOf, soundsAfter } from './writtenPlaces.ts';

/** Nats: a habit of its own, and each further bar line lets it be a little less sure. */
const COST = 6;
const COST_EACH = 0.2;
/** At fewer bar lines it is a stop, or a rest or note cut, at each. */
const FEWEST = 2;
/** Beats: more at every bar line is no measure of the same music. */
const MOST: Beats = 2;
/** Beats: less is a breath, not another length. */
const LEAST: Beats = 0.3;

/** Beats: nearer to a half or a third than this it is meant to be just that. */
const NEAR: Beats = 1 / 12;

/** All bar lines from one measure on: each moves what follows it by so many beats more. */
function atBarLines(score: Score, from: number, beats: Beats): Hypothesis | undefined {
  const lines = score.measures
    .slice(from, -1)
    .map((measure, k) => ({ measure, event: firstEvent(score, from + k) }))
    .filter(({ measure: { to } }) => soundsAfter(score, to));
  if (lines.length < FEWEST) return undefined;
  const parts = lines.map(({ measure: { to }, event }): Hypothesis => {
    const seconds = beats * score.events[event]!.beat;
    return {
      event,
      cost: 0,
      apply: (claps) => shifted(claps, to, seconds),
      shift: { from: to, beats, seconds },
    };
  });
  // At once, for a long piece has many of them.
  const by = (written: number): number =>
    parts.reduce((sum, { shift }) => (written >= shift!.from - EPSILON ? sum + shift!.seconds : sum), 0);
  return {
    event: parts[0]!.event,
    cost: COST + COST_EACH * parts.length,
    apply: (claps) => claps.map((clap): ExpectedClap => delayed(clap, by(clap.written))),
    parts,
  };
}

/** Into how many parts of a beat the amounts go: an eighth that is counted has none. */
function partsOf(first: ScoreEvent | undefined): number {
  if (!first) return 2;
  return isBeatUndivided(first.source.measure.meter) ? 1 : first.division;
}

/** By how much the take is longer than written for each of some bar lines, in beats. */
function measured({ beat }: Score, { onsets, claps, hits, curve }: HeardSoFar, lines: number): Beats {
  const first = hits.findIndex((hit) => hit >= 0);
  const begin = claps[first];
  if (!begin || lines < FEWEST) return 0;
  const heard = (onsets.at(-1)! - onsets[hits[first]!]!) / paceAt(curve, begin.time);
  return (heard - (claps.at(-1)!.time - begin.time)) / lines / beat;
}

/** Parts of a beat that it may be, and what it is where that is none of them. */
function amountsNear(beats: Beats, parts: number): Beats[] {
  const steps = [Math.floor(beats * parts) / parts, Math.ceil(beats * parts) / parts];
  return [...new Set([...steps, ...(steps.some((step) => Math.abs(beats - step) < NEAR) ? [] : [beats])])];
}

/** Without a click the take may be longer because it was slower. */
function everyAmount(side: 1 | -1, parts: number): Beats[] {
  return Array.from({ length: MOST * parts }, (_, i) => (side * (i + 1)) / parts);
}

function fits(beats: Beats, side: 1 | -1, { from, to }: ScoreMeasure, beat: number): boolean {
  const size = beats * side;
  return size >= LEAST && size <= MOST + EPSILON && (side > 0 || size * beat < to - from - beat / 2);
}

function lengthened(side: 1 | -1): MisreadingKind {
  return {
    about: 'place',
    noHabit: true,
    inTake: (score, take) => {
      const { measures, beat, events } = score;
      const at = measureOf(score, take);
      return [...new Set([0, Math.max(0, at - 1)])].flatMap((from) =>
        (take.free
          ? everyAmount(side, partsOf(events[0]))
          : amountsNear(measured(score, take, measures.length - 1 - from), partsOf(events[0]))
        )
          .filter((beats) => fits(beats, side, measures[1] ?? measures[0]!, beat))
          .flatMap((beats) => atBarLines(score, from, beats) ?? []),
      );
    },
    slip: (take, score, random) => {
      const { measures, beat } = score;
      if (measures.length < FEWEST + 2) return undefined;
      const beats = (side * (1 + random.below(2))) / Math.min(2, partsOf(score.events[0]));
      if (!fits(beats, side, measures[1]!, beat)) return undefined;
      const made = atBarLines(score, 0, beats)!;
      const claps = made.apply(take.claps);
      // A measure can lose only what is silent at its end.
      const gaps = claps.map(({ time }, i) => time - (claps[i - 1]?.time ?? -Infinity));
      if (gaps.some((gap) => gap < beat / 4)) return undefined;
      take.claps = claps;
      return made.event;
    },
  };
}

/** Waited at each bar line, or counted a beat too many in each measure. */
export const measuresTooLong: MisreadingKind = lengthened(1);
/** Left something out at the end of each measure. */
export const measuresTooShort: MisreadingKind = lengthened(-1);
