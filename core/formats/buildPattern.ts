import { t } from '../words/say.ts';
import { type Fraction, ZERO, compare, equal, sub } from '../rhythm/fraction.ts';
import { meterLength } from '../rhythm/meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from '../rhythm/pattern.ts';
import { LARGEST_NUMBER, LONGEST_LABEL, MOST_MEASURES } from '../rhythm/text.ts';
import { measureItems } from './measureItems.ts';
import { type LeftOut, Leavings, type RawEvent, type RawMeasure, type RawVoice } from './piece.ts';
import { isHalf, rawLength, writtenOut } from './writtenOut.ts';

/** What stands on the notes: what the file says is a label; letter names of the pitches; words that are sung. */
export type Labels = 'own' | 'letters';

export interface PatternChoice {
  readonly labels?: Labels;
  /** Numbers on paper of the first and the last measure that are taken. */
  readonly from?: number;
  readonly to?: number;
}

export interface MeasureTrouble {
  /** On paper. */
  readonly number: number;
  readonly trouble: string;
}

export type BuiltPattern =
  | {
      readonly ok: true;
      readonly pattern: Pattern;
      readonly leftOut: LeftOut;
      readonly troubles: readonly MeasureTrouble[];
    }
  | { readonly ok: false; readonly trouble: string };

/** A measure with the number it has on paper. */
interface Numbered {
  readonly raw: RawMeasure;
  readonly number: number;
}

function isPickup({ pickup, uncounted, number, meter }: RawMeasure, length: Fraction, others: number): boolean {
  if (pickup !== undefined) return pickup;
  const short = compare(length, meterLength(meter)) < 0;
  return short && compare(length, ZERO) > 0 && (uncounted === true || number === 0 || others > 0);
}

function beginsWithPickup({ measures }: RawVoice): boolean {
  const [first, second] = measures;
  if (!first) return false;
  const half = !first.uncounted && first.number !== 0 && isHalf(first, second);
  return !half && isPickup(first, rawLength(first), measures.length - 1);
}

/** The number on paper of every measure of a voice; a pickup is 0. */
export function numbersOf(voice: RawVoice): number[] {
  return numbered(voice.measures, voice.literal === true, beginsWithPickup(voice)).map(({ number }) => number);
}

/** The numbers on paper; a pickup is 0 and what the file calls 2 after it is 1. */
function numbered(measures: readonly RawMeasure[], literal: boolean, pickup: boolean): Numbered[] {
  const [first, second] = measures;
  const shift = !literal && pickup && first?.number === 1 && second?.number !== 1 ? 1 : 0;
  let next = pickup ? 0 : 1;
  return measures.map((raw, i) => {
    // The second half of a measure counts with the first.
    const half = raw.uncounted === true && i > 0 && compare(rawLength(raw), meterLength(raw.meter)) < 0;
    const given = half ? Math.max(1, next - 1) : raw.number === undefined ? next : raw.number - shift;
    const number = i === 0 && pickup && !literal ? 0 : given;
    next = number + 1;
    return { raw, number };
  });
}

/** The measures from one number to another, repeat signs and endings that are cut in two left out. */
function cut(all: readonly Numbered[], { from, to }: PatternChoice): Numbered[] | undefined {
  if (from === undefined && to === undefined) return [...all];
  const first = all.findIndex(({ number }) => number === from);
  const last = all.findLastIndex(({ number }) => number === to);
  if (first < 0 || last < first) return undefined;
  const kept = all.slice(first, last + 1);
  const opens = kept.some(({ raw }) => raw.repeatStart) || first === 0;
  const closes = kept.some(({ raw }) => raw.repeatEnd !== undefined);
  const whole = kept.length === all.length || (opens && closes && !kept.some(({ raw }) => raw.ending));
  if (whole) return kept;
  return kept.map(({ raw, number }) => {
    const { repeatStart: _start, repeatEnd: _end, ending: _ending, endingStops: _stops, ...plain } = raw;
    return { raw: plain, number };
  });
}

/**
 * One voice of a file as a pattern: endings written out, measures numbered as on paper.
 * @returns ok false where some measure cannot be written as rhythm text, or a number does not exist
 */
export function buildPattern(voice: RawVoice, choice: PatternChoice = {}): BuiltPattern {
  const literal = voice.literal === true;
  if (voice.measures.length === 0) return { ok: false, trouble: t`there are no measures in it` };
  const begins = beginsWithPickup(voice);
  const all = numbered(voice.measures, literal, begins);
  const kept = cut(all, choice);
  if (!kept) {
    const numbers = t`${all[0]!.number} to ${all.at(-1)!.number}`;
    return {
      ok: false,
      trouble: t`there are no measures ${choice.from} to ${choice.to}; they are numbered ${numbers}`,
    };
  }
  const pickup = begins && kept[0] === all[0];
  const laid = writtenOut(
    kept.map(({ raw, number }) => ({ ...raw, number })),
    literal,
  );
  if (laid.length > MOST_MEASURES)
    return {
      ok: false,
      trouble: t`it has ${laid.length} measures; a pattern has at most ${MOST_MEASURES}: choose some of them`,
    };
  return assembled(laid, pickup, choice.labels ?? 'own', voice.leftOut);
}

function assembled(laid: readonly RawMeasure[], pickup: boolean, labels: Labels, leftOut: LeftOut): BuiltPattern {
  const leavings = new Leavings();
  for (const [kind, count] of Object.entries(leftOut) as [keyof LeftOut, number][])
    // Letters of the pitches that stand on the notes are not left out.
    if (kind !== 'pitches' || labels !== 'letters') leavings.add(kind, count);
  const troubles: MeasureTrouble[] = [];
  const measures: Measure[] = [];
  /** Measures into which nothing is tied, whatever stands before them. */
  const fresh = new Set<number>();
  let next = pickup ? 0 : 1;
  for (let i = 0; i < laid.length; i++) {
    const raw = laid[i]!;
    const number = raw.number!;
    const length = rawLength(raw);
    const short = sub(meterLength(raw.meter), length);
    const onset = i === 0 && pickup && compare(short, ZERO) > 0 ? short : ZERO;
    if (raw.trouble !== undefined) troubles.push({ number, trouble: raw.trouble });
    if (raw.moved && raw.events[0]?.tiedIn === false) fresh.add(measures.length);
    const marks = marksOf(raw, number === next ? undefined : number);
    const run = isWholeRest(raw) ? runFrom(laid, i) : 0;
    if (run > 0) {
      const ends = laid[i + run - 1]!.repeatEnd !== undefined;
      measures.push({
        meter: raw.meter,
        items: [],
        rests: run,
        ...marks,
        ...(ends ? { repeatEnd: true as const } : {}),
      });
      i += run - 1;
      next = number + run;
      continue;
    }
    const made = measureItems(labelled(raw.events, labels), raw.meter, onset);
    if (!made.ok) return { ok: false, trouble: t`measure ${number} cannot be written: ${made.trouble}` };
    if (made.items.length === 0) return { ok: false, trouble: t`measure ${number} is empty` };
    measures.push({
      meter: raw.meter,
      items: made.items,
      ...marks,
      ...(raw.repeatEnd === undefined ? {} : { repeatEnd: true as const }),
    });
    next = number + 1;
  }
  return {
    ok: true,
    pattern: { pickup, measures: closeTies(measures, fresh, leavings) },
    leftOut: leavings.counts,
    troubles,
  };
}

function marksOf(raw: RawMeasure, number: number | undefined): Pick<Measure, 'number' | 'letter' | 'repeatStart'> {
  const letter = raw.letter
    ?.replace(/["\p{Cc}\p{Cs}]/gu, '')
    .trim()
    .slice(0, LONGEST_LABEL)
    .trim();
  return {
    ...(raw.repeatStart ? { repeatStart: true as const } : {}),
    ...(number === undefined || number < 1 || number > LARGEST_NUMBER ? {} : { number }),
    ...(letter ? { letter } : {}),
  };
}

function isWholeRest(raw: RawMeasure): boolean {
  const [only] = raw.events;
  return raw.events.length === 1 && only!.wholeMeasure === true && equal(only!.length, meterLength(raw.meter));
}

/** Of how many measures the sign of rest that begins here is: as many as it says, as far as nothing else is marked. */
function runFrom(laid: readonly RawMeasure[], from: number): number {
  const said = laid[from]!.restRun ?? 1;
  let run = 1;
  for (; run < said; run++) {
    const before = laid[from + run - 1]!;
    const next = laid[from + run];
    const goesOn =
      next !== undefined &&
      isWholeRest(next) &&
      next.letter === undefined &&
      next.number === before.number! + 1 &&
      !next.repeatStart &&
      before.repeatEnd === undefined &&
      equal(meterLength(next.meter), meterLength(before.meter));
    if (!goesOn) break;
  }
  return run;
}

function labelled(events: readonly RawEvent[], labels: Labels): RawEvent[] {
  return events.map(({ label: own, ...event }) => {
    const chosen = labels === 'letters' ? event.letter : own;
    const label = chosen
      ?.replace(/['\p{Cc}\p{Cs}]/gu, '')
      .trim()
      .slice(0, LONGEST_LABEL)
      .trim();
    return label ? { ...event, label } : event;
  });
}

/** A tie leads to a note: what else has one loses it. */
function closeTies(measures: readonly Measure[], fresh: ReadonlySet<number>, leavings: Leavings): Measure[] {
  let next: Note | Rest | 'none' = 'none';
  const closed = (event: Note | Rest): Note | Rest => {
    const leads = next !== 'none' && next.kind === 'note';
    let kept: Note | Rest = event;
    if (event.kind === 'note' && event.tied && !leads) {
      const { tied: _tied, ...free } = event;
      kept = free;
      leavings.add('open-ties');
    }
    next = kept;
    return kept;
  };
  return measures
    .map((measure, i) => ({ measure, i }))
    .reverse()
    .map(({ measure, i }) => {
      if (measure.rests !== undefined) {
        next = 'none';
        return measure;
      }
      const items = [...measure.items].reverse().map((item): Item => {
        if (item.kind !== 'tuplet') return closed(item);
        return { ...item, events: [...item.events].reverse().map(closed).reverse() };
      });
      if (fresh.has(i)) next = 'none';
      return { ...measure, items: items.reverse() };
    })
    .reverse();
}
