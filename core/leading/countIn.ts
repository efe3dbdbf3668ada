import { add, div, floor, frac, mul, sub, toNumber } from '../rhythm/fraction.ts';
import { beatOf, beatsInMeasure } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { playPattern } from '../rhythm/place.ts';

export interface CountInBeat {
  /** Seconds from beat 1 of measure 1: before 0, and before a pickup. */
  readonly time: number;
  readonly word: string;
  /** The first beat of a measure. */
  readonly accent: boolean;
}

/** Spoken on the last two beats before the first note (handbook §6). */
const READY_GO = ['ready', 'go'] as const;

/**
 * One measure of beats that ends on the beat before the first note; each has its number, the last two say "ready, go".
 * @param bpm  counted beats of the first meter a minute
 * @example 4/4 at 60 → "1" at -4, "2" at -3, "ready" at -2, "go" at -1
 */
export function countIn(pattern: Pattern, bpm: number): CountInBeat[] {
  const { meter } = pattern.measures[0]!;
  const beat = beatOf(meter).length;
  const inMeasure = Math.max(1, Math.round(toNumber(beatsInMeasure(meter))));
  const seconds = 60 / bpm;
  // A pickup that starts inside a beat is counted in from that beat, so that the clicks stay on the beats.
  const first = floor(div(playPattern(pattern)[0]!.at, beat));
  return Array.from({ length: inMeasure }, (_, i) => {
    const number = first - inMeasure + i;
    const left = inMeasure - i;
    const place = ((number % inMeasure) + inMeasure) % inMeasure;
    const word = left <= READY_GO.length && inMeasure > READY_GO.length ? READY_GO[READY_GO.length - left]! : String(place + 1);
    return { time: number * seconds, word, accent: place === 0 };
  });
}

export interface Beat {
  /** Seconds from beat 1 of measure 1. */
  readonly time: number;
  readonly accent: boolean;
}

/** Every counted beat of the pattern as played, repeats obeyed. */
export function beatsOf(pattern: Pattern, bpm: number): Beat[] {
  const first = beatOf(pattern.measures[0]!.meter).length;
  const whole = 60 / bpm / toNumber(first);
  return playPattern(pattern).flatMap(({ at, measure }) => {
    const beat = beatOf(measure.meter).length;
    const from = Math.ceil(toNumber(div(measure.onset, beat)));
    const to = Math.ceil(toNumber(div(add(measure.onset, measure.length), beat)));
    const bar = sub(at, measure.onset);
    return Array.from({ length: to - from }, (_, i) => ({ time: toNumber(add(bar, mul(beat, frac(from + i)))) * whole, accent: from + i === 0 }));
  });
}
