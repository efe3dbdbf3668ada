import { EPSILON } from '../../timing/tolerance.ts';
import { writtenTime } from '../../timing/tempoCurve.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import { type Hypothesis, type MisreadingKind, ORDER, shifted } from './hypothesis.ts';
import { firstEvent, randomPlace } from './writtenPlaces.ts';

/** Nats: where it broke off and where it began again are anything. */
const COST = 8.5;
/** A run from the very beginning that broke off has at least so many claps: a single one came before the start. */
const FEWEST = 2;
/** In beats. */
const IN_TIME = 0.4;
/** Claps before and after the first strange thing: so far from it the break is looked for. */
const LOOK_BACK = 6;
const LOOK_ON = 60;

/**
 * The claps of a run that broke off after a clap and began again at a written time: what counts is the last run.
 * @param from  where it began again
 * @param last  written time of the last clap of the run that broke off
 * @param seconds  by how much later the second run is
 */
function again(claps: readonly ExpectedClap[], from: number, last: number, seconds: number): ExpectedClap[] {
  const before = claps.filter(({ written }) => written < from - EPSILON);
  const broken = claps.filter(({ written }) => written >= from - EPSILON && written <= last + EPSILON);
  const second = claps.filter(({ written }) => written >= from - EPSILON);
  return [
    ...before,
    // On paper just before the place where it begins again, in their own order.
    ...broken.map(({ time }, k): ExpectedClap => {
      return { note: -1, replayed: true, written: from - (broken.length - k) * ORDER, time };
    }),
    ...shifted(second, from, seconds),
  ];
}

export const startedAgain: MisreadingKind = {
  about: 'place',
  inTake: (score, { onsets, claps, hits, curve, first }) => {
    const from = Math.max(0, first - LOOK_BACK);
    return claps.slice(from, first + LOOK_ON).flatMap((clap, k): Hypothesis[] => {
      const hit = hits[from + k]!;
      if (hit < 0 || clap.note < 0 || hit + 1 >= onsets.length) return [];
      const { played } = score.events[score.notes[clap.note]!]!;
      return [...new Set([0, played])].flatMap((measure): Hypothesis[] => {
        const start = score.measures[measure]!.from;
        const anew = claps.find(({ note, written }) => note >= 0 && written >= start - EPSILON);
        if (!anew || clap.note - anew.note + 1 < (measure === 0 ? FEWEST : 1)) return [];
        const seconds = writtenTime(curve, onsets[hit + 1]!) - anew.time;
        const event = measure === 0 ? (score.notes[0] ?? 0) : firstEvent(score, measure);
        const shift = { from: start, beats: seconds / score.events[event]!.beat, seconds };
        // Broken off at its end and begun again in time, the measure was played twice.
        const { from: begin, to } = score.measures[measure]!;
        const whole =
          measure === played && !claps.some(({ note, written }) => note > clap.note && written < to - EPSILON);
        const twice = whole && Math.abs(seconds - (to - begin)) < IN_TIME * score.events[event]!.beat;
        return seconds <= 0 || twice
          ? []
          : [{ event, cost: COST, apply: (all) => again(all, start, clap.written, seconds), shift }];
      });
    });
  },
  slip: (take, score, random) => {
    const clap = randomPlace(take, random);
    if (!clap) return undefined;
    const { played, beat } = score.events[score.notes[clap.note]!]!;
    const measure = random.next() < 0.5 ? 0 : played;
    const { from } = score.measures[measure]!;
    const seconds = clap.written - from + (1.2 + 2 * random.next()) * beat;
    take.claps = again(take.claps, from, clap.written, seconds);
    return measure === 0 ? (score.notes[0] ?? 0) : firstEvent(score, measure);
  },
};
