import type { Density } from './density.ts';
import { NOTE_WEIGHTS as W } from './noteWeights.ts';
import { type Stretch, type Strikes, middlePartOf } from './strikes.ts';

/** What is struck is weighed by these powers: the lowest counts soft hands nearly as much as loud ones. */
const POWERS = [0.5, 0.8, 1.2] as const;
/** The guess and the power that the others are compared with. */
const BASE = { guess: 0, power: 1 } as const;
/** Softer than this part of a note's loudest frame is noise. */
const NOISE_PART = 0.02;
/** Narrower than this nothing is measured, seconds. */
const NARROWEST = 0.006;
const CLAMP = 3;

/** Where the claps of a note lie, roughly; frames. */
interface Shape {
  readonly width: number;
  readonly middle: number;
  readonly lopsided: number;
}

function shapeOf(struck: Float64Array, { from, to }: Stretch, power: number): Shape {
  const count = Math.max(1, to - from);
  let most = 0;
  // Neighbours flow together: a strike falls between frames as often as not.
  const smooth = Float64Array.from({ length: count }, (_, i) => {
    const t = from + i;
    const sum = 0.25 * (struck[t - 1] ?? 0) + 0.5 * (struck[t] ?? 0) + 0.25 * (struck[t + 1] ?? 0);
    most = Math.max(most, sum);
    return sum;
  });
  const strikes: Strikes = {
    times: Float64Array.from({ length: count }, (_, i) => from + i),
    shares: smooth.map((one) => Math.max(0, one - NOISE_PART * most) ** power),
  };
  const part = middlePartOf(strikes, { from: 0, to: count });
  if (!part) return { width: 0, middle: from, lopsided: 0 };
  const width = part.to - part.from;
  return { width, middle: part.middle, lopsided: width > 0 ? (part.from + part.to - 2 * part.middle) / width : 0 };
}

/** What is known of a note before it is weighed: rough figures, and what they are to be weighed by. */
export interface RoughNote {
  /** Seconds; the middle from the first frame. */
  readonly width: number;
  readonly middle: number;
  readonly features: readonly number[];
}

/**
 * Rough figures of each note, in every guess of the room, and what surrounds them.
 * @param notes  frames in which each may have been struck
 */
export function roughNotes(density: Density, hop: number, notes: readonly Stretch[]): RoughNote[] {
  const { struck, groups, echoDb, echoSeconds, clarity } = density;
  const shapes = notes.map((note) => [
    ...struck.map((guess) => POWERS.map((power) => shapeOf(guess, note, power))),
    groups.map((group) => shapeOf(group, note, POWERS[BASE.power])),
  ]);
  const bases = shapes.map((shape) => Math.max(NARROWEST / hop, shape[BASE.guess]![BASE.power]!.width));
  const usual = bases.toSorted((a, b) => a - b)[bases.length >> 1] ?? 1;
  const sums = notes.map(({ from, to }) =>
    struck[0]!.subarray(Math.max(0, from), Math.max(0, to)).reduce((a, b) => a + b, 0),
  );
  const usualSum = sums.toSorted((a, b) => a - b)[sums.length >> 1] || 1;
  const log = (ratio: number) => Math.max(-CLAMP, Math.min(CLAMP, Math.log(Math.max(1e-6, ratio))));
  return shapes.map((shape, n) => {
    const base = bases[n]!;
    const { middle } = shape[BASE.guess]![BASE.power]!;
    const { from, to } = notes[n]!;
    return {
      width: base * hop,
      middle: middle * hop,
      features: [
        ...shape.flatMap((guess) =>
          guess.flatMap((one) => [
            log(one.width / base),
            Math.max(-1, Math.min(1, (one.middle - middle) / base)),
            one.lopsided,
          ]),
        ),
        log(base * hop * 12),
        log(usual / base),
        log((middle - from + 1) / base),
        log((to - middle + 1) / base),
        log(sums[n]! / usualSum),
        echoDb / 8,
        log(echoSeconds * 2),
        clarity / 3,
      ],
    };
  });
}

/** No note is that much wider or narrower than it seems, logarithm. */
const MOST_WIDER = 1.2;

/** How the claps of a note lie, its rough figures weighed. @returns seconds, the middle from the first frame */
export function weighed({ width, middle, features }: RoughNote): { width: number; middle: number } {
  const into = features.map((value, i) => (value - W.mean[i]!) / W.spread[i]!);
  const cells = W.hidden.map(({ from, bias }) => Math.tanh(from.reduce((sum, w, i) => sum + w * into[i]!, bias)));
  const [wider, later] = W.out.map(({ from, bias }) => from.reduce((sum, w, i) => sum + w * cells[i]!, bias)) as [
    number,
    number,
  ];
  return {
    width: width * Math.exp(Math.max(-MOST_WIDER, Math.min(MOST_WIDER, wider))),
    middle: middle + Math.max(-1, Math.min(1, later)) * width,
  };
}
