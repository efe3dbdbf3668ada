import { perLanguage, t } from '../words/say.ts';
import { type Fraction, ceil, floor, frac, isWhole } from '../rhythm/fraction.ts';
import type { CountedEvent, Words } from './countingSystem.ts';

/** A place in the beat that has a syllable in some school. `sixth3` is the half of a beat that divides in three. */
export type PlaceInBeat =
  | 'beat'
  | 'quarter1'
  | 'half'
  | 'quarter3'
  | 'third1'
  | 'third2'
  | 'sixth1'
  | 'sixth3'
  | 'sixth5';

/** Stands for a place or value finer than a system's table (rules §4, fine print). */
export const NO_SYLLABLE = '·';

export const PLACE_MEANINGS = perLanguage((): Readonly<Record<Exclude<PlaceInBeat, 'beat'>, string>> => ({
  quarter1: t`second of four in a beat`,
  half: t`second of two in a beat`,
  quarter3: t`last of four in a beat`,
  third1: t`second of three in a beat`,
  third2: t`third of three in a beat`,
  sixth1: t`beat of three: second {s} of six`,
  sixth3: t`beat of three: fourth {s} of six`,
  sixth5: t`beat of three: last {s} of six`,
}));

/** The place after n/d of a beat is `table[d][n]`. */
type PlaceTable = Readonly<Record<number, readonly (PlaceInBeat | undefined)[]>>;

const _ = undefined;
const THIRDS = [_, 'third1', 'third2'] as const;
const SIXTHS = [_, 'sixth1', _, _, _, 'sixth5'] as const;
const TWO: PlaceTable = { 1: ['beat'], 2: [_, 'half'], 3: THIRDS, 4: [_, 'quarter1', _, 'quarter3'], 6: SIXTHS };
const THREE: PlaceTable = { 1: ['beat'], 2: [_, 'sixth3'], 3: THIRDS, 6: SIXTHS };

/** A tuplet that starts on a beat divides it its own way; elsewhere the beat's division rules. */
function divisionAt(event: CountedEvent): 2 | 3 {
  const { tuplet } = event;
  if (!tuplet || !isWhole(tuplet.onset)) return event.beat.division;
  if (tuplet.n % 3 === 0) return 3;
  return tuplet.n === 2 || tuplet.n === 4 || tuplet.n === 8 ? 2 : event.beat.division;
}

/**
 * Where a point of an event (default: its onset) stands: the number of its beat, from 1, and the place in that beat.
 */
export function placeOf(
  event: CountedEvent,
  point: Fraction = event.onset,
): { beat: number; place: PlaceInBeat | undefined } {
  const whole = floor(point);
  const table = divisionAt(event) === 3 ? THREE : TWO;
  return { beat: whole + 1, place: table[point.d]?.[point.n - whole * point.d] };
}

export interface HeldBeat {
  /** Its number, from 1. */
  readonly beat: number;
  /** The event lasts to its end. */
  readonly full: boolean;
}

/** The beats that start inside an event, after its onset. */
export function beatsInside(event: CountedEvent): readonly HeldBeat[] {
  return beatsFrom(floor(event.onset) + 1, event);
}

/** As `beatsInside`, with a beat that starts just with the event: what a tied-on note holds through. */
export function beatsHeld(event: CountedEvent): readonly HeldBeat[] {
  return beatsFrom(ceil(event.onset), event);
}

const NONE: readonly HeldBeat[] = [];

/**
 * Asked for every note in every system, and nearly always for nothing: in whole numbers, without fractions of its own.
 */
function beatsFrom(first: number, { onset, length }: CountedEvent): readonly HeldBeat[] {
  const end = onset.n * length.d + length.n * onset.d;
  const unit = onset.d * length.d;
  if (first * unit >= end) return NONE;
  const beats: HeldBeat[] = [];
  for (let start = first; start * unit < end; start++) beats.push({ beat: start + 1, full: (start + 1) * unit <= end });
  return beats;
}

const NO_POINTS: readonly Fraction[] = [];

/** The points k × step (in beats) that an event sounds through; with `own`, also one at its onset. */
export function pointsInside({ onset, length }: CountedEvent, step: Fraction, own = false): readonly Fraction[] {
  const end = (onset.n * length.d + length.n * onset.d) * step.d;
  const unit = onset.d * length.d * step.n;
  const from = (onset.n * step.d) / (onset.d * step.n);
  const first = own ? Math.ceil(from) : Math.floor(from) + 1;
  if (first * unit >= end) return NO_POINTS;
  const points: Fraction[] = [];
  for (let k = first; k * unit < end; k++) points.push(frac(k * step.n, step.d));
  return points;
}

/** The word of a place: the beat's own word or number, the place's syllable, or the sign for none. */
export function placeWord(event: CountedEvent, words: Words, point?: Fraction): string {
  const { beat, place } = placeOf(event, point);
  if (place === 'beat') return beatWord(beat, words);
  return (place && words[place]) ?? NO_SYLLABLE;
}

export function beatWord(beat: number, words: Words): string {
  return words[`beat${beat}`] ?? String(beat);
}

const SMALL = '₀₁₂₃₄₅₆₇₈₉';

/** "-₃": a hold that ends inside the beat. */
export function smallHold(beat: number): string {
  return `-${[...String(beat)].map((digit) => SMALL[Number(digit)]).join('')}`;
}

/**
 * The vowel a held syllable goes on with: vowelOf("di") = "i", vowelOf("tom") = "o". A syllable without one is
 * repeated.
 */
export function vowelOf(syllable: string): string {
  return /[aeiouyäöüáéíóúàèìòùâêîôûåæøœ]+(?=[^aeiouyäöüáéíóúàèìòùâêîôûåæøœ]*$)/i.exec(syllable)?.[0] ?? syllable;
}
