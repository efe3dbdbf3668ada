import { type Score, attacksOf } from '../rhythm/score.ts';
import { playPattern } from '../rhythm/place.ts';
import { type PlayedPlace, playedPlace } from '../timing/schedule.ts';
import type { Seconds } from '../timing/units.ts';
import { round } from './mark.ts';
import type { TakeResult } from './takeResult.ts';

/** One part of a score as it was heard: its result, and the onsets that the result counts. */
export interface HeardPart {
  /** Index in the score. */
  readonly part: number;
  readonly result: TakeResult;
  readonly onsets: readonly Seconds[];
}

/** How far parts are apart at the notes they share. */
export interface Together {
  /** Shared notes that were heard in two parts at least. */
  readonly shared: number;
  /** From the first to the last of the parts, on average; ms. */
  readonly apartMs: number;
  /** Where they were furthest apart, and by how much. */
  readonly worst: PlayedPlace & { readonly apartMs: number };
  /** The part that comes first on the whole, and by how much before the others; only where that is surely so. */
  readonly leads?: { readonly part: number; readonly byMs: number };
}

/** Milliseconds: nobody hears who is first below that. */
const LEAST_LEAD = 15;
/** From fewer shared notes nobody can be said to lead; and so many times its own uncertainty it has to be. */
const FEWEST_TO_LEAD = 4;
const CERTAIN = 2;

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Who comes first: how much later than the mean of all each part was, note by note. */
function leading(later: ReadonlyMap<number, readonly number[]>): Together['leads'] {
  const parts = [...later].map(([part, by]) => {
    const middle = mean(by);
    const spread = Math.sqrt(mean(by.map((one) => (one - middle) ** 2)));
    return { part, middle, unsure: spread / Math.sqrt(by.length), notes: by.length };
  });
  parts.sort((a, b) => a.middle - b.middle);
  const [first, second] = parts;
  if (!first || !second || Math.min(first.notes, second.notes) < FEWEST_TO_LEAD) return undefined;
  const byMs = second.middle - first.middle;
  if (byMs < LEAST_LEAD || byMs < CERTAIN * Math.hypot(first.unsure, second.unsure)) return undefined;
  return { part: first.part, byMs: round(byMs, 10) };
}

/** How together the parts of a score were; undefined where they share no note that was heard in two of them. */
export function togetherOf(score: Score, heard: readonly HeardPart[]): Together | undefined {
  const measures = playPattern(score.parts[0]!.pattern);
  const moments = new Map(
    heard.map(({ part, result, onsets }) => [
      part,
      result.notes.map(({ onset }) => (onset === undefined ? undefined : onsets[onset])),
    ]),
  );
  const later = new Map<number, number[]>();
  const apart: { readonly ms: number; readonly place: PlayedPlace }[] = [];
  for (const { played, onset, parts, notes } of attacksOf(score)) {
    const times = parts.flatMap((part, i) => {
      const at = moments.get(part)?.[notes[i]!];
      return at === undefined ? [] : [{ part, ms: at * 1000 }];
    });
    if (times.length < 2) continue;
    const middle = mean(times.map(({ ms }) => ms));
    for (const { part, ms } of times) later.set(part, [...(later.get(part) ?? []), ms - middle]);
    const all = times.map(({ ms }) => ms);
    apart.push({ ms: Math.max(...all) - Math.min(...all), place: playedPlace(measures, played, onset) });
  }
  const [first, ...others] = apart;
  if (!first) return undefined;
  const worst = others.reduce((most, one) => (one.ms > most.ms ? one : most), first);
  const leads = leading(later);
  return {
    shared: apart.length,
    apartMs: round(mean(apart.map(({ ms }) => ms)), 10),
    worst: { ...worst.place, apartMs: round(worst.ms, 10) },
    ...(leads ? { leads } : {}),
  };
}
