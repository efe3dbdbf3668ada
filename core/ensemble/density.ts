import { decayOf, struckIn } from './echo.ts';
import { type Stretch, type Strikes, middlePartOf } from './strikes.ts';

/** One group of bands: its power, frame by frame, and what surrounds the class in it. */
export interface GroupPower {
  readonly power: Float64Array;
  readonly floor: number;
}

/** How thick strikes come: of each frame, in three guesses of how loud the room is beside the claps. */
export interface Density {
  /** With the echo as it seems to be, and some dB drier and wetter. */
  readonly struck: readonly Float64Array[];
  /** Of each group of bands alone, in the first guess. */
  readonly groups: readonly Float64Array[];
  /** Of the echo, dB beside the claps themselves, and seconds. */
  readonly echoDb: number;
  readonly echoSeconds: number;
  /** How far the groups stand above what is between the notes, as a logarithm: the best of them. */
  readonly clarity: number;
}

const ECHO_SECONDS = [0.2, 0.3, 0.4, 0.55, 0.7, 0.9, 1.15, 1.5] as const;
const TRIED_DB = [-6, 2] as const;
const ROUGH_ROUNDS = 8;
const ROUNDS = 20;
/** How loud the echo may be; in a classroom it is usually a little louder than the claps. */
const ECHO_DB = [-16, -12, -9, -6, -4, -2, 0, 2, 4, 6, 9] as const;
const USUAL_DB = { middle: 1, deviation: 5 };
/** Guesses beside the best, dB. */
export const BESIDE_DB = [0, -4, 4] as const;
/** A group that stands out less than this beside what is between the notes tells nothing. */
const LEAST_CLARITY = 1.5;
/** Where none does, all are heard alike. */
const LEAST_WEIGHT = 0.05;
/** How lopsided the claps of a class at one note are by chance, and those of one class on the whole. */
const LOPSIDED = { note: 0.3, class: 0.1 };
/** Softer than this part of the loudest is noise where lopsidedness is measured. */
const NOISE_PART = 0.01;
const POWER = 0.8;

/** How lopsided the claps at notes are, in the middle of all: later ones farther out is above 0. */
function lopsided(struck: Float64Array, notes: readonly Stretch[]): number {
  const found = notes.flatMap(({ from, to }) => {
    let most = 0;
    for (let t = from; t < to; t++) most = Math.max(most, struck[t]!);
    const count = Math.max(0, to - from);
    const strikes: Strikes = {
      times: Float64Array.from({ length: count }, (_, i) => i),
      shares: Float64Array.from(
        { length: count },
        (_, i) => Math.max(0, struck[from + i]! - NOISE_PART * most) ** POWER,
      ),
    };
    const part = middlePartOf(strikes, { from: 0, to: count });
    return part ? [(part.from + part.to - 2 * part.middle) / Math.max(1, part.to - part.from)] : [];
  });
  return found.sort((a, b) => a - b)[found.length >> 1] ?? 0;
}

interface Group extends GroupPower {
  readonly seconds: number;
  readonly weight: number;
  readonly clarity: number;
}

function partNear(struck: Float64Array, near: Uint8Array): { inside: number; clarity: number } {
  let [inside, outside, insideFrames] = [0, 0, 0];
  for (let t = 0; t < struck.length; t++) {
    if (near[t]) insideFrames++;
    if (near[t]) inside += struck[t]!;
    else outside += struck[t]!;
  }
  const outsideFrames = struck.length - insideFrames;
  const clarity = outsideFrames < 20 ? 100 : inside / Math.max(1, insideFrames) / (outside / outsideFrames + 1e-15);
  return { inside, clarity };
}

function known({ power, floor }: GroupPower, hop: number, near: Uint8Array): Group {
  let best: { misfit: number; seconds: number } = { misfit: Infinity, seconds: 0.5 };
  for (const seconds of ECHO_SECONDS)
    for (const db of TRIED_DB) {
      const { misfit } = struckIn(power, decayOf(hop, seconds, db), floor, ROUGH_ROUNDS, near);
      if (misfit < best.misfit) best = { misfit, seconds };
    }
  const { struck } = struckIn(power, decayOf(hop, best.seconds, 0), floor, ROUGH_ROUNDS);
  const { clarity } = partNear(struck, near);
  return {
    power,
    floor,
    seconds: best.seconds,
    clarity,
    weight: Math.max(LEAST_WEIGHT, 1 - LEAST_CLARITY / clarity) ** 2,
  };
}

/**
 * How thick the strikes of a class came, the echo of its room taken off.
 *
 * How long the echo is, is seen in what is left between the notes. How loud it is beside the claps is told by symmetry:
 * children come before the middle as they come after it, an echo only after.
 * @param notes  frames in which each note may have been struck
 */
export function densityOf(groups: readonly GroupPower[], hop: number, notes: readonly Stretch[]): Density {
  const count = groups[0]?.power.length ?? 0;
  const near = new Uint8Array(count);
  for (const { from, to } of notes) near.fill(1, Math.max(0, from), Math.max(0, to));
  const all = groups.map((group) => known(group, hop, near));
  const alone = (db: number) =>
    all.map(({ power, floor, seconds }) => struckIn(power, decayOf(hop, seconds, db), floor, ROUNDS).struck);
  const sum = (db: number) => {
    const struck = new Float64Array(count);
    alone(db).forEach((own, g) => {
      const { inside } = partNear(own, near);
      for (let t = 0; t < count; t++) struck[t]! += (all[g]!.weight * own[t]!) / (inside + 1e-12);
    });
    return struck;
  };
  const tried = new Map<number, Float64Array>();
  let best = { cost: Infinity, db: 0 };
  for (const db of ECHO_DB) {
    const struck = sum(db);
    tried.set(db, struck);
    const cost =
      lopsided(struck, notes) ** 2 / (LOPSIDED.class ** 2 + LOPSIDED.note ** 2 / Math.max(1, notes.length)) +
      ((db - USUAL_DB.middle) / USUAL_DB.deviation) ** 2;
    if (cost < best.cost) best = { cost, db };
  }
  const seconds = all.map((group) => group.seconds).sort((a, b) => a - b);
  return {
    struck: BESIDE_DB.map((beside) => tried.get(best.db + beside) ?? sum(best.db + beside)),
    groups: alone(best.db),
    echoDb: best.db,
    echoSeconds: seconds[seconds.length >> 1] ?? 0.5,
    clarity: Math.log(Math.max(1, ...all.map(({ clarity }) => clarity))),
  };
}
