import { type Language, inLanguage, t } from '../words/say.ts';
import { add, div, mixed } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedMeasure, type TupletPlace, placeOnce, placePattern } from '../rhythm/place.ts';
import { type ValueLetter, lengthOf } from '../rhythm/value.ts';
import { beatsInside } from './beatPlace.ts';
import type { CountedEvent, RestStyle, CountingSystem, Words } from './countingSystem.ts';
import { COUNTING_SYSTEMS, type CountingSystemId } from './countingSystems.ts';
import { HARBOUR_ANIMALS, type WordSet } from './wordSet.ts';

export interface CountOptions {
  readonly school: CountingSystemId;
  /** Default: as the system gives its rests. */
  readonly rests?: RestStyle | undefined;
  /** Count this value instead of the meter's beat. */
  readonly beat?: ValueLetter | undefined;
  /** The teacher's own words; a key left out keeps the system's. */
  readonly houseWords?: Words | undefined;
  readonly wordSet?: WordSet | undefined;
  /** The language of the words; left out it is that of who reads. */
  readonly language?: Language | undefined;
}

export interface CountedToken {
  readonly kind: CountedEvent['kind'];
  /** Where it stands, in counted beats from 1: "1 1/2" is half a beat after the first beat. */
  readonly beat: string;
  readonly text: string;
}

export interface CountedMeasure {
  readonly number: number;
  readonly tokens: readonly CountedToken[];
}

export type Counted =
  | { readonly ok: true; readonly measures: readonly CountedMeasure[] }
  | { readonly ok: false; readonly reason: string };

/**
 * The written counts of a pattern, one token under each note or rest (rules §4).
 * Repeats are not unfolded: it is what stands on paper. `(M3)` gives three measures.
 * @example plainCounts(countPattern("4/4 q. e q (q)", { school: 'numbers' })) // "1-₂ & 3 (4)"
 */
export function countPattern(pattern: Pattern, options: CountOptions): Counted {
  return inLanguage(options.language, () => countPlaced(pattern, options));
}

function countPlaced(pattern: Pattern, options: CountOptions): Counted {
  const placed = placePattern(pattern);
  return count(placed, seenBySystems(placed, options.beat), options);
}

/** As `countPattern`, for a pattern that is looked at only once: nothing is kept with it. */
export function countOnce(pattern: Pattern, options: CountOptions): Counted {
  const placed = placeOnce(pattern);
  return count(placed, see(placed, options.beat), options);
}

function count(
  placed: readonly PlacedMeasure[],
  { events: eventsByMeasure, places }: Seen,
  options: CountOptions,
): Counted {
  const school = COUNTING_SYSTEMS()[options.school];
  const words = options.houseWords ? { ...school.words, ...options.houseWords } : school.words;
  for (const { meter } of school.refuses ? placed : []) {
    const reason = school.refuses?.(meter, beatOf(meter, options.beat));
    if (reason !== undefined) return { ok: false, reason };
  }
  const restToken = REST_TOKENS[options.rests ?? school.rests];
  const measures: CountedMeasure[] = [];
  for (let i = 0; i < eventsByMeasure.length; i++) {
    const counted = eventsByMeasure[i]!;
    const events = school.sees ? counted.map(school.sees) : counted;
    const cells = school.cells?.(events, options.wordSet ?? HARBOUR_ANIMALS());
    const tokens: CountedToken[] = [];
    for (let k = 0; k < events.length; k++) {
      const event = events[k]!;
      const cell = cells?.[k];
      const text =
        event.kind === 'tied'
          ? school.tied(event, words)
          : event.kind === 'rest'
            ? restToken(event, school, words, cell)
            : noteToken(event, school, words, cell);
      tokens.push({ kind: event.kind, beat: places[i]![k]!, text });
    }
    measures.push({ number: placed[i]!.number, tokens });
  }
  return { ok: true, measures };
}

function noteToken(event: CountedEvent, school: CountingSystem, words: Words, cell: string | undefined): string {
  return cell !== undefined && event.label === undefined ? cell : school.note(event, words);
}

type RestToken = (event: CountedEvent, school: CountingSystem, words: Words, cell: string | undefined) => string;

const inParentheses: RestToken = (event, school, words, cell) => `(${cell ?? school.note(event, words)})`;

const REST_TOKENS: Readonly<Record<RestStyle, RestToken>> = {
  silent: () => '_',
  rest: (event) => restWord(t`rest`, event),
  sh: (event, school, words) => school.rest?.(event, words) ?? restWord('sh', event),
  parens: inParentheses,
  whisper: inParentheses,
};

/** Once, and once more for each further beat start inside. */
function restWord(word: string, event: CountedEvent): string {
  return word + `-${word}`.repeat(beatsInside(event).length);
}

interface Seen {
  readonly events: readonly (readonly CountedEvent[])[];
  /** Where each stands, in beats from 1. */
  readonly places: readonly (readonly string[])[];
}

const SEEN = new WeakMap<readonly PlacedMeasure[], Map<ValueLetter | undefined, Seen>>();

/** Kept with what was placed, for every system looks at the same. */
function seenBySystems(placed: readonly PlacedMeasure[], beat: ValueLetter | undefined): Seen {
  let kept = SEEN.get(placed);
  if (!kept) SEEN.set(placed, (kept = new Map<ValueLetter | undefined, Seen>()));
  let seen = kept.get(beat);
  if (!seen) kept.set(beat, (seen = see(placed, beat)));
  return seen;
}

function see(placed: readonly PlacedMeasure[], beat: ValueLetter | undefined): Seen {
  const events = countedEvents(placed, beat);
  const places: string[][] = [];
  for (const measure of events) {
    const inMeasure: string[] = [];
    for (const { onset } of measure) inMeasure.push(mixed({ n: onset.n + onset.d, d: onset.d }));
    places.push(inMeasure);
  }
  return { events, places };
}

/** Every event as the systems see it, in counted beats; tied-on notes know the note that sounds. */
export function eventsOf(placed: readonly PlacedMeasure[], beat?: ValueLetter): readonly (readonly CountedEvent[])[] {
  return seenBySystems(placed, beat).events;
}

function countedEvents(placed: readonly PlacedMeasure[], override: ValueLetter | undefined): CountedEvent[][] {
  let sounding: CountedEvent['sounding'];
  let last: CountedEvent | undefined;
  // One object for all events of a tuplet, so that neighbours can be told to share it.
  let tuplet: { of: TupletPlace; inBeats: CountedEvent['tuplet'] } | undefined;
  const byMeasure: CountedEvent[][] = [];
  for (const { meter, events, restNumber } of placed) {
    const beat = beatOf(meter, override);
    const unit = beat.length;
    const counted: CountedEvent[] = [];
    for (const event of events) {
      if (event.tuplet && tuplet?.of !== event.tuplet) {
        const { n, onset, length } = event.tuplet;
        tuplet = { of: event.tuplet, inBeats: { n, onset: div(onset, unit), length: div(length, unit) } };
      }
      if (event.kind !== 'tied') sounding = undefined;
      else if (last)
        sounding = sounding
          ? { event: sounding.event, beats: add(sounding.beats, last.length) }
          : { event: last, beats: last.length };
      // One shape for all, and nothing spread: this runs for every note of every pattern.
      last = {
        kind: event.kind,
        onset: div(event.onset, unit),
        length: div(event.length, unit),
        value: event.value,
        written: event.wholeMeasure ? event.length : lengthOf(event.value),
        at: event.onset,
        meter,
        beat,
        // A count is one word, whatever is written on the note.
        label: event.label?.replace(/\s+/gu, '-'),
        tuplet: event.tuplet && tuplet?.inBeats,
        restNumber,
        sounding,
      };
      counted.push(last);
    }
    byMeasure.push(counted);
  }
  return byMeasure;
}

/** The tokens as one line: a space between events, " | " between measures. */
export function plainCounts(measures: readonly CountedMeasure[]): string {
  let line = '';
  for (let i = 0; i < measures.length; i++) {
    const { tokens } = measures[i]!;
    if (i > 0) line += ' | ';
    for (let k = 0; k < tokens.length; k++) line += k > 0 ? ` ${tokens[k]!.text}` : tokens[k]!.text;
  }
  return line;
}
