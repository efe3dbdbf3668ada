import { sub } from '../../rhythm/fraction.ts';
import { COMMON_TIME, type Meter, beatOf } from '../../rhythm/meter.ts';
import type { Item, Measure, Note, Pattern, Rest } from '../../rhythm/pattern.ts';
import { spell } from '../../rhythm/spell.ts';
import { printRhythm } from '../../rhythm/text.ts';
import { type ValueLetter, lengthOf } from '../../rhythm/value.ts';
import { countPattern } from '../count.ts';
import type { SchoolId, Words } from '../school.ts';
import { SCHOOLS } from '../schools.ts';
import { HARBOUR_ANIMALS, type WordSet } from '../wordSet.ts';
import { Speaker, type SpokenEvent } from './edges.ts';
import { fromTicks, measureTicks, ticks } from './grid.ts';
import { BAR, type Reading, readTokens } from './search.ts';
import { Cutter, type Typed, typedTokens } from './tokens.ts';

/** The schools that lead back from speech to writing, in the order in which they are tried. */
export const SPOKEN_SCHOOLS: readonly SchoolId[] = ['numbers', 'numbers-te', 'ta', 'takadimi', 'pulses', 'words'];

export interface SayOptions {
  readonly meter?: Meter | undefined;
  readonly beat?: ValueLetter | undefined;
  readonly houseWords?: Words | undefined;
  readonly wordSet?: WordSet | undefined;
  /** At most so many readings; default 40. */
  readonly most?: number | undefined;
}

/** Readings, the most likely first, without repeats; `exact` when every word was typed just as the school prints it, and says something usual. */
export type Said =
  | { readonly ok: true; readonly school: SchoolId; readonly exact: boolean; readonly patterns: readonly Pattern[] }
  | { readonly ok: false; readonly word: string; readonly at: number; readonly expected: string };

/** A reading that costs more than this for each word is not what the school usually says. */
const FARFETCHED = 0.5;
const MOST = 40;
/** Readings looked at for each one kept: those that would be spoken otherwise, or are there already, are thrown away. */
const LOOKED_AT = 3;

interface Listener {
  readonly speaker: Speaker;
  readonly cutter: Cutter;
}

const listeners = new Map<string, Listener>();
const MOST_LISTENERS = 60;

/** What is worked out for a school in a meter serves every text: it is kept. */
function listenerFor(school: SchoolId, meter: Meter, { beat, houseWords, wordSet = HARBOUR_ANIMALS }: SayOptions): Listener {
  const key = JSON.stringify([school, meter, beat, houseWords, wordSet === HARBOUR_ANIMALS ? '' : wordSet]);
  const known = listeners.get(key);
  if (known) return known;
  if (listeners.size >= MOST_LISTENERS) listeners.clear();
  const words = lowered({ ...SCHOOLS[school].words, ...houseWords });
  const set = loweredSet(wordSet);
  const listener = { speaker: new Speaker(SCHOOLS[school], words, meter, beat, set), cutter: new Cutter(SCHOOLS[school], words, set) };
  listeners.set(key, listener);
  return listener;
}

const lowered = (words: Words): Words => Object.fromEntries(Object.entries(words).map(([key, word]) => [key, word.toLowerCase()]));
const loweredSet = (set: WordSet): WordSet => ({ ...set, cells: lowered(set.cells) });

/**
 * The written pattern of what is typed as it is spoken. Where speech leaves a choice the longest note that fits comes
 * first and the other readings follow.
 * @example say("ta ti-ti ta-a", 'ta')   // 4/4 q e e h
 * @example say("1 3", 'numbers')        // 4/4 h h, then 4/4 q (q) q (q)
 */
export function say(text: string, school: SchoolId, options: SayOptions = {}): Said {
  if (!SPOKEN_SCHOOLS.includes(school)) return { ok: false, word: '', at: 0, expected: `one of the schools that lead back to writing: ${SPOKEN_SCHOOLS.join(', ')}` };
  const meter = options.meter ?? COMMON_TIME;
  const most = options.most ?? MOST;
  const { speaker, cutter } = listenerFor(school, meter, options);
  const typed = typedTokens(text, cutter);
  if (typed.length === 0) return { ok: false, word: '', at: 0, expected: 'something to read, such as “ta ti-ti ta-a” or “1 & 2 3”' };
  const full = measureTicks(meter);
  const tokens = typed.map(({ token }) => token);
  const exact = readTokens(speaker, tokens, full, false);
  if (exact.ok) {
    const words = tokens.filter((token) => token !== BAR);
    let cost = Infinity;
    const patterns = collect(exact.readings, most, (reading) => {
      const pattern = patternOf(reading, meter);
      if (!isSpokenSo(pattern, reading, words, school, options)) return [];
      cost = Math.min(cost, reading.cost);
      return [pattern];
    });
    const asPrinted = cost < FARFETCHED * words.length && typed.every(({ token, typed: word }) => token === word);
    if (patterns.length > 0) return { ok: true, school, exact: asPrinted, patterns };
  }
  return sayLoosely(speaker, typed, school, meter, most);
}

/** People leave holds out, and write small figures plain. */
function sayLoosely(speaker: Speaker, typed: readonly Typed[], school: SchoolId, meter: Meter, most: number): Said {
  const found = readTokens(speaker, typed.map(({ token }) => token), measureTicks(meter), true);
  if (!found.ok) {
    const stuck = typed[found.token]!;
    return { ok: false, word: stuck.typed, at: stuck.at, expected: `what can follow here in ${speaker.school.title}` };
  }
  let first = true;
  const patterns = collect(found.readings, most, (reading) => {
    const both = first && reading.said.length > 0;
    first = false;
    return [patternOf(reading, meter), ...(both ? [withRests(reading, meter)] : [])];
  });
  return { ok: true, school, exact: false, patterns };
}

/** Different patterns from readings, in order: at most so many, and not looking for them for ever. */
function collect(readings: Iterable<Reading>, most: number, patternsOf: (reading: Reading) => readonly Pattern[]): Pattern[] {
  const found = new Map<string, Pattern>();
  let looked = 0;
  for (const reading of readings) {
    for (const pattern of patternsOf(reading)) {
      const text = most === 1 ? '' : printRhythm(pattern);
      if (!found.has(text)) found.set(text, pattern);
    }
    if (found.size >= most || ++looked >= most * LOOKED_AT + 20) break;
  }
  return [...found.values()].slice(0, most);
}

/** Ties and cells are checked by speaking the reading again: only then is the vowel known that a tie goes on with. */
function isSpokenSo(pattern: Pattern, reading: Reading, tokens: readonly string[], school: SchoolId, options: SayOptions): boolean {
  const certain = SCHOOLS[school].cells === undefined && !reading.measures.some((events) => events.some(({ kind }) => kind === 'tied' || kind === 'measure-rest'));
  if (certain) return true;
  const counted = countPattern(pattern, { school, beat: options.beat, houseWords: options.houseWords, wordSet: options.wordSet });
  if (!counted.ok) return false;
  const said = counted.measures.flatMap((measure) => measure.tokens);
  return said.length === tokens.length && said.every(({ kind, text }, i) => text.toLowerCase() === tokens[i] || (kind === 'rest' && !/\d/.test(text)));
}

function patternOf({ measures, pickup }: Reading, meter: Meter): Pattern {
  const written: Measure[] = [];
  measures.forEach((events, i) => {
    const next = measures[i + 1]?.[0];
    const before = written.at(-1);
    if (events[0]?.kind === 'measure-rest') {
      if (before?.rests !== undefined) written[written.length - 1] = { ...before, rests: before.rests + 1 };
      else written.push({ meter, items: [], rests: 1 });
    } else written.push({ meter, items: itemsOf(events, next) });
  });
  return { pickup, measures: written };
}

function itemsOf(events: readonly SpokenEvent[], next: SpokenEvent | undefined): Item[] {
  const items: Item[] = [];
  let open: { at: number | undefined; kind: SpokenEvent['tuplet']; events: (Note | Rest)[] } | undefined;
  events.forEach((event, i) => {
    const following = events[i + 1] ?? next;
    const written: Note | Rest =
      event.kind === 'rest' ? { kind: 'rest', value: event.value } : { kind: 'note', value: event.value, ...(following?.kind === 'tied' ? { tied: true as const } : {}) };
    if (!event.tuplet) {
      items.push(written);
      open = undefined;
      return;
    }
    if (!open || open.at !== event.tupletAt || open.kind !== event.tuplet) {
      open = { at: event.tupletAt, kind: event.tuplet, events: [] };
      items.push({ kind: 'tuplet', n: event.tuplet.n, m: event.tuplet.m, events: open.events });
    }
    open.events.push(written);
  });
  return items;
}

/** The other reading of speech without holds: each note as long as was said, then a rest. */
function withRests(reading: Reading, meter: Meter): Pattern {
  const beat = beatOf(meter);
  const full = measureTicks(meter);
  const measures = reading.measures.map((events, m): SpokenEvent[] => {
    let at = reading.pickup && m === 0 ? full - events.reduce((sum, event) => sum + soundingTicks(event), 0) : 0;
    return events.flatMap((event, i): SpokenEvent[] => {
      const from = at;
      const length = soundingTicks(event);
      at += length;
      const said = reading.said.find((s) => s.measure === m && s.event === i)?.ticks;
      if (said === undefined || said >= length) return [event];
      const note = spell(fromTicks(from), fromTicks(said), beat, 'note').slice(0, 1);
      const rests = spell(fromTicks(from + said), sub(fromTicks(length), fromTicks(said)), beat, 'rest');
      return [...note.map((value): SpokenEvent => ({ kind: event.kind, value })), ...rests.map((value): SpokenEvent => ({ kind: 'rest', value }))];
    });
  });
  return patternOf({ ...reading, measures }, meter);
}

function soundingTicks({ value, tuplet }: SpokenEvent): number {
  const length = ticks(lengthOf(value));
  return tuplet ? (length * tuplet.m) / tuplet.n : length;
}

export interface Recognised {
  readonly school: SchoolId;
  readonly patterns: readonly Pattern[];
}

/**
 * Finds the school by itself: one whose words these are just as typed goes before one that can be made of them,
 * then the preferred one before the others. Undefined when none can read all of it.
 */
export function recognise(text: string, preferred: SchoolId | undefined, options: SayOptions = {}): Recognised | undefined {
  const order = [...new Set([...(preferred && SPOKEN_SCHOOLS.includes(preferred) ? [preferred] : []), ...SPOKEN_SCHOOLS])];
  let tolerant: Recognised | undefined;
  for (const school of order) {
    const said = say(text, school, { ...options, houseWords: school === preferred ? options.houseWords : undefined });
    if (!said.ok) continue;
    if (said.exact) return { school, patterns: said.patterns };
    tolerant ??= { school, patterns: said.patterns };
  }
  return tolerant;
}
