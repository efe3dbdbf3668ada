import { type Fraction, ZERO, add, compare, frac, mul, sub, sum } from './fraction.ts';
import { type Meter, meterLength } from './meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from './pattern.ts';
import { type NoteValue, lengthOf } from './value.ts';

/** Where a tuplet stands; all its events share the object. */
export interface TupletPlace {
  readonly n: number;
  readonly m: number;
  /** From the bar line, part of a whole note. */
  readonly onset: Fraction;
  readonly length: Fraction;
}

/** One note or rest at its place. All times are parts of a whole note, onset from the bar line. */
export interface PlacedEvent {
  /** `tied` is a tied-on note: its time is added to the note before, and it is not sounded. */
  readonly kind: 'note' | 'tied' | 'rest';
  readonly onset: Fraction;
  readonly length: Fraction;
  readonly value: NoteValue;
  readonly tiedToNext: boolean;
  readonly label?: string | undefined;
  readonly tuplet?: TupletPlace | undefined;
  /** The whole-measure rest, which has no value of its own. */
  readonly wholeMeasure?: true | undefined;
}

export interface PlacedMeasure {
  /**
   * As counted by musicians: the pickup is 0, the first full measure 1, `(M3)` takes three numbers; a number that is
   * written (`#5`) holds, and the next ones count on from it.
   */
  readonly number: number;
  /** The rehearsal letter over its bar line. */
  readonly letter?: string;
  /** Index in `pattern.measures`. */
  readonly written: number;
  readonly meter: Meter;
  /** Where its first event stands from the bar line: 0 but for a pickup. */
  readonly onset: Fraction;
  /** Length of what is written in it. */
  readonly length: Fraction;
  readonly events: readonly PlacedEvent[];
  /** In a run of whole-measure rests: which one, from 1. */
  readonly restNumber?: number;
}

/** The groups in other time among some events, in order. */
export function tupletsOf(events: readonly PlacedEvent[]): TupletPlace[] {
  return [...new Set(events.flatMap(({ tuplet }) => tuplet ?? []))];
}

/** A measure in playing order; `at` is its first event's time from beat 1 of measure 1 (a pickup is before 0). */
export interface PlayedMeasure {
  readonly at: Fraction;
  readonly measure: PlacedMeasure;
  /** Which time through, from 1; undefined for a number that is played only once. */
  readonly timeThrough: number | undefined;
}

const WHOLE: NoteValue = { base: 'w', dots: 0 };

function placeItems(
  measure: Measure,
  onset: Fraction,
  tiedIn: boolean,
): { events: PlacedEvent[]; end: Fraction; tiedOut: boolean } {
  const events: PlacedEvent[] = [];
  let now = onset;
  let tied = tiedIn;
  for (const item of measure.items) {
    if (item.kind !== 'tuplet') {
      const length = lengthOf(item.value);
      const event = placed(item, now, length, tied, undefined);
      events.push(event);
      tied = event.tiedToNext;
      now = add(now, length);
      continue;
    }
    const ratio = frac(item.m, item.n);
    const lengths = item.events.map(({ value }) => mul(lengthOf(value), ratio));
    const tuplet: TupletPlace = { n: item.n, m: item.m, onset: now, length: lengths.reduce(add, ZERO) };
    for (let i = 0; i < lengths.length; i++) {
      const event = placed(item.events[i]!, now, lengths[i]!, tied, tuplet);
      events.push(event);
      tied = event.tiedToNext;
      now = add(now, lengths[i]!);
    }
  }
  return { events, end: now, tiedOut: tied };
}

function placed(
  written: Note | Rest,
  onset: Fraction,
  length: Fraction,
  tied: boolean,
  tuplet: TupletPlace | undefined,
): PlacedEvent {
  const isNote = written.kind === 'note';
  return {
    kind: !isNote ? 'rest' : tied ? 'tied' : 'note',
    onset,
    length,
    value: written.value,
    tiedToNext: isNote && written.tied === true,
    label: isNote ? written.label : undefined,
    tuplet,
    wholeMeasure: undefined,
  };
}

/** How long one note, rest or tuplet lasts. */
export function itemLength(item: Item): Fraction {
  if (item.kind !== 'tuplet') return lengthOf(item.value);
  return mul(sum(item.events.map(({ value }) => lengthOf(value))), frac(item.m, item.n));
}

/** Length of what is written in a measure. */
export function contentLength({ rests, meter, items }: Measure): Fraction {
  return rests !== undefined ? meterLength(meter) : sum(items.map(itemLength));
}

const PLACED = new WeakMap<Pattern, readonly PlacedMeasure[]>();

/**
 * Every written measure with its number and its events at their places; `(M7)` becomes seven measures. Patterns never
 * change, and the same one is counted in one school after the other: what was placed is kept with it.
 */
export function placePattern(pattern: Pattern): readonly PlacedMeasure[] {
  const known = PLACED.get(pattern);
  if (known) return known;
  const placed = placeOnce(pattern);
  PLACED.set(pattern, placed);
  return placed;
}

/** As `placePattern`, for a pattern that is looked at only once: nothing is kept. */
export function placeOnce(pattern: Pattern): PlacedMeasure[] {
  const placed: PlacedMeasure[] = [];
  let number = pattern.pickup ? 0 : 1;
  let tied = false;
  let run = 0;
  pattern.measures.forEach((measure, written) => {
    const full = meterLength(measure.meter);
    if (measure.number !== undefined) {
      number = measure.number;
      run = 0;
    }
    const lettered = measure.letter === undefined ? {} : { letter: measure.letter };
    if (measure.letter !== undefined) run = 0;
    if (measure.restsBefore !== undefined) run = measure.restsBefore;
    if (measure.rests !== undefined) {
      for (let i = 0; i < measure.rests; i++) {
        run += 1;
        const rest: PlacedEvent = {
          kind: 'rest',
          onset: ZERO,
          length: full,
          value: WHOLE,
          tiedToNext: false,
          label: undefined,
          tuplet: undefined,
          wholeMeasure: true,
        };
        placed.push({
          number: number++,
          written,
          meter: measure.meter,
          onset: ZERO,
          length: full,
          events: [rest],
          restNumber: run,
          ...(i === 0 ? lettered : {}),
        });
      }
      tied = false;
      return;
    }
    run = 0;
    let onset = ZERO;
    if (written === 0 && pattern.pickup) {
      const short = sub(full, contentLength(measure));
      onset = compare(short, ZERO) > 0 ? short : ZERO;
    }
    const { events, end, tiedOut } = placeItems(measure, onset, tied);
    tied = tiedOut;
    const length = sub(end, onset);
    placed.push({ number: number++, written, meter: measure.meter, onset, length, events, ...lettered });
  });
  return placed;
}

/**
 * Indices of `pattern.measures` in playing order, repeats obeyed. A `:|` without `|:` goes back to the last `:|` or the
 * start.
 */
export function playingOrder(pattern: Pattern): number[] {
  const order: number[] = [];
  let from = 0;
  pattern.measures.forEach((measure, i) => {
    if (measure.repeatStart) from = i;
    order.push(i);
    if (measure.repeatEnd) {
      for (let again = from; again <= i; again++) order.push(again);
      from = i + 1;
    }
  });
  return order;
}

/** How many notes and rests are played, each as often as its measure is; counted without placing them. */
export function eventsPlayed(pattern: Pattern): number {
  const inMeasure = pattern.measures.map(({ items }) =>
    items.reduce((events, item) => events + (item.kind === 'tuplet' ? item.events.length : 1), 0),
  );
  return playingOrder(pattern).reduce((events, i) => events + inMeasure[i]!, 0);
}

const PLAYED = new WeakMap<Pattern, readonly PlayedMeasure[]>();

/**
 * The measures as they sound, one after the other, each at its time. A tie over a repeat sign holds in every pass it
 * stands in. Patterns never change, and a class is heard on the same one again and again: what was placed once is kept
 * with it.
 */
export function playPattern(pattern: Pattern): readonly PlayedMeasure[] {
  const known = PLAYED.get(pattern);
  if (known) return known;
  const played = play(pattern);
  PLAYED.set(pattern, played);
  return played;
}

function play(pattern: Pattern): PlayedMeasure[] {
  const placed = placePattern(pattern);
  const byWritten = new Map<number, PlacedMeasure[]>();
  for (const measure of placed) byWritten.set(measure.written, [...(byWritten.get(measure.written) ?? []), measure]);
  const order = playingOrder(pattern);
  // By number, not by what is written: endings that are written out number their measures again.
  const numbers = order.flatMap((written) => (byWritten.get(written) ?? []).map(({ number }) => number));
  const often = new Map<number, number>();
  for (const number of numbers) often.set(number, (often.get(number) ?? 0) + 1);
  const times = new Map<number, number>();
  const played: PlayedMeasure[] = [];
  const first = placed[0];
  let at = pattern.pickup && first ? sub(ZERO, first.length) : ZERO;
  for (const written of order) {
    for (const measure of byWritten.get(written) ?? []) {
      const time = (times.get(measure.number) ?? 0) + 1;
      times.set(measure.number, time);
      const timeThrough = often.get(measure.number)! > 1 ? time : undefined;
      played.push({ at, measure: tiedAsPlayed(measure, played.at(-1)?.measure), timeThrough });
      at = add(at, measure.length);
    }
  }
  return played;
}

/**
 * After a jump back the first note may follow another note than it does on paper: it is tied-on only if that one ties
 * to it.
 */
function tiedAsPlayed(measure: PlacedMeasure, before: PlacedMeasure | undefined): PlacedMeasure {
  const [first, ...others] = measure.events;
  if (!first || first.kind === 'rest') return measure;
  const kind = before?.events.at(-1)?.tiedToNext ? 'tied' : 'note';
  return kind === first.kind ? measure : { ...measure, events: [{ ...first, kind }, ...others] };
}

/** The pattern as it sounds, written out without repeat signs; `(M3)` becomes three measures. */
export function unfold(pattern: Pattern): Pattern {
  const measures = playingOrder(pattern).flatMap((i): Measure[] => {
    const { repeatStart: _start, repeatEnd: _end, ...measure } = pattern.measures[i]!;
    if (measure.rests === undefined) return [measure];
    const { number: _number, letter: _letter, ...unmarked } = measure;
    return Array.from({ length: measure.rests }, (_, k) => ({ ...(k === 0 ? measure : unmarked), rests: 1 }));
  });
  return { pickup: pattern.pickup, measures };
}
