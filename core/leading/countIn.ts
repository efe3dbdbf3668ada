import { type Fraction, add, ceil, div, floor, frac, isWhole, mul, sub, sum, toNumber } from '../rhythm/fraction.ts';
import { type Meter, beamGroups, beatOf, beatsInMeasure, meterKind } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { playPattern } from '../rhythm/place.ts';

export interface CountInBeat {
  /** Seconds from beat 1 of measure 1: before 0, and before a pickup. */
  readonly time: number;
  readonly word: string;
  /** The first beat of a measure. */
  readonly accent: boolean;
}

export const COUNT_IN_KINDS = ['measure', 'two-measures', 'two-beats'] as const;
export type CountInKind = (typeof COUNT_IN_KINDS)[number];

export interface CountInOptions {
  /** Default: one measure. */
  readonly kind?: CountInKind | undefined;
  /** The teacher's own words, the last of them on the last beat; beats before them keep their numbers. */
  readonly words?: readonly string[] | undefined;
}

/** Spoken on the last two beats before the first note (handbook §6). */
const READY_GO = ['ready', 'go'] as const;

/**
 * The beats that lead in, the last of them just before the first note; each has its number, the last two say "ready, go".
 * @param bpm  counted beats of the first meter a minute
 * @example 4/4 at 60 → "1" at -4, "2" at -3, "ready" at -2, "go" at -1
 */
export function countIn(
  pattern: Pattern,
  bpm: number,
  { kind = 'measure', words = READY_GO }: CountInOptions = {},
): CountInBeat[] {
  const { meter } = pattern.measures[0]!;
  const beat = beatOf(meter).length;
  const inMeasure = Math.max(1, Math.round(toNumber(beatsInMeasure(meter))));
  const count = kind === 'two-beats' ? 2 : kind === 'two-measures' ? 2 * inMeasure : inMeasure;
  const seconds = 60 / bpm;
  // A pickup that starts inside a beat is counted in from that beat, so that the clicks stay on the beats.
  const first = floor(div(playPattern(pattern)[0]!.at, beat));
  return Array.from({ length: count }, (_, i) => {
    const number = first - count + i;
    const place = ((number % inMeasure) + inMeasure) % inMeasure;
    return {
      time: number * seconds,
      word: words[words.length - (count - i)] ?? String(place + 1),
      accent: place === 0,
    };
  });
}

/** How strong a click is: first of a measure, first of a group, beat, part of a beat. */
export type Accent = 'measure' | 'group' | 'beat' | 'division';

export interface Beat {
  /** Seconds from beat 1 of measure 1. */
  readonly time: number;
  readonly accent: boolean;
}

/** A beat, or with subdivisions a part of one, of a pattern as played. */
export interface Pulse {
  /** Seconds from beat 1 of measure 1. */
  readonly time: number;
  readonly accent: Accent;
  /** Index of the measure in playing order, and of the beat in it from 0. */
  readonly played: number;
  readonly beat: number;
}

/** Places in a measure, in counted beats, where a group of an unequal meter starts. */
function groupStarts(meter: Meter, beat: Fraction): ReadonlySet<number> {
  if (meterKind(meter) !== 'unequal') return new Set();
  const groups = beamGroups(meter);
  return new Set(groups.map((_, i) => toNumber(div(sum(groups.slice(0, i)), beat))));
}

/**
 * Every counted beat of the pattern as played, repeats obeyed.
 * @param divided  also the halves, in compound meter the thirds, between the beats
 */
export function pulsesOf(pattern: Pattern, bpm: number, divided = false): Pulse[] {
  const first = beatOf(pattern.measures[0]!.meter).length;
  const whole = 60 / bpm / toNumber(first);
  return playPattern(pattern).flatMap(({ at, measure }, played) => {
    const { length, division } = beatOf(measure.meter);
    const step = divided ? frac(1, division) : frac(1);
    const starts = groupStarts(measure.meter, length);
    const inSteps = (time: Fraction) => ceil(div(div(time, length), step));
    const from = inSteps(measure.onset);
    const to = inSteps(add(measure.onset, measure.length));
    const bar = sub(at, measure.onset);
    return Array.from({ length: to - from }, (_, i): Pulse => {
      const place = mul(step, frac(from + i));
      const whereIn = toNumber(place);
      const accent = whereIn === 0 ? 'measure' : !isWhole(place) ? 'division' : starts.has(whereIn) ? 'group' : 'beat';
      return { time: toNumber(add(bar, mul(length, place))) * whole, accent, played, beat: Math.floor(whereIn) };
    });
  });
}

/** Every counted beat of the pattern as played; `accent` is the first of a measure. */
export function beatsOf(pattern: Pattern, bpm: number): Beat[] {
  return pulsesOf(pattern, bpm).map(({ time, accent }) => ({ time, accent: accent === 'measure' }));
}
