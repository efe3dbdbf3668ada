import { add, div, frac, mul } from '../../rhythm/fraction.ts';
import { type Beat, type Meter, beatOf } from '../../rhythm/meter.ts';
import { type NoteValue, type ValueLetter, lengthOf } from '../../rhythm/value.ts';
import { beatsHeld, beatsInside, vowelOf } from '../beatPlace.ts';
import type { CountedEvent, School, Words } from '../school.ts';
import type { WordSet } from '../wordSet.ts';
import { GRID_VALUES, type GridValue, type TupletKind, fromTicks, measureTicks, ticks, tupletKinds } from './grid.ts';

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

/** Edges by their first token; `loose` holds those whose token leaves out the holds. */
export interface Edges {
  readonly exact: ReadonlyMap<string, readonly Edge[]>;
  readonly loose: ReadonlyMap<string, readonly Edge[]>;
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
  private readonly places = new Map<string, Place>();
  private readonly known = new Map<Place, Edges>();
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
    const place: Place = tuplet ? { at, tuplet } : { at };
    const key = placeKey(place);
    const known = this.places.get(key);
    if (known) return known;
    this.places.set(key, place);
    return place;
  }

  edgesFrom(place: Place): Edges {
    const known = this.known.get(place);
    if (known) return known;
    const exact = new Map<string, Edge[]>();
    const loose = new Map<string, Edge[]>();
    const put = (map: Map<string, Edge[]>, token: string, edge: Edge) => {
      const list = map.get(token);
      if (list) list.push(edge);
      else map.set(token, [edge]);
    };
    this.walk(place, (token, edge) => put(exact, token, edge), (token, edge) => put(loose, token, edge));
    const edges: Edges = { exact, loose };
    this.known.set(place, edges);
    return edges;
  }

  private walk(place: Place, exact: (token: string, edge: Edge) => void, loose: (token: string, edge: Edge) => void): void {
    const inside = place.tuplet;
    if (inside) {
      this.values(place, inside.kind.values, inside, exact, loose);
      return;
    }
    this.values(place, GRID_VALUES, undefined, exact, loose);
    if (this.school.cells) this.cells(place, exact);
    const beatTicks = ticks(this.beat.length);
    for (const kind of tupletKinds(this.meter)) {
      const fits = place.at + kind.ticks <= this.full && place.at % Math.min(kind.ticks, beatTicks) === 0;
      if (fits) this.values(place, kind.values, { kind, at: place.at }, exact, loose);
    }
    if (place.at === 0) this.measureRests(exact);
  }

  private values(place: Place, values: readonly GridValue[], tuplet: Place['tuplet'], exact: (token: string, edge: Edge) => void, loose: (token: string, edge: Edge) => void): void {
    const limit = tuplet ? tuplet.at + tuplet.kind.ticks : this.full;
    for (const { value, ticks: length } of values) {
      const end = place.at + length;
      if (end > limit) continue;
      const to = this.place(end, tuplet && end < limit ? tuplet : undefined);
      const opens = tuplet !== undefined && place.tuplet === undefined;
      // Among readings that are equally likely the one with longer notes comes first, then the one whose longer notes come earlier.
      const cost = costOf(value) + (opens ? tuplet.kind.cost : 0) + (tuplet && length * tuplet.kind.n < tuplet.kind.ticks ? SHORT_IN_TUPLET_COST : 0) + (tuplet && value.dots > 0 ? DOTTED_IN_TUPLET_COST : 0) + (tuplet ? 0 : this.offBeatCost(place.at, length)) - length / 1e6 - (length * length * (this.full - place.at)) / 1e14;
      const edge = (kind: SpokenEvent['kind'], more: number): Edge => ({ more: WHOLE_TOKEN, events: [{ kind, value, ...(tuplet ? { tuplet: tuplet.kind, tupletAt: tuplet.at } : {}) }], to, cost: cost + more });
      const counted = this.counted(place.at, length, value, tuplet);
      if (!this.school.cells) {
        const token = this.school.note(counted, this.words);
        exact(token, edge('note', 0));
        const head = token.split('-', 1)[0]!;
        // Speech that leaves the holds out: a whole beat is said, the rest of the note is not.
        const plain = plainFigures(token);
        if (plain !== token) loose(plain, edge('note', PLAIN_FIGURES_COST));
        if (head !== token && !tuplet) loose(head, { ...edge('note', LOOSE_COST), said: Math.min(length, toNextBeat(place.at, ticks(this.beat.length))) });
      }
      const tied = edge('tied', TIED_COST);
      for (const token of this.tiedTokens(counted)) exact(token, tied);
      const rest = edge('rest', 0);
      for (const token of this.restTokens({ ...counted, kind: 'rest' })) exact(token, rest);
    }
  }

  /** Notes that start inside a beat, or off the sixteenth that would carry them, are less usual. */
  private offBeatCost(at: number, length: number): number {
    const beat = ticks(this.beat.length);
    const inBeat = at % beat;
    const crosses = inBeat !== 0 && inBeat + length > beat;
    return (crosses ? OFF_BEAT_COST : 0) + (inBeat % Math.min(length, beat) !== 0 && !crosses ? OFF_BEAT_COST : 0);
  }

  private counted(at: number, length: number, value: NoteValue, tuplet: Place['tuplet']): CountedEvent {
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

  private measureRests(exact: (token: string, edge: Edge) => void): void {
    const value: NoteValue = { base: 'w', dots: 0 };
    const event: SpokenEvent = { kind: 'measure-rest', value };
    const first: string[] = [];
    for (let number = 1; number <= MOST_RUN; number++) {
      const counted: CountedEvent = { ...this.counted(0, this.full, value, undefined), kind: 'rest', written: fromTicks(this.full), restNumber: number };
      const numbered = this.restTokens(counted).filter((token) => number === 1 || !first.includes(token));
      if (number === 1) first.push(...numbered);
      for (const token of numbered) exact(token, { more: WHOLE_TOKEN, events: [event], to: this.place(this.full), cost: MEASURE_REST_COST });
    }
  }

  /** Words of several syllables for several notes at once; those of one note too. */
  private cells(place: Place, exact: (token: string, edge: Edge) => void): void {
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
      exact(syllables[0]!, { more: syllables.slice(1), events, to: this.place(place.at + length), cost: 0.1 - length / 1e6 });
    }
  }
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
