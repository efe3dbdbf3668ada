import { barCheck } from '../../rhythm/barCheck.ts';
import { COMMON_TIME, type Meter, meterText } from '../../rhythm/meter.ts';
import type { Pattern } from '../../rhythm/pattern.ts';
import { printRhythm } from '../../rhythm/text.ts';
import type { ValueLetter } from '../../rhythm/value.ts';
import type { SchoolId, Words } from '../school.ts';
import { SCHOOLS } from '../schools.ts';
import { HARBOUR_ANIMALS, type WordSet } from '../wordSet.ts';
import { Listener } from './listener.ts';
import { Places } from './places.ts';
import type { Reading } from './search.ts';
import { type Typed, typedTokens } from './tokens.ts';
import { BAR } from './ways.ts';
import { type WrittenStretches, withRests, writeReading } from './write.ts';

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
/** Readings looked at for each one kept: those that would be spoken otherwise are thrown away. */
const LOOKED_AT = 3;

const listeners = new Map<string, Listener>();
const MOST_LISTENERS = 60;

/** What is worked out for a school in a meter serves every text: it is kept. */
function listenerFor(
  school: SchoolId,
  meter: Meter,
  { beat, houseWords, wordSet = HARBOUR_ANIMALS }: SayOptions,
): Listener {
  const own = houseWords === undefined && wordSet === HARBOUR_ANIMALS ? '' : JSON.stringify([houseWords, wordSet]);
  const key = `${school} ${meterText(meter)} ${beat ?? ''} ${own}`;
  const known = listeners.get(key);
  if (known) return known;
  if (listeners.size >= MOST_LISTENERS) listeners.clear();
  const words = lowered({ ...SCHOOLS[school].words, ...houseWords });
  const listener = new Listener({
    school: SCHOOLS[school],
    words,
    wordSet: loweredSet(wordSet),
    places: placesOf(meter, beat),
    beat,
  });
  listeners.set(key, listener);
  return listener;
}

/** The last one is kept: a text is tried in one school after the other. */
let lastPlaces: { readonly key: string; readonly places: Places } | undefined;

function placesOf(meter: Meter, beat: ValueLetter | undefined): Places {
  const key = `${meterText(meter)} ${beat ?? ''}`;
  if (lastPlaces?.key !== key) lastPlaces = { key, places: new Places(meter, beat) };
  return lastPlaces.places;
}

const lowered = (words: Words): Words =>
  Object.fromEntries(Object.entries(words).map(([key, word]) => [key, word.toLowerCase()]));
const loweredSet = (set: WordSet): WordSet => ({ ...set, cells: lowered(set.cells) });

/**
 * The written pattern of what is typed as it is spoken. Where speech leaves a choice the longest note that fits comes
 * first and the other readings follow.
 * @example say("ta ti-ti ta-a", 'ta')   // 4/4 q e e h
 * @example say("1 3", 'numbers')        // 4/4 h h, then 4/4 q (q) q (q)
 */
export function say(text: string, school: SchoolId, options: SayOptions = {}): Said {
  if (!SPOKEN_SCHOOLS.includes(school))
    return {
      ok: false,
      word: '',
      at: 0,
      expected: `one of the schools that lead back to writing: ${SPOKEN_SCHOOLS.join(', ')}`,
    };
  const meter = options.meter ?? COMMON_TIME;
  const most = options.most ?? MOST;
  const listener = listenerFor(school, meter, options);
  const typed = typedTokens(text, listener.cutter);
  if (typed.length === 0)
    return { ok: false, word: '', at: 0, expected: 'something to read, such as “ta ti-ti ta-a” or “1 & 2 3”' };
  const tokens = typed.map(({ token }) => token);
  const exact = listener.read(tokens, false);
  if (exact.ok) {
    let cost = Infinity;
    const written: WrittenStretches | undefined = most > 1 ? new Map() : undefined;
    const patterns = firstOf(exact.readings, most, (reading) => {
      if (!listener.saysAll(reading, tokens)) return [];
      cost = Math.min(cost, reading.cost);
      return [writeReading(reading.stretches, meter, written)];
    });
    const asPrinted = cost < FARFETCHED * wordsIn(tokens) && isAsPrinted(typed);
    if (patterns.length > 0) return { ok: true, school, exact: asPrinted, patterns };
  }
  return sayLoosely(listener, typed, school, meter, most);
}

function wordsIn(tokens: readonly string[]): number {
  let words = 0;
  for (const token of tokens) if (token !== BAR) words++;
  return words;
}

function isAsPrinted(all: readonly Typed[]): boolean {
  for (const { token, typed } of all) if (token !== typed) return false;
  return true;
}

/** People leave holds out, and write small figures plain. */
function sayLoosely(listener: Listener, typed: readonly Typed[], school: SchoolId, meter: Meter, most: number): Said {
  const found = listener.read(
    typed.map(({ token }) => token),
    true,
  );
  if (!found.ok) {
    const stuck = typed[found.token]!;
    return { ok: false, word: stuck.typed, at: stuck.at, expected: `what can follow here in ${SCHOOLS[school].title}` };
  }
  let short: string | undefined;
  const patterns = firstOf(found.readings, most, ({ stretches }) => {
    const pattern = writeReading(stretches, meter);
    if (short !== undefined) return printRhythm(pattern) === short ? [] : [pattern];
    const saidShort = writeReading(
      stretches.map((stretch) => withRests(stretch, meter)),
      meter,
    );
    short = printRhythm(saidShort);
    return short === printRhythm(pattern) ? [pattern] : [pattern, saidShort];
  });
  return { ok: true, school, exact: false, patterns };
}

/** The patterns of readings, in order, and not looking at them for ever. */
function firstOf(
  readings: Iterable<Reading>,
  most: number,
  patternsOf: (reading: Reading) => readonly Pattern[],
): Pattern[] {
  const found: Pattern[] = [];
  let looked = 0;
  for (const reading of readings) {
    found.push(...patternsOf(reading));
    if (found.length >= most || ++looked >= most * LOOKED_AT + 20) break;
  }
  return found.slice(0, most);
}

export interface Recognised {
  readonly school: SchoolId;
  /** As in `Said`. */
  readonly exact: boolean;
  readonly patterns: readonly Pattern[];
}

/**
 * Finds the school by itself: one whose words these are just as typed goes before one that can be made of them,
 * then the preferred one before the others. Undefined when none can read all of it. Without a meter the usual ones are
 * looked through, see `inAnyMeter`.
 */
export function recognise(
  text: string,
  preferred: SchoolId | undefined,
  options: SayOptions = {},
): Recognised | undefined {
  const order = [
    ...new Set([...(preferred && SPOKEN_SCHOOLS.includes(preferred) ? [preferred] : []), ...SPOKEN_SCHOOLS]),
  ];
  const read = (more: SayOptions): Recognised | undefined => {
    let tolerant: Recognised | undefined;
    for (const school of order) {
      const said = say(text, school, {
        ...options,
        ...more,
        houseWords: school === preferred ? options.houseWords : undefined,
      });
      if (said.ok && said.exact) return said;
      if (said.ok) tolerant ??= said;
    }
    return tolerant;
  };
  return options.meter ? read({}) : inAnyMeter(text, read);
}

/** Meters that are tried after 4/4 when none is named, the usual ones first. */
const OTHER_METERS = ['3/4', '2/4', '6/8', '5/4', '9/8', '12/8', '7/8', '3/8'].map((text): Meter => {
  const [upper, lower] = text.split('/').map(Number) as [number, number];
  return { upper, lower };
});

/**
 * Where no meter is named the words may tell it: "1 2 3 | 1 2 3" is two measures of 3/4. 4/4 is taken where they fill its
 * measures just as they were said. Else the other meters whose measures they fill are readings too; they go first where
 * there are several measures. One that is short may only be unfinished.
 * @param read  the readings in a meter, at most so many
 */
export function inAnyMeter(
  text: string,
  read: (options: { readonly meter: Meter; readonly most?: number }) => Recognised | undefined,
): Recognised | undefined {
  const common = read({ meter: COMMON_TIME });
  const fills = common?.exact && fillsMeasures(common.patterns[0]!);
  if (fills) return common;
  const others = OTHER_METERS.flatMap((meter) => {
    const found = read({ meter, most: 1 });
    return found?.exact &&
      fillsMeasures(found.patterns[0]!) &&
      !hasOddTuplets(found.patterns[0]!) &&
      (!common?.exact || found.school === common.school)
      ? [found]
      : [];
  });
  const several = text.includes(BAR) || (common?.exact === false && common.patterns[0]!.measures.length > 1);
  const first = several ? (others[0] ?? common) : (common ?? others[0]);
  if (!first) return undefined;
  const alike = others
    .filter((other) => other !== first && other.school === first.school)
    .map(({ patterns }) => patterns[0]!);
  const inCommon = common && common !== first && common.school === first.school ? common.patterns : [];
  const [best, ...further] = first.patterns;
  return { ...first, patterns: [best!, ...alike, ...further, ...inCommon] };
}

/** Others than triplets: nobody means these who does not name the meter. */
function hasOddTuplets(pattern: Pattern): boolean {
  return pattern.measures.some(({ items }) =>
    items.some((item) => item.kind === 'tuplet' && (item.n !== 3 || item.m !== 2)),
  );
}

function fillsMeasures(pattern: Pattern): boolean {
  return barCheck(pattern).every(({ verdict }) => verdict === 'full');
}
