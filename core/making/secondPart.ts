import { type Random, randomFrom } from '../random.ts';
import { type ElementId, elementsOf } from '../rhythm/elements.ts';
import { sameMeter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { fillingsOf, framesOf, inFrame } from '../rhythm/scoreParts.ts';
import { type Level, difficultyOf } from './level.ts';
import { elementsAt, makePattern, withMeter } from './makePattern.ts';
import { shareOut } from './partsOf.ts';

/**
 * How a second part goes with a given one: it claps only where the other does not, meets it at so many notes, or has
 * each measure one measure later.
 */
export const SECOND_WAYS = ['fills', 'meets', 'follows'] as const;
export type SecondWay = (typeof SECOND_WAYS)[number];

export interface SecondWanted {
  readonly way: SecondWay;
  readonly level: Level;
  /** Notes that both have, where it meets the other. */
  readonly shared?: number;
}

/** Out of so many made ones the best is taken. */
const CANDIDATES = 60;

/** Where the written notes stand: measure and time in it. */
function placesOf(pattern: Pattern): string[] {
  return placePattern(pattern).flatMap(({ events }, measure) =>
    events.flatMap(({ kind, onset }) => (kind === 'note' ? [`${measure} ${onset.n}/${onset.d}`] : [])),
  );
}

/** Notes of the second that the first has too, by their index. */
function metNotes(first: Pattern, second: Pattern): number[] {
  const places = new Set(placesOf(first));
  return placesOf(second).flatMap((place, note) => (places.has(place) ? [note] : []));
}

const notesIn = (pattern: Pattern) => placesOf(pattern).length;

/** So many of some things, spread over all of them. */
function spread<T>(things: readonly T[], count: number): T[] {
  return things.filter(
    (_, i) => Math.floor(((i + 1) * count) / things.length) > Math.floor((i * count) / things.length),
  );
}

/** Each measure of a rhythm a measure later; the first one rests. */
function following(first: Pattern): Pattern {
  const fillings = fillingsOf(first);
  const [, rests] = shareOut(first, () => 0);
  return inFrame(false, framesOf(first), [fillingsOf(rests)[0]!, ...fillings.slice(0, -1)]);
}

/** The elements that the first part has, and those of the level: the second is not stranger than its class. */
function elementsFor(first: Pattern, level: Level): readonly ElementId[] {
  return withMeter([...new Set([...elementsAt(level), ...elementsOf(first).keys()])], first.measures[0]!.meter);
}

/** A made rhythm as it would be the second part, with how far it is from what is wanted. */
function asSecond(first: Pattern, made: Pattern, { way, level, shared = 0 }: SecondWanted): [Pattern, number] {
  const frames = framesOf(first);
  const framed = inFrame(false, frames, fillingsOf(made));
  const met = metNotes(first, framed);
  const off = (pattern: Pattern) => Math.abs(difficultyOf(pattern).level - level);
  // Where too many meet, some of them give way.
  const less = new Set(spread(met, Math.max(0, met.length - (way === 'meets' ? shared : 0))));
  const [alone] = shareOut(framed, ({ note }) => (less.has(note) ? 1 : 0));
  if (way === 'meets') return [alone, Math.abs(met.length - less.size - shared) * 10 + off(alone)];
  const empty = placePattern(alone).filter(({ events }) => events.every(({ kind }) => kind !== 'note')).length;
  return [alone, empty * 5 + off(alone) - notesIn(alone) / (4 * frames.length)];
}

/**
 * A second part for a rhythm; the same seed makes the same one.
 * @returns undefined for a rhythm with a pickup or several meters, and where none can be made
 */
export function secondPart(first: Pattern, wanted: SecondWanted, seed: number): Pattern | undefined {
  const { meter } = first.measures[0]!;
  if (first.pickup || !first.measures.every((one) => sameMeter(one.meter, meter))) return undefined;
  if (wanted.way === 'follows') return following(first);
  const random: Random = randomFrom(seed);
  const measures = framesOf(first).length;
  const material = { elements: elementsFor(first, wanted.level), level: wanted.level, meter, measures };
  let best: [Pattern, number] | undefined;
  for (let i = 0; i < CANDIDATES; i++) {
    const made = makePattern(material, random);
    if (!made) continue;
    const found = asSecond(first, made, wanted);
    if (notesIn(found[0]) > 0 && (!best || found[1] < best[1])) best = found;
  }
  return best?.[0];
}
