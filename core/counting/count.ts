import { type Fraction, ZERO, add, div, mixed } from '../rhythm/fraction.ts';
import { type Meter, beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type PlacedEvent, type PlacedMeasure, placePattern } from '../rhythm/place.ts';
import { type ValueLetter, lengthOf } from '../rhythm/value.ts';
import { beatsInside } from './beatPlace.ts';
import type { CountedEvent, RestStyle, School, SchoolId, Words } from './school.ts';
import { SCHOOLS } from './schools.ts';
import { HARBOUR_ANIMALS, type WordSet } from './wordSet.ts';

export interface CountOptions {
  readonly school: SchoolId;
  /** Default: as the school gives its rests. */
  readonly rests?: RestStyle | undefined;
  /** Count this value instead of the meter's beat. */
  readonly beat?: ValueLetter | undefined;
  /** The teacher's own words; a key left out keeps the school's. */
  readonly houseWords?: Words | undefined;
  readonly wordSet?: WordSet | undefined;
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

export type Counted = { readonly ok: true; readonly measures: readonly CountedMeasure[] } | { readonly ok: false; readonly reason: string };

const BEAT_FROM_ONE: Fraction = { n: 1, d: 1 };

/**
 * The written counts of a pattern, one token under each note or rest (handbook §4).
 * Repeats are not unfolded: it is what stands on paper. `(M3)` gives three measures.
 * @example plainCounts(countPattern("4/4 q. e q (q)", { school: 'numbers' })) // "1-₂ & 3 (4)"
 */
export function countPattern(pattern: Pattern, options: CountOptions): Counted {
  const school = SCHOOLS[options.school];
  const words = options.houseWords ? { ...school.words, ...options.houseWords } : school.words;
  const placed = placePattern(pattern);
  for (const { meter } of school.refuses ? placed : []) {
    const reason = school.refuses?.(meter, beatOf(meter, options.beat));
    if (reason !== undefined) return { ok: false, reason };
  }
  const style = options.rests ?? school.rests;
  const measures = eventsOf(placed, options.beat).map((events, i) => {
    const cells = school.cells?.(events, options.wordSet ?? HARBOUR_ANIMALS);
    const tokens = events.map((event, k): CountedToken => ({
      kind: event.kind,
      beat: mixed(add(event.onset, BEAT_FROM_ONE)),
      text: tokenOf(event, school, words, style, cells?.[k]),
    }));
    return { number: placed[i]!.number, tokens };
  });
  return { ok: true, measures };
}

function tokenOf(event: CountedEvent, school: School, words: Words, style: RestStyle, cell: string | undefined): string {
  if (event.kind === 'tied') return school.tied(event, words);
  if (event.kind === 'note') return cell !== undefined && event.label === undefined ? cell : school.note(event, words);
  switch (style) {
    case 'silent':
      return '_';
    case 'rest':
      return restWord('rest', event);
    case 'sh':
      return school.rest?.(event, words) ?? restWord('sh', event);
    case 'parens':
    case 'whisper':
      return `(${school.note(event, words)})`;
  }
}

/** Once, and once more for each further beat start inside. */
function restWord(word: string, event: CountedEvent): string {
  return [word, ...beatsInside(event).map(() => word)].join('-');
}

const COUNTED = new WeakMap<readonly PlacedMeasure[], Map<ValueLetter | undefined, readonly (readonly CountedEvent[])[]>>();

/**
 * Every event as the schools see it, in counted beats; tied-on notes know the note that sounds. Kept with what was placed,
 * for every school looks at the same events.
 */
export function eventsOf(placed: readonly PlacedMeasure[], beat?: ValueLetter): readonly (readonly CountedEvent[])[] {
  let kept = COUNTED.get(placed);
  if (!kept) COUNTED.set(placed, (kept = new Map<ValueLetter | undefined, readonly (readonly CountedEvent[])[]>()));
  let events = kept.get(beat);
  if (!events) kept.set(beat, (events = countedEvents(placed, beat)));
  return events;
}

function countedEvents(placed: readonly PlacedMeasure[], beat: ValueLetter | undefined): CountedEvent[][] {
  let sounding: { event: CountedEvent; beats: Fraction } | undefined;
  return placed.map(({ meter, events, restNumber }) =>
    events.map((event) => {
      const counted = countedEvent(event, meter, beat, restNumber, event.kind === 'tied' ? sounding : undefined);
      if (event.kind === 'tied' && sounding) sounding = { event: sounding.event, beats: add(sounding.beats, counted.length) };
      else sounding = { event: counted, beats: add(ZERO, counted.length) };
      return counted;
    }),
  );
}

function countedEvent(
  event: PlacedEvent,
  meter: Meter,
  override: ValueLetter | undefined,
  restNumber: number | undefined,
  sounding: { event: CountedEvent; beats: Fraction } | undefined,
): CountedEvent {
  const beat = beatOf(meter, override);
  const { tuplet } = event;
  return {
    kind: event.kind,
    onset: div(event.onset, beat.length),
    length: div(event.length, beat.length),
    value: event.value,
    written: event.wholeMeasure ? event.length : lengthOf(event.value),
    at: event.onset,
    meter,
    beat,
    ...(event.label === undefined ? {} : { label: event.label }),
    ...(tuplet ? { tuplet: tupletInBeats(tuplet, beat.length) } : {}),
    ...(restNumber === undefined ? {} : { restNumber }),
    ...(sounding ? { sounding } : {}),
  };
}

type TupletOf = NonNullable<PlacedEvent['tuplet']>;
const TUPLETS = new WeakMap<TupletOf, { unit: Fraction; inBeats: NonNullable<CountedEvent['tuplet']> }>();

/** One object for all events of a tuplet, so that neighbours can be told to share it. */
function tupletInBeats(tuplet: TupletOf, unit: Fraction): NonNullable<CountedEvent['tuplet']> {
  const known = TUPLETS.get(tuplet);
  if (known && known.unit.n === unit.n && known.unit.d === unit.d) return known.inBeats;
  const inBeats = { n: tuplet.n, onset: div(tuplet.onset, unit), length: div(tuplet.length, unit) };
  TUPLETS.set(tuplet, { unit, inBeats });
  return inBeats;
}

/** The tokens as one line: a space between events, " | " between measures. */
export function plainCounts(measures: readonly CountedMeasure[]): string {
  return measures.map(({ tokens }) => tokens.map(({ text }) => text).join(' ')).join(' | ');
}
