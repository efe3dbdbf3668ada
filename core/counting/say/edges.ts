import { add, div, frac, mul } from '../../rhythm/fraction.ts';
import { type Beat, type Meter, beatOf } from '../../rhythm/meter.ts';
import { type NoteValue, type ValueLetter, lengthOf } from '../../rhythm/value.ts';
import { beatsHeld, beatsInside, vowelOf } from '../beatPlace.ts';
import type { CountedEvent, School, Words } from '../school.ts';
import type { WordSet } from '../wordSet.ts';
import { GRID_VALUES, type GridValue, type TupletKind, fromTicks, isStray, measureTicks, soundingTicks, ticks, tupletKinds } from './grid.ts';

/** One written event that a spoken token can mean. */
export interface SpokenEvent {
  readonly kind: 'note' | 'tied' | 'rest' | 'measure-rest';
  readonly value: NoteValue;
  readonly tuplet?: TupletKind;
  /** Where its tuplet starts, so that neighbours of one group are told from two groups. */
  readonly tupletAt?: number;
}

/** From a place in the measure, saying these tokens, to another place. */
export interface Edge {
  /** The tokens after the first. */
  readonly more: readonly string[];
  readonly events: readonly SpokenEvent[];
  readonly to: Place;
  readonly cost: number;
  /** The token says less than the note lasts: how many ticks it says. */
  readonly said?: number;
}

/** A place in a measure: ticks from the bar line, and the tuplet that is open there. A speaker has each place once. */
export interface Place {
  readonly at: number;
  readonly tuplet?: { readonly kind: TupletKind; readonly at: number };
}

/** Names a place among all places of a meter. */
export function placeKey({ at, tuplet }: Place): string {
  return tuplet ? `${at}/${tuplet.kind.n}${tuplet.kind.unit}${tuplet.at}` : String(at);
}

/** Edges by their first token. */
export type Edges = ReadonlyMap<string, readonly Edge[]>;

/** One value that fits at a place. */
interface Fitting {
  readonly value: NoteValue;
  readonly length: number;
  readonly tuplet: Place['tuplet'];
  readonly to: Place;
  readonly cost: number;
}

const VALUE_COST: Readonly<Record<ValueLetter, number>> = { w: 0, h: 0, q: 0, e: 0.05, s: 0.15, t: 0.6 };
const DOT_COST = [0, 0.04, 0.5] as const;
const TIED_COST = 0.3;
const MEASURE_REST_COST = 0.02;
/** A note shorter than the unit of its tuplet: nearly always another grouping is meant. */
const SHORT_IN_TUPLET_COST = 1;
const DOTTED_IN_TUPLET_COST = 0.6;
const OFF_BEAT_COST = 0.15;
const LOOSE_COST = 0.2;
const PLAIN_FIGURES_COST = 0.01;
const MOST_RUN = 12;
/** Nothing more has to be said. */
const WHOLE_TOKEN: readonly string[] = [];

function costOf({ base, dots }: NoteValue): number {
  return VALUE_COST[base] + DOT_COST[dots];
}

/** What can be said from each place of a measure; worked out when first asked, and kept. */
export class Speaker {
  /** Places outside tuplets, by their ticks. */
  private readonly plain: Place[] = [];
  private readonly inTuplets = new Map<string, Place>();
  private readonly exact = new Map<Place, Edges>();
  private readonly loose = new Map<Place, Edges>();
  private readonly beat: Beat;
  private readonly full: number;
  private readonly vowels: readonly string[];

  constructor(
    readonly school: School,
    readonly words: Words,
    readonly meter: Meter,
    override: ValueLetter | undefined,
    private readonly wordSet: WordSet,
  ) {
    this.beat = beatOf(meter, override);
    this.full = measureTicks(meter);
    this.vowels = [...new Set(Object.values(words).map(vowelOf))];
  }

  /** The place itself, the same object each time. */
  place(at: number, tuplet?: Place['tuplet']): Place {
    if (!tuplet) return (this.plain[at] ??= { at });
    const place: Place = { at, tuplet };
    const key = placeKey(place);
    const known = this.inTuplets.get(key);
    if (known) return known;
    this.inTuplets.set(key, place);
    return place;
  }

  /** Just as the school prints it. */
  exactFrom(place: Place): Edges {
    let edges = this.exact.get(place);
    if (!edges) this.exact.set(place, (edges = edgesOf((put) => this.sayExactly(place, put))));
    return edges;
  }

  /** With the holds left out, or in plain figures. */
  looseFrom(place: Place): Edges {
    let edges = this.loose.get(place);
    if (!edges) this.loose.set(place, (edges = edgesOf((put) => this.sayLoosely(place, put))));
    return edges;
  }

  private sayExactly(place: Place, put: Put): void {
    for (const fitting of this.fittingAt(place)) {
      const note = this.counted(place.at, fitting);
      if (!this.school.cells) put(this.school.note(note, this.words), edge('note', fitting));
      const tied = edge('tied', fitting, TIED_COST);
      for (const token of this.tiedTokens(note)) put(token, tied);
      const rest = edge('rest', fitting);
      for (const token of this.restTokens({ ...note, kind: 'rest' })) put(token, rest);
    }
    if (place.tuplet) return;
    if (this.school.cells) this.cells(place, put);
    if (place.at === 0) this.measureRests(put);
  }

  private sayLoosely(place: Place, put: Put): void {
    if (this.school.cells) return;
    for (const fitting of this.fittingAt(place)) {
      const token = this.school.note(this.counted(place.at, fitting), this.words);
      const head = token.split('-', 1)[0]!;
      const plain = plainFigures(token);
      if (plain !== token) put(plain, edge('note', fitting, PLAIN_FIGURES_COST));
      // A whole beat is said, the rest of the note is not.
      if (head !== token && !fitting.tuplet) put(head, { ...edge('note', fitting, LOOSE_COST), said: Math.min(fitting.length, toNextBeat(place.at, ticks(this.beat.length))) });
    }
  }

  private fittingAt(place: Place): Fitting[] {
    if (place.tuplet) return this.fitting(place, place.tuplet.kind.values, place.tuplet);
    const beat = ticks(this.beat.length);
    const tuplets = tupletKinds(this.meter).filter((kind) => place.at + kind.ticks <= this.full && place.at % Math.min(kind.ticks, beat) === 0);
    return [...this.fitting(place, GRID_VALUES, undefined), ...tuplets.flatMap((kind) => this.fitting(place, kind.values, { kind, at: place.at }))];
  }

  private fitting(place: Place, values: readonly GridValue[], tuplet: Place['tuplet']): Fitting[] {
    const limit = tuplet ? tuplet.at + tuplet.kind.ticks : this.full;
    return values.flatMap(({ value, ticks: length }) => {
      const end = place.at + length;
      if (end > limit || (!tuplet && isStray(place.at) && isStray(end))) return [];
      const unusual = tuplet ? tupletCost(place, tuplet, value, length) : this.offBeatCost(place.at, length);
      // Among readings that are equally likely the one with longer notes comes first, then the one whose longer notes come earlier.
      const cost = costOf(value) + unusual - length / 1e6 - (length * length * (this.full - place.at)) / 1e14;
      return [{ value, length, tuplet, to: this.place(end, tuplet && end < limit ? tuplet : undefined), cost }];
    });
  }

  /**
   * The words of one measure as a reading has it, for schools that say whole cells: only there a longer cell may take the
   * place of shorter ones. Undefined for rests, which are given in several ways.
   */
  cellWords(events: readonly SpokenEvent[], from: number): (string | undefined)[] {
    let at = from;
    let tuplet: { of: SpokenEvent; place: CountedEvent['tuplet'] } | undefined;
    const counted = events.map((event): CountedEvent => {
      const length = soundingTicks(event);
      const inTuplet = event.tuplet && event.tupletAt !== undefined ? { kind: event.tuplet, at: event.tupletAt } : undefined;
      const own = this.counted(at, { length, value: event.value, tuplet: inTuplet });
      // Neighbours of one tuplet share it.
      if (!inTuplet) tuplet = undefined;
      else if (tuplet?.of.tuplet !== event.tuplet || tuplet?.of.tupletAt !== event.tupletAt) tuplet = { of: event, place: own.tuplet };
      at += length;
      return { ...own, kind: event.kind === 'measure-rest' ? 'rest' : event.kind, tuplet: tuplet?.place };
    });
    const cells = this.school.cells!(counted, this.wordSet);
    return counted.map((event, i) => (event.kind === 'rest' ? undefined : event.kind === 'tied' ? this.school.tied(event, this.words) : (cells[i] ?? this.school.note(event, this.words))));
  }

  /** Notes that start inside a beat, or off the sixteenth that would carry them, are less usual. */
  private offBeatCost(at: number, length: number): number {
    const beat = ticks(this.beat.length);
    const inBeat = at % beat;
    const crosses = inBeat !== 0 && inBeat + length > beat;
    return (crosses ? OFF_BEAT_COST : 0) + (inBeat % Math.min(length, beat) !== 0 && !crosses ? OFF_BEAT_COST : 0);
  }

  private counted(at: number, { length, value, tuplet }: Pick<Fitting, 'length' | 'value' | 'tuplet'>): CountedEvent {
    const inBeats = (count: number) => div(fromTicks(count), this.beat.length);
    return {
      kind: 'note',
      onset: inBeats(at),
      length: inBeats(length),
      value,
      written: lengthOf(value),
      at: fromTicks(at),
      meter: this.meter,
      beat: this.beat,
      tuplet: tuplet && { n: tuplet.kind.n, onset: inBeats(tuplet.at), length: inBeats(tuplet.kind.ticks) },
    };
  }

  private tiedTokens(event: CountedEvent): string[] {
    if (!this.school.tiedByVowel) return [this.school.tied(event, this.words)];
    const times = Math.max(1, beatsHeld(event).length);
    return this.vowels.map((vowel) => `-${vowel}`.repeat(times));
  }

  /** In every style at once: no two of them look alike. */
  private restTokens(event: CountedEvent): string[] {
    const further = beatsInside(event).length;
    const again = (word: string) => word + `-${word}`.repeat(further);
    const said = this.school.cells?.([event], this.wordSet)[0] ?? this.school.note(event, this.words);
    const [written, rest, own] = [`(${said})`, again('rest'), this.school.rest?.(event, this.words) ?? again('sh')];
    return own === rest ? [written, rest, '_'] : [written, rest, own, '_'];
  }

  private measureRests(put: Put): void {
    const value: NoteValue = { base: 'w', dots: 0 };
    const event: SpokenEvent = { kind: 'measure-rest', value };
    const first: string[] = [];
    for (let number = 1; number <= MOST_RUN; number++) {
      const counted: CountedEvent = { ...this.counted(0, { length: this.full, value, tuplet: undefined }), kind: 'rest', written: fromTicks(this.full), restNumber: number };
      const numbered = this.restTokens(counted).filter((token) => number === 1 || !first.includes(token));
      if (number === 1) first.push(...numbered);
      for (const token of numbered) put(token, { more: WHOLE_TOKEN, events: [event], to: this.place(this.full), cost: MEASURE_REST_COST });
    }
  }

  /** Words of several syllables for several notes at once; those of one note too. */
  private cells(place: Place, put: Put): void {
    const onBeat = place.at % ticks(this.beat.length) === 0;
    for (const [cell, word] of Object.entries(this.wordSet.cells)) {
      const syllables = word.split('-');
      const read = readCell(cell);
      if (!read || read.values.length !== syllables.length || (syllables.length > 1 && !onBeat)) continue;
      const ratio = read.n === undefined ? frac(1) : frac(2, 3);
      const length = ticks(read.values.map((value) => mul(lengthOf(value), ratio)).reduce(add));
      if (place.at + length > this.full) continue;
      const kind = read.n === undefined ? undefined : tupletKinds(this.meter).find((k) => k.n === read.n && k.ticks === length);
      if (read.n !== undefined && !kind) continue;
      const events = read.values.map((value): SpokenEvent => ({ kind: 'note', value, ...(kind ? { tuplet: kind, tupletAt: place.at } : {}) }));
      put(syllables[0]!, { more: syllables.slice(1), events, to: this.place(place.at + length), cost: 0.1 - length / 1e6 });
    }
  }
}

type Put = (token: string, edge: Edge) => void;

function edgesOf(say: (put: Put) => void): Edges {
  const edges = new Map<string, Edge[]>();
  say((token, edge) => {
    const list = edges.get(token);
    if (list) list.push(edge);
    else edges.set(token, [edge]);
  });
  return edges;
}

function edge(kind: SpokenEvent['kind'], { value, tuplet, to, cost }: Fitting, more = 0): Edge {
  return { more: WHOLE_TOKEN, events: [{ kind, value, ...(tuplet ? { tuplet: tuplet.kind, tupletAt: tuplet.at } : {}) }], to, cost: cost + more };
}

function tupletCost(place: Place, { kind }: NonNullable<Place['tuplet']>, { dots }: NoteValue, length: number): number {
  return (place.tuplet ? 0 : kind.cost) + (length * kind.n < kind.ticks ? SHORT_IN_TUPLET_COST : 0) + (dots > 0 ? DOTTED_IN_TUPLET_COST : 0);
}

/** Small figures as people type them: "1-2" for "1-₂". */
function plainFigures(token: string): string {
  return !token.includes('-') ? token : token.replace(/[₀-₉]/g, (figure) => String('₀₁₂₃₄₅₆₇₈₉'.indexOf(figure)));
}

function toNextBeat(at: number, beat: number): number {
  return beat - (at % beat);
}

/** "3{e e e}" or "e. s" as values; undefined for anything else. */
function readCell(cell: string): { n: number | undefined; values: NoteValue[] } | undefined {
  const match = /^(?:(\d)\{)?([whqest. ]+)\}?$/.exec(cell);
  if (!match) return undefined;
  const values = match[2]!.trim().split(/\s+/).map((text): NoteValue => ({ base: text[0] as ValueLetter, dots: Math.min(2, text.length - 1) as 0 | 1 | 2 }));
  return { n: match[1] === undefined ? undefined : Number(match[1]), values };
}
