import { beatLine } from '../rhythm/beatLine.ts';
import { type Fraction, ZERO, add, compare, div, equal, floor, frac, isWhole, mul, sub } from '../rhythm/fraction.ts';
import { beatOf, meterLength, sameMeter } from '../rhythm/meter.ts';
import type { Item, Measure, Pattern } from '../rhythm/pattern.ts';
import { type TupletPlace, placePattern, tupletsOf, unfold } from '../rhythm/place.ts';
import { MOST_PARTS, type Part, type Score, leadingPart } from '../rhythm/score.ts';
import { type Filling, fillingsOf, frameDifference, framesOf, inFrame } from '../rhythm/scoreParts.ts';
import { type SoundSpan, writeMeasure } from '../rhythm/spell.ts';
import { measureText } from '../rhythm/text.ts';

/** What a rhythm becomes in parts, and what parts become of each other. */

/** Where a note begins, for those who share a rhythm out. */
export interface SharedNote {
  /** Place of its measure among all; a pickup belongs to the one after it. */
  readonly measure: number;
  /** From the bar line, in beats. */
  readonly beat: Fraction;
  /** Which of all notes. */
  readonly note: number;
}

/** Ways to share a rhythm out between two. */
export const SPLITS = ['measures', 'phrases', 'beat-and-off', 'in-turn'] as const;
export type Split = (typeof SPLITS)[number];

/** Question and answer take so many measures each; of a short rhythm half. */
const PHRASE = 2;

function whose(split: Split, measures: number): (note: SharedNote) => 0 | 1 {
  const phrase = measures <= 2 * PHRASE ? Math.max(1, Math.ceil(measures / 2)) : PHRASE;
  switch (split) {
    case 'measures':
      return ({ measure }) => (measure % 2 === 0 ? 0 : 1);
    case 'phrases':
      return ({ measure }) => (Math.floor(measure / phrase) % 2 === 0 ? 0 : 1);
    case 'beat-and-off':
      return ({ beat }) => (isWhole(beat) ? 0 : 1);
    case 'in-turn':
      return ({ note }) => (note % 2 === 0 ? 0 : 1);
  }
}

/** Puts the words back on the notes that have them, by where these begin. */
function labelled(
  items: readonly Item[],
  words: ReadonlyMap<string, string>,
  start: Fraction,
  meter: Measure['meter'],
) {
  if (words.size === 0) return items;
  const measure: Measure = { meter, items };
  const [placed] = placePattern({ pickup: false, measures: [measure] });
  let k = 0;
  const word = <E extends { readonly kind: string }>(event: E): E => {
    const { onset, kind } = placed!.events[k++]!;
    const at = add(onset, start);
    const label = kind === 'note' ? words.get(`${at.n}/${at.d}`) : undefined;
    return label === undefined ? event : { ...event, label };
  };
  return items.map((item): Item => (item.kind === 'tuplet' ? { ...item, events: item.events.map(word) } : word(item)));
}

/**
 * A rest is cut where a beat begins, so that the beats stay visible: at each beat of three parts, else at the last one
 * that it holds; and in the middle of four beats, where no sign but that of the whole measure stands across.
 */
function beatsKept(meter: Measure['meter'], tuplets: readonly TupletPlace[]): (span: SoundSpan) => SoundSpan[] {
  const { length, division } = beatOf(meter);
  const full = meterLength(meter);
  return (span) => {
    const { kind, from, to } = span;
    // A measure of rest is one sign.
    if (kind !== 'rest' || equal(sub(to, from), full)) return [span];
    const cuts: Fraction[] = [];
    const first = mul(length, frac(floor(div(from, length)) + 1));
    for (let at = first; compare(at, to) < 0; at = add(at, length)) cuts.push(at);
    // In a group in other time no beat has a value to be written with.
    const outside = cuts.filter(
      (at) => !tuplets.some(({ onset, length: wide }) => compare(at, onset) > 0 && compare(at, add(onset, wide)) < 0),
    );
    const last = isWhole(div(to, length)) ? [] : outside.slice(-1);
    const middle = equal(full, mul(length, frac(4))) ? mul(length, frac(2)) : undefined;
    const inTwo = outside.filter((at) => last.includes(at) || (middle && equal(at, middle)));
    const kept = division === 3 ? outside : inTwo;
    return [...kept, to].map((end, i) => ({ kind, from: i === 0 ? from : kept[i - 1]!, to: end }));
  };
}

/**
 * A rhythm shared out: each note, with all that is tied to it, goes to one of two parts, and the other has rests there.
 * @returns both in the measures of the rhythm; together they sound as it did
 */
export function shareOut(pattern: Pattern, owner: (note: SharedNote) => 0 | 1): readonly [Pattern, Pattern] {
  const placed = placePattern(pattern);
  let [note, sounding]: [number, 0 | 1] = [-1, 0];
  const owned = placed.map(({ events, meter }, i) => {
    const beat = beatOf(meter).length;
    const measure = Math.max(0, i - (pattern.pickup ? 1 : 0));
    return events.map(({ kind, onset }) => {
      if (kind === 'rest') return undefined;
      if (kind === 'note') sounding = owner({ measure, beat: div(onset, beat), note: ++note });
      return sounding;
    });
  });
  const one = (part: 0 | 1): Pattern => {
    const fillings = placed.map((measure, i): Filling => {
      const tuplets = tupletsOf(measure.events);
      const spans: { -readonly [K in keyof SoundSpan]: SoundSpan[K] }[] = [];
      const words = new Map<string, string>();
      measure.events.forEach(({ kind, onset, length, tiedToNext, label }, k) => {
        const to = add(onset, length);
        const own = owned[i]![k] === part;
        const [last, sort] = [spans.at(-1), own ? 'note' : 'rest'] as const;
        if (own && label !== undefined && kind === 'note') words.set(`${onset.n}/${onset.d}`, label);
        if (last && last.kind === sort && (sort === 'rest' || kind === 'tied')) last.to = to;
        else spans.push({ kind: sort, from: onset, to });
        spans.at(-1)!.tiedOut = own && tiedToNext && k === measure.events.length - 1;
      });
      const written = writeMeasure(measure.meter, spans.flatMap(beatsKept(measure.meter, tuplets)), tuplets);
      if (written.rests !== undefined) return { items: undefined, run: -1 };
      return { items: labelled(written.items, words, measure.onset, measure.meter), run: -1 };
    });
    return inFrame(pattern.pickup, framesOf(pattern), fillings);
  };
  return [one(0), one(1)];
}

/** A rhythm as two parts, for two groups or two hands. */
export function splitPattern(pattern: Pattern, split: Split, names: readonly [string, string]): Score {
  const { length } = placePattern(pattern);
  const parts = shareOut(pattern, whose(split, length - (pattern.pickup ? 1 : 0)));
  return { parts: parts.map((part, i) => ({ name: names[i]!, pattern: part })) };
}

/** Why something cannot be a part of a score. */
export type PartTrouble =
  | { readonly code: 'too-many' }
  | { readonly code: 'name'; readonly name: string }
  | { readonly code: 'measures'; readonly of: readonly [number, number] }
  | { readonly code: 'pickup' }
  | { readonly code: 'frame'; readonly measure: number }
  | { readonly code: 'meters' }
  | { readonly code: 'not-made' };

export type Joined =
  | { readonly ok: true; readonly score: Score }
  | { readonly ok: false; readonly trouble: PartTrouble };

const refused = (trouble: PartTrouble): Joined => ({ ok: false, trouble });

/** One part more: a pattern with the same measures, pickup and repeats. */
export function withPart(score: Score, name: string, pattern: Pattern): Joined {
  if (score.parts.length >= MOST_PARTS) return refused({ code: 'too-many' });
  const taken = score.parts.some((part) => part.name.toLowerCase() === name.toLowerCase());
  if (taken || name.trim() === '') return refused({ code: 'name', name });
  const lead = leadingPart(score).pattern;
  const difference = frameDifference(lead, pattern);
  if (difference) return refused(difference);
  const framed = inFrame(lead.pickup, framesOf(lead), fillingsOf(pattern));
  return { ok: true, score: { parts: [...score.parts, { name, pattern: framed }] } };
}

/** The beat under a score, as a part of its own; said once where it is the same in each measure. */
export function withBeat(score: Score, name: string): Joined {
  const { pattern } = leadingPart(score);
  const joined = withPart(score, name, beatLine(pattern));
  if (!joined.ok || pattern.pickup) return joined;
  const parts = [...joined.score.parts];
  const beat = parts.at(-1)!;
  const texts = new Set(beat.pattern.measures.map(measureText));
  if (texts.size === 1 && beat.pattern.measures.length > 1) parts[parts.length - 1] = { ...beat, ostinato: 1 };
  return { ok: true, score: { parts } };
}

/** A few measures that come again under a score, to its end; they have its meter and divide its measures. */
export function withOstinato(score: Score, name: string, few: Pattern): Joined {
  const lead = leadingPart(score).pattern;
  const frames = framesOf(lead);
  const [own, pickup] = [fillingsOf(few), lead.pickup ? 1 : 0];
  const wanted = frames.length - pickup;
  if (few.pickup || wanted % own.length !== 0) return refused({ code: 'measures', of: [own.length, wanted] });
  const meters = framesOf(few);
  const at = frames.slice(pickup).findIndex(({ meter }, i) => !sameMeter(meter, meters[i % own.length]!.meter));
  if (at >= 0) return refused({ code: 'frame', measure: at + 1 });
  const again = Array.from({ length: wanted / own.length }, () => own).flat();
  const rests = pickup === 0 ? [] : [fillingsOf(shareOut(lead, () => 0)[1])[0]!];
  const fillings = [...rests, ...again.map(({ items }): Filling => ({ items, run: -1 }))];
  const joined = withPart(score, name, inFrame(lead.pickup, frames, fillings));
  if (!joined.ok) return joined;
  const parts = joined.score.parts.map((part, i) =>
    i === score.parts.length ? { ...part, ostinato: own.length } : part,
  );
  return { ok: true, score: { parts } };
}

/** What each has goes to the next, and of the last to the first: the names stay where they are. */
export function passOn({ parts }: Score): Score {
  return {
    parts: parts.map(({ name }, i): Part => {
      const { pattern, ostinato } = parts[(i + parts.length - 1) % parts.length]!;
      return { name, pattern, ...(ostinato === undefined ? {} : { ostinato }) };
    }),
  };
}

/** The part that is missing so that on every beat just one of the two claps: on the beats that a rhythm leaves free. */
export function missingPart(pattern: Pattern): Pattern {
  const taken = placePattern(pattern).map(
    ({ events }) => new Set(events.filter(({ kind }) => kind === 'note').map(({ onset }) => `${onset.n}/${onset.d}`)),
  );
  const line = beatLine(pattern);
  const beats = placePattern(line).flatMap(({ events }, measure) =>
    events.filter(({ kind }) => kind === 'note').map(({ onset }) => taken[measure]!.has(`${onset.n}/${onset.d}`)),
  );
  return shareOut(line, ({ note }) => (beats[note] ? 1 : 0))[0];
}

/** Sounds of a rhythm from its first measure on, in whole notes, and its groups in other time. */
interface Line {
  readonly sounds: { from: Fraction; to: Fraction; label?: string }[];
  readonly tuplets: { readonly from: Fraction; readonly place: TupletPlace }[];
}

function lineOf(pattern: Pattern): Line {
  const line: Line = { sounds: [], tuplets: [] };
  let at = ZERO;
  for (const measure of placePattern(pattern)) {
    const from = (onset: Fraction) => add(at, sub(onset, measure.onset));
    for (const { kind, onset, length, label } of measure.events) {
      if (kind === 'note')
        line.sounds.push({
          from: from(onset),
          to: add(from(onset), length),
          ...(label === undefined ? {} : { label }),
        });
      else if (kind === 'tied' && line.sounds.length > 0) line.sounds.at(-1)!.to = add(from(onset), length);
    }
    for (const place of tupletsOf(measure.events)) line.tuplets.push({ from: from(place.onset), place });
    at = add(at, measure.length);
  }
  return line;
}

/** A line that begins later, in measures of one meter; undefined where a group in other time would cross a bar line. */
function later(line: Line, delay: Fraction, meter: Measure['meter'], count: number): Pattern | undefined {
  const full = meterLength(meter);
  const sounds = line.sounds.map((sound) => ({ ...sound, from: add(sound.from, delay), to: add(sound.to, delay) }));
  const groups = line.tuplets.map(({ from, place }) => ({ from: add(from, delay), place }));
  const measures: Measure[] = [];
  for (let i = 0; i < count; i++) {
    const [begin, end] = [mul(full, frac(i)), mul(full, frac(i + 1))];
    const inside = groups.filter(({ from }) => compare(from, begin) >= 0 && compare(from, end) < 0);
    if (inside.some(({ from, place }) => compare(add(from, place.length), end) > 0)) return undefined;
    const spans: SoundSpan[] = [];
    const words = new Map<string, string>();
    let at = begin;
    const put = (kind: SoundSpan['kind'], to: Fraction, tiedOut = false) => {
      if (compare(at, to) >= 0) return;
      spans.push({ kind, from: sub(at, begin), to: sub(to, begin), tiedOut });
      at = to;
    };
    for (const { from, to, label } of sounds) {
      if (compare(to, begin) <= 0 || compare(from, end) >= 0) continue;
      put('rest', compare(from, begin) > 0 ? from : begin);
      const on = sub(at, begin);
      if (label !== undefined && equal(at, from)) words.set(`${on.n}/${on.d}`, label);
      put('note', compare(to, end) < 0 ? to : end, compare(to, end) > 0);
    }
    put('rest', end);
    const tuplets = inside.map(({ from, place }) => ({ ...place, onset: sub(from, begin) }));
    const written = writeMeasure(meter, spans.flatMap(beatsKept(meter, tuplets)), tuplets);
    measures.push({ ...written, items: labelled(written.items, words, ZERO, meter) });
  }
  return { pickup: false, measures };
}

/**
 * A rhythm against itself: two to four parts have the same line, each so many beats after the one before, and rest
 * before and after it. Repeats are written out.
 * @param beats  counted beats from one part to the next; whole measures are so many times their beats
 */
export function canonOf(pattern: Pattern, names: readonly string[], beats: number): Joined {
  if (names.length > MOST_PARTS) return refused({ code: 'too-many' });
  if (pattern.pickup) return refused({ code: 'pickup' });
  const flat = unfold(pattern);
  const { meter } = flat.measures[0]!;
  const full = meterLength(meter);
  if (!flat.measures.every((one) => sameMeter(one.meter, meter))) return refused({ code: 'meters' });
  const line = lineOf(flat);
  const step = mul(beatOf(meter).length, frac(beats));
  const last = add(mul(full, frac(flat.measures.length)), mul(step, frac(names.length - 1)));
  const { n, d } = div(last, full);
  const count = Math.ceil(n / d);
  const parts: Part[] = [];
  for (const [i, name] of names.entries()) {
    const moved = later(line, mul(step, frac(i)), meter, count);
    if (!moved) return refused({ code: 'meters' });
    parts.push({ name, pattern: moved });
  }
  return { ok: true, score: { parts } };
}
