import { type Fraction, add, ceil, div, frac, isWhole, mul, sub, sum, toNumber } from '../rhythm/fraction.ts';
import { type Meter, beamGroups, beatOf, meterKind } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { playPattern } from '../rhythm/place.ts';

/** How strong a click is: first of a measure, first of a group, beat, part of a beat. */
export type Accent = 'measure' | 'group' | 'beat' | 'division';

export interface BeatTime {
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
export function beatTimes(pattern: Pattern, bpm: number): BeatTime[] {
  return pulsesOf(pattern, bpm).map(({ time, accent }) => ({ time, accent: accent === 'measure' }));
}
