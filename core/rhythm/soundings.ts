import { type Fraction, ONE, add, compare, div, equal, floor, mul, sub } from './fraction.ts';
import { beatOf } from './meter.ts';
import type { Pattern } from './pattern.ts';
import { type PlayedMeasure, playPattern } from './place.ts';

/**
 * When the notes of a pattern start, as played: parts of a whole note from beat 1 of measure 1, in order. A tied-on
 * note has no start of its own, a rest none at all.
 */
export function soundings(pattern: Pattern): Fraction[] {
  return playPattern(pattern).flatMap(({ at, measure }) => {
    const bar = sub(at, measure.onset);
    return measure.events.flatMap(({ kind, onset }) => (kind === 'note' ? [add(bar, onset)] : []));
  });
}

/** The same for patterns that sound the same when clapped, and for no others. */
export function soundKey(pattern: Pattern): string {
  return soundings(pattern)
    .map(({ n, d }) => `${n}/${d}`)
    .join(' ');
}

/** Two patterns sound the same when clapped exactly if their notes start at the same times (rules §7). */
export function soundsTheSame(a: Pattern, b: Pattern): boolean {
  return soundKey(a) === soundKey(b);
}

/** One counted beat of a pattern as it is played. */
export interface SoundedBeat {
  /** The number of its measure on paper; the pickup is 0. */
  readonly measure: number;
  /** Which time through, from 1, where the measure repeats. */
  readonly timeThrough?: number;
  /** In its measure, from 1. */
  readonly beat: number;
  /** From beat 1 of measure 1, part of a whole note. */
  readonly at: Fraction;
  /** Where the bar line of its measure is, and how long its counted beats are, in the same way. */
  readonly bar: Fraction;
  readonly counted: Fraction;
  /** A counted beat; shorter where the measure ends before it does. */
  readonly length: Fraction;
}

/** The beats of a pattern, in the order in which they are played. */
export function soundedBeats(pattern: Pattern): SoundedBeat[] {
  return playPattern(pattern).flatMap(beatsOf);
}

function beatsOf({ at, measure, timeThrough }: PlayedMeasure): SoundedBeat[] {
  const { length } = beatOf(measure.meter);
  const bar = sub(at, measure.onset);
  const end = add(measure.onset, measure.length);
  const beats: SoundedBeat[] = [];
  for (let beat = floor(div(measure.onset, length)); ; beat++) {
    const onset = mul(length, { n: beat, d: 1 });
    if (compare(onset, end) >= 0) return beats;
    const from = compare(onset, measure.onset) < 0 ? measure.onset : onset;
    const next = mul(length, { n: beat + 1, d: 1 });
    const to = compare(next, end) > 0 ? end : next;
    beats.push({
      measure: measure.number,
      ...(timeThrough === undefined ? {} : { timeThrough }),
      beat: beat + 1,
      at: add(bar, from),
      bar,
      counted: length,
      length: sub(to, from),
    });
  }
}

/** Which of these times are inside a beat: at its start or later, before the next. */
export function insideBeat(
  onsets: readonly Fraction[],
  { at, length }: Pick<SoundedBeat, 'at' | 'length'>,
): Fraction[] {
  const end = add(at, length);
  return onsets.filter((onset) => compare(onset, at) >= 0 && compare(onset, end) < 0);
}

/** Where a time stands in the measure of a beat, in counted beats from 1. */
export function beatOfTime(time: Fraction, { bar, counted }: Pick<SoundedBeat, 'bar' | 'counted'>): Fraction {
  return add(div(sub(time, bar), counted), ONE);
}

export function sameTimes(a: readonly Fraction[], b: readonly Fraction[]): boolean {
  return a.length === b.length && a.every((time, i) => equal(time, b[i]!));
}
