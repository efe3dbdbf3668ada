import { type Fraction, add, compare, div, equal, floor, frac, isWhole, mul, sub } from './fraction.ts';
import { type Beat, type Meter, beatOf, meterLength } from './meter.ts';
import type { Item, Measure, Note, Rest } from './pattern.ts';
import type { TupletPlace } from './place.ts';
import { type NoteValue, VALUES, lengthOf, valueOfLength } from './value.ts';

/** A stretch of sound or silence in a measure; times are parts of a whole note from the bar line. */
export interface SoundSpan {
  readonly kind: 'note' | 'rest';
  readonly from: Fraction;
  readonly to: Fraction;
  /** Goes on sounding in the next measure. */
  readonly tiedOut?: boolean;
}

const BY_LENGTH: readonly NoteValue[] = VALUES.flatMap(({ letter }) =>
  ([2, 1, 0] as const).map((dots): NoteValue => ({ base: letter, dots })),
).sort((a, b) => compare(lengthOf(b), lengthOf(a)));

/**
 * The values that write a stretch of time: one where one sign can write it, else cut at the beats.
 * A rest that starts inside a beat is always cut at the next beat, so that the beats stay visible.
 */
export function spell(from: Fraction, length: Fraction, beat: Beat, kind: 'note' | 'rest'): NoteValue[] {
  const values: NoteValue[] = [];
  let at = from;
  let left = length;
  while (compare(left, SHORTEST) >= 0) {
    const one = valueOfLength(left);
    const place = div(at, beat.length);
    const toBeat = mul(sub(frac(floor(place) + 1), place), beat.length);
    const crosses = !isWhole(place) && compare(left, toBeat) > 0;
    const most = crosses && (kind === 'rest' || !one) ? toBeat : left;
    const value = one && equal(most, left) ? one : (longestIn(most) ?? longestIn(left)!);
    values.push(value);
    at = add(at, lengthOf(value));
    left = sub(left, lengthOf(value));
  }
  return values;
}

function longestIn(length: Fraction): NoteValue | undefined {
  return BY_LENGTH.find((value) => compare(lengthOf(value), length) <= 0);
}

const SHORTEST = lengthOf({ base: 't', dots: 0 });

/**
 * Writes stretches as the items of one measure; inside `tuplets` in their own values.
 * @param stretches  in order, without gaps
 */
export function writeMeasure(
  meter: Meter,
  stretches: readonly SoundSpan[],
  tuplets: readonly TupletPlace[] = [],
): Measure {
  const silent = stretches.every(({ kind }) => kind === 'rest');
  const last = stretches.at(-1);
  if (silent && last && equal(sub(last.to, stretches[0]!.from), meterLength(meter)))
    return { meter, items: [], rests: 1 };
  const beat = beatOf(meter);
  const items: Item[] = [];
  let at = stretches[0]?.from ?? frac(0);
  for (const tuplet of tuplets) {
    const end = add(tuplet.onset, tuplet.length);
    items.push(...writeRegion(stretches, at, tuplet.onset, frac(1), beat));
    const events = writeRegion(stretches, tuplet.onset, end, frac(tuplet.n, tuplet.m), beat);
    const needed = events.some(({ kind }) => kind === 'note');
    if (needed) items.push({ kind: 'tuplet', n: tuplet.n, m: tuplet.m, events });
    else items.push(...writeRegion(stretches, tuplet.onset, end, frac(1), beat));
    at = end;
  }
  if (last && compare(at, last.to) < 0) items.push(...writeRegion(stretches, at, last.to, frac(1), beat));
  return { meter, items };
}

/** @param ratio  written length over sounding length: 3/2 inside a triplet */
function writeRegion(
  stretches: readonly SoundSpan[],
  from: Fraction,
  to: Fraction,
  ratio: Fraction,
  beat: Beat,
): (Note | Rest)[] {
  const events: (Note | Rest)[] = [];
  for (const stretch of stretches) {
    const start = compare(stretch.from, from) > 0 ? stretch.from : from;
    const end = compare(stretch.to, to) < 0 ? stretch.to : to;
    if (compare(start, end) >= 0) continue;
    const values = spell(
      equal(ratio, frac(1)) ? start : mul(sub(start, from), ratio),
      mul(sub(end, start), ratio),
      beat,
      stretch.kind,
    );
    values.forEach((value, i) => {
      const goesOn = i + 1 < values.length || compare(end, stretch.to) < 0 || stretch.tiedOut === true;
      events.push(
        stretch.kind === 'rest'
          ? { kind: 'rest', value }
          : { kind: 'note', value, ...(goesOn ? { tied: true as const } : {}) },
      );
    });
  }
  return events;
}
