import { currentLanguage, t } from '../words/say.ts';
import { barCheck } from '../rhythm/barCheck.ts';
import { COMMON_TIME, type Meter, meterText } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { printRhythm } from '../rhythm/text.ts';
import type { ValueLetter } from '../rhythm/value.ts';
import type { Words } from '../counting/countingSystem.ts';
import { COUNTING_SYSTEMS, COUNTING_SYSTEM_IDS, type CountingSystemId } from '../counting/countingSystems.ts';
import { HARBOUR_ANIMALS, type WordSet } from '../counting/wordSet.ts';
import { SPOKEN_VALUES } from '../counting/systems/noteNames.ts';
import { nearest } from './nearest.ts';
import { type NamedSpeech, readNoteNames, readWithinNote } from './readNames.ts';
import { SpokenParser } from './spokenParser.ts';
import { Places } from './places.ts';
import type { SpeechParse } from './parseSearch.ts';
import { type Typed, typedTokens } from './tokenizer.ts';
import { BAR } from './automaton.ts';
import { type WrittenSpans, withRests, writeParse } from './writePatterns.ts';

/** The systems that lead back from speech to writing, in the order in which they are tried. */
export const SPOKEN_SCHOOLS: readonly CountingSystemId[] = COUNTING_SYSTEM_IDS.flatMap((id) => {
  const { speech } = COUNTING_SYSTEMS()[id];
  return speech ? [{ id, order: speech.order }] : [];
})
  .sort((a, b) => a.order - b.order)
  .map(({ id }) => id);

export interface SpeechOptions {
  readonly meter?: Meter | undefined;
  readonly beat?: ValueLetter | undefined;
  readonly houseWords?: Words | undefined;
  readonly wordSet?: WordSet | undefined;
  /** At most so many parses; default 40. */
  readonly most?: number | undefined;
}

/**
 * Parses, the most likely first, without repeats; `exact` when every word was typed just as the system prints it, and
 * says something usual.
 */
export type SpeechResult =
  | {
      readonly ok: true;
      readonly school: CountingSystemId;
      readonly exact: boolean;
      readonly patterns: readonly Pattern[];
    }
  | { readonly ok: false; readonly word: string; readonly at: number; readonly expected: string };

/** Schools whose words name lengths: they are read as they stand. */
const NAMED: Partial<Record<CountingSystemId, (text: string, meter: Meter) => NamedSpeech>> = {
  'note-names': readNoteNames,
  'within-note': readWithinNote,
};
/** The words that a teacher might have meant there. */
const NAMED_WORDS: Partial<Record<CountingSystemId, readonly string[]>> = {
  'note-names': [...Object.keys(SPOKEN_VALUES), 'dotted', 'note', 'rest'],
  'within-note': ['rest'],
};

/** Every system that `readSpeech` can read. */
export const READABLE_SCHOOLS: readonly CountingSystemId[] = [
  ...SPOKEN_SCHOOLS,
  ...(Object.keys(NAMED) as CountingSystemId[]),
];

/** A parse that costs more than this for each word is not what the system usually says. */
const FARFETCHED = 0.5;
const MOST = 40;
/** Parses looked at for each one kept: those that would be spoken otherwise are thrown away. */
const LOOKED_AT = 3;

const parsers = new Map<string, SpokenParser>();
const MOST_PARSERS = 60;

/** What is worked out for a system in a meter serves every text: it is kept. */
function parserFor(
  school: CountingSystemId,
  meter: Meter,
  { beat, houseWords, wordSet = HARBOUR_ANIMALS() }: SpeechOptions,
): SpokenParser {
  const own = houseWords === undefined && wordSet === HARBOUR_ANIMALS() ? '' : JSON.stringify([houseWords, wordSet]);
  const key = `${currentLanguage()} ${school} ${meterText(meter)} ${beat ?? ''} ${own}`;
  const known = parsers.get(key);
  if (known) return known;
  if (parsers.size >= MOST_PARSERS) parsers.clear();
  const words = lowered({ ...COUNTING_SYSTEMS()[school].words, ...houseWords });
  const parser = new SpokenParser({
    id: school,
    school: COUNTING_SYSTEMS()[school],
    words,
    wordSet: loweredSet(wordSet),
    places: placesOf(meter, beat),
    beat,
  });
  parsers.set(key, parser);
  return parser;
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
 * first and the other parses follow.
 * @example say("ta ti-ti ta-a", 'ta')   // 4/4 q e e h
 * @example say("1 3", 'numbers')        // 4/4 h h, then 4/4 q (q) q (q)
 */
export function readSpeech(text: string, school: CountingSystemId, options: SpeechOptions = {}): SpeechResult {
  if (!READABLE_SCHOOLS.includes(school))
    return {
      ok: false,
      word: '',
      at: 0,
      expected: t`one of the schools that lead back to writing: ${READABLE_SCHOOLS.join(', ')}`,
    };
  const meter = options.meter ?? COMMON_TIME;
  const named = NAMED[school]?.(text, meter);
  // Plain numbers are more likely beats than counts within a note.
  if (named?.ok) return { ok: true, school, exact: !/^[^a-z]*$/i.test(text), patterns: [named.pattern] };
  if (named) return failure(named, school, NAMED_WORDS[school]!);
  const most = options.most ?? MOST;
  const parser = parserFor(school, meter, options);
  const typed = typedTokens(text, parser.tokenizer);
  if (typed.length === 0) return failure({ word: '', at: 0 }, school, []);
  const tokens = typed.map(({ token }) => token);
  const exact = parser.read(tokens, false);
  if (exact.ok) {
    let cost = Infinity;
    const written: WrittenSpans | undefined = most > 1 ? new Map() : undefined;
    const patterns = firstOf(exact.parses, most, (parse) => {
      if (!parser.saysAll(parse, tokens)) return [];
      cost = Math.min(cost, parse.cost);
      return [writeParse(parse.spans, meter, written)];
    });
    const asPrinted = cost < FARFETCHED * wordsIn(tokens) && isAsPrinted(typed);
    if (patterns.length > 0) return { ok: true, school, exact: asPrinted, patterns };
  }
  return sayLoosely(parser, typed, school, meter, most);
}

/** What could not be read, and what is most like it. */
function failure(
  { word, at }: { readonly word: string; readonly at: number },
  school: CountingSystemId,
  words: readonly string[],
): Extract<SpeechResult, { ok: false }> {
  const { title } = COUNTING_SYSTEMS()[school];
  if (word === '') return { ok: false, word, at, expected: t`something to read, such as “ta ti-ti ta-a” or “1 & 2 3”` };
  const near = nearest(word, words);
  const expected =
    near === undefined ? t`what can follow here in ${title}` : t`“${near}”, the nearest word of ${title}`;
  return { ok: false, word, at, expected };
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
function sayLoosely(
  parser: SpokenParser,
  typed: readonly Typed[],
  school: CountingSystemId,
  meter: Meter,
  most: number,
): SpeechResult {
  const found = parser.read(
    typed.map(({ token }) => token),
    true,
  );
  if (!found.ok) {
    const stuck = typed[found.token]!;
    return failure({ word: stuck.typed, at: stuck.at }, school, parser.tokenizer.vocabulary);
  }
  let short: string | undefined;
  const patterns = firstOf(found.parses, most, ({ spans }) => {
    const pattern = writeParse(spans, meter);
    if (short !== undefined) return printRhythm(pattern) === short ? [] : [pattern];
    const saidShort = writeParse(
      spans.map((span) => withRests(span, meter)),
      meter,
    );
    short = printRhythm(saidShort);
    return short === printRhythm(pattern) ? [pattern] : [pattern, saidShort];
  });
  return { ok: true, school, exact: false, patterns };
}

/** The patterns of parses, in order, and not looking at them for ever. */
function firstOf(
  parses: Iterable<SpeechParse>,
  most: number,
  patternsOf: (parse: SpeechParse) => readonly Pattern[],
): Pattern[] {
  const found: Pattern[] = [];
  let looked = 0;
  for (const parse of parses) {
    found.push(...patternsOf(parse));
    if (found.length >= most || ++looked >= most * LOOKED_AT + 20) break;
  }
  return found.slice(0, most);
}

export interface Recognised {
  readonly school: CountingSystemId;
  /** As in `Said`. */
  readonly exact: boolean;
  readonly patterns: readonly Pattern[];
}

/**
 * Finds the system by itself: one whose words these are just as typed goes before one that can be made of them,
 * then the preferred one before the others. Undefined when none can read all of it. Without a meter the usual ones are
 * looked through, see `inAnyMeter`.
 */
export function recognise(
  text: string,
  preferred: CountingSystemId | undefined,
  options: SpeechOptions = {},
): Recognised | undefined {
  const order = [
    ...new Set([...(preferred && READABLE_SCHOOLS.includes(preferred) ? [preferred] : []), ...READABLE_SCHOOLS]),
  ];
  const read = (more: SpeechOptions): Recognised | undefined => {
    let tolerant: Recognised | undefined;
    for (const school of order) {
      const said = readSpeech(text, school, {
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

/** Why no school can read it, told by the one that understood the most; undefined where none understood a word. */
export function speechTrouble(
  text: string,
  preferred: CountingSystemId | undefined,
  options: SpeechOptions = {},
):
  | { readonly school: CountingSystemId; readonly word: string; readonly at: number; readonly expected: string }
  | undefined {
  let most: ReturnType<typeof speechTrouble>;
  for (const school of new Set([...(preferred ? [preferred] : []), ...READABLE_SCHOOLS])) {
    const said = readSpeech(text, school, {
      ...options,
      houseWords: school === preferred ? options.houseWords : undefined,
      most: 1,
    });
    if (!said.ok && said.at > (most?.at ?? 0)) most = { school, ...said };
  }
  return most;
}

/** Meters that are tried after 4/4 when none is named, the usual ones first. */
const OTHER_METERS = ['3/4', '2/4', '6/8', '5/4', '9/8', '12/8', '7/8', '3/8'].map((text): Meter => {
  const [upper, lower] = text.split('/').map(Number) as [number, number];
  return { upper, lower };
});

/**
 * Where no meter is named the words may tell it: "1 2 3 | 1 2 3" is two measures of 3/4. 4/4 is taken where they fill
 * its measures just as they were said. Else the other meters whose measures they fill are parses too; they go first
 * where there are several measures. One that is short may only be unfinished.
 * @param read  the parses in a meter, at most so many
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
