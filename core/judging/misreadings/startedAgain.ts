import { EPSILON } from '../../timing/tolerance.ts';
import type { Seconds } from '../../timing/units.ts';
import { paceAt, writtenTime } from '../../timing/tempoCurve.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import { type HeardSoFar, type Hypothesis, type MisreadingKind, ORDER, shifted } from './hypothesis.ts';
import { firstEvent, randomPlace } from './writtenPlaces.ts';

/** Nats: where it broke off and where it began again are anything. */
const COST = 8.5;
/** A run that broke off has at least so many claps: a single one is a clap too many. */
const FEWEST = 2;
/** A simulated child looks for a place so often. */
const TRIES = 8;
/** In beats. */
const IN_TIME = 0.25;
/** So many claps after the new beginning are compared with those written, in beats. */
const TELL = 3;
const ALIKE = 0.35;
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

/** The claps from one onset on are those of the notes from one on, as far as two or three of them can tell. */
function goesOn(
  { onsets, claps, curve }: Pick<HeardSoFar, 'onsets' | 'claps' | 'curve'>,
  onset: number,
  note: number,
  beat: Seconds,
): boolean {
  const pace = paceAt(curve, claps[note]!.time);
  let [asked, alike] = [0, 0];
  for (let k = 1; k <= TELL; k++) {
    const [heard, next] = [onsets[onset + k], claps[note + k]];
    if (heard === undefined || !next) break;
    asked++;
    const off = (heard - onsets[onset]!) / pace - (next.time - claps[note]!.time);
    if (Math.abs(off) < ALIKE * beat) alike++;
  }
  return alike >= asked - 1;
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
        if (!anew || clap.note - anew.note + 1 < FEWEST) return [];
        const seconds = writtenTime(curve, onsets[hit + 1]!) - anew.time;
        const event = measure === 0 ? (score.notes[0] ?? 0) : firstEvent(score, measure);
        const { beat } = score.events[event]!;
        const shift = { from: start, beats: seconds / beat, seconds };
        // Broken off at the end of a measure and begun again in time, the measures were played twice.
        const { to } = score.measures[played]!;
        const whole = !claps.some(({ note, written }) => note > clap.note && written < to - EPSILON);
        const twice = whole && Math.abs(seconds - (to - start)) < IN_TIME * beat;
        if (!goesOn({ onsets, claps, curve }, hit + 1, claps.indexOf(anew), beat)) return [];
        return seconds <= 0 || twice
          ? []
          : [{ event, cost: COST, apply: (all) => again(all, start, clap.written, seconds), shift }];
      });
    });
  },
  slip: (take, score, random) => {
    for (let tries = 0; tries < TRIES; tries++) {
      const clap = randomPlace(take, random);
      if (!clap) return undefined;
      const { played, beat } = score.events[score.notes[clap.note]!]!;
      const measure = random.next() < 0.5 ? 0 : played;
      const { from, to } = score.measures[measure]!;
      const run = take.claps.filter(({ note, written }) => note <= clap.note && written >= from - EPSILON);
      const seconds = clap.written - from + (1.2 + 2 * random.next()) * beat;
      // A single clap again is none, and in time after the end of the measure it was played twice.
      if (run.length < FEWEST || Math.abs(seconds - (to - from)) < 2 * IN_TIME * beat) continue;
      take.claps = again(take.claps, from, clap.written, seconds);
      return measure === 0 ? (score.notes[0] ?? 0) : firstEvent(score, measure);
    }
    return undefined;
  },
};
