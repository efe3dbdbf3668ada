import { perLanguage, t } from '../words/say.ts';
import { div, floor, toNumber } from '../rhythm/fraction.ts';
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

export const COUNT_IN_KINDS = ['measure', 'two-measures', 'two-beats'] as const;
export type CountInKind = (typeof COUNT_IN_KINDS)[number];

export interface CountInOptions {
  /** Default: one measure. */
  readonly kind?: CountInKind | undefined;
  /** The teacher's own words, the last of them on the last beat; beats before them keep their numbers. */
  readonly words?: readonly string[] | undefined;
}

/** Spoken on the last two beats before the first note (rules §6). */
const readyGo = perLanguage(() => [t`ready`, t`go`] as const);

/**
 * The beats that lead in, the last of them just before the first note; each has its number, the last two say "ready,
 * go".
 * @param bpm  counted beats of the first meter a minute
 * @example 4/4 at 60 → "1" at -4, "2" at -3, "ready" at -2, "go" at -1
 */
export function countIn(
  pattern: Pattern,
  bpm: number,
  { kind = 'measure', words = readyGo() }: CountInOptions = {},
): CountInBeat[] {
  const { meter } = pattern.measures[0]!;
  const beat = beatOf(meter).length;
  const inMeasure = Math.max(1, Math.round(toNumber(beatsInMeasure(meter))));
  // One beat alone says no tempo.
  const count = kind === 'two-beats' ? 2 : kind === 'two-measures' ? 2 * inMeasure : Math.max(2, inMeasure);
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
