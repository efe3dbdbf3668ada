import { type Fraction, add, compare, div, equal, frac, mul, toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { PlacedEvent, PlayedMeasure } from '../rhythm/place.ts';
import type { Schedule } from '../timing/schedule.ts';
import type { Seconds } from '../timing/units.ts';
import type { Stretch } from './misreadings/hypothesis.ts';
import { SAME_CLAP } from './windows.ts';

/** Where a hit that belongs to no note fell (rules §8). */
export const EXTRA_KINDS = ['before', 'rest', 'hold', 'tie', 'bounce', 'after', 'other'] as const;
export type ExtraKind = (typeof EXTRA_KINDS)[number];

export interface Spot {
  /** Index of the measure in playing order. */
  readonly played: number;
  /** Nearest place of the grid, part of a whole note from the bar line. */
  readonly onset: Fraction;
  /** The written event that covers it. */
  readonly event: PlacedEvent | undefined;
}

/**
 * The grid of a beat: its halves or thirds, and where the pattern itself goes finer its quarters or sixths;
 * inside a tuplet the tuplet's own notes.
 */
const COARSE: Readonly<Record<2 | 3, Fraction>> = { 2: frac(1, 2), 3: frac(1, 3) };
const FINE: Readonly<Record<2 | 3, Fraction>> = { 2: frac(1, 4), 3: frac(1, 6) };

/**
 * The grid place nearest to a time; undefined where nothing is written.
 * @param plain  seconds as written in which the beat was divided otherwise: finer, and in no tuplet
 */
export function spotAt(
  { measures, whole, fine: written }: Schedule,
  time: Seconds,
  fine: boolean = written,
  plain: readonly Stretch[] = [],
): Spot | undefined {
  const at = time / whole;
  let played = measures.length - 1;
  while (played > 0 && at < toNumber(measures[played]!.at) - NEAR_BAR) played--;
  const here = measures[played]!;
  const isPlain = plain.some(({ from, to }) => time > from - NEAR_BAR * whole && time < to - NEAR_BAR * whole);
  let onset = nearest(here, at - toNumber(here.at) + toNumber(here.measure.onset), fine || isPlain, isPlain);
  if (compare(onset, add(here.measure.onset, here.measure.length)) >= 0) {
    const next = measures[++played];
    if (!next) return undefined;
    onset = next.measure.onset;
  }
  const { measure } = measures[played]!;
  if (compare(onset, measure.onset) < 0) return undefined;
  const event = measure.events.find((e) => compare(e.onset, onset) <= 0 && compare(onset, add(e.onset, e.length)) < 0);
  return { played, onset, event };
}

/** A hit so little before a bar line (part of a whole note) is looked for in the measure after it. */
const NEAR_BAR = 1 / 64;

function nearest({ measure }: PlayedMeasure, inside: number, fine: boolean, isPlain: boolean): Fraction {
  const beat = beatOf(measure.meter);
  const tuplet = measure.events.find(
    ({ tuplet: t }) =>
      t && !isPlain && inside >= toNumber(t.onset) - 1 / 128 && inside < toNumber(add(t.onset, t.length)) - 1 / 128,
  )?.tuplet;
  const step = tuplet ? div(tuplet.length, frac(tuplet.n)) : mul(beat.length, (fine ? FINE : COARSE)[beat.division]);
  const from = tuplet ? tuplet.onset : frac(0);
  const places = Math.round((inside - toNumber(from)) / toNumber(step));
  return add(from, mul(step, frac(places)));
}

/** Part of a whole note: so long before anything is written a clap belongs to nothing yet. */
const BEFORE = 1 / 16;

/**
 * @param time   by the written clock, lead, drift and shifts taken off
 * @param after  seconds since the clap before it that counted; Infinity when there is none
 */
export function extraKind(schedule: Schedule, time: Seconds, after: Seconds): ExtraKind {
  if (after < SAME_CLAP) return 'bounce';
  const first = schedule.events[0];
  if (after === Infinity && first && time < first.time - BEFORE * schedule.whole) return 'before';
  const spot = spotAt(schedule, time);
  if (!spot) return time >= schedule.end - 1e-9 || time > (schedule.notes.at(-1)?.time ?? 0) ? 'after' : 'other';
  if (spot.event?.kind === 'rest') return 'rest';
  if (spot.event?.kind === 'tied') return 'tie';
  return spot.event && !equal(spot.event.onset, spot.onset) ? 'hold' : 'other';
}
