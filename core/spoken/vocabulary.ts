import { add, frac, mul } from '../rhythm/fraction.ts';
import { type NoteValue, type ValueLetter, lengthOf } from '../rhythm/value.ts';
import { beatsHeld, beatsInside, vowelOf } from '../counting/beatPlace.ts';
import type { CountedEvent, CountingSystem, Words } from '../counting/countingSystem.ts';
import type { WordSet } from '../counting/wordSet.ts';
import { soundingTicks, ticks, tupletKinds } from './ticks.ts';
import { type Transition, type Place, type Places, type SpokenEvent, WHOLE_TOKEN } from './places.ts';

/** Transitions by their first token. */
export type Transitions = ReadonlyMap<string, readonly Transition[]>;

const MEASURE_REST_COST = 0.02;
const LOOSE_COST = 0.2;
const PLAIN_FIGURES_COST = 0.01;
const MOST_RUN = 12;

/** What can be said from each place of a measure; worked out when first asked, and kept. */
export class Vocabulary {
  private readonly exact = new Map<Place, Transitions>();
  private readonly loose = new Map<Place, Transitions>();
  private readonly vowels: readonly string[];

  constructor(
    private readonly places: Places,
    readonly school: CountingSystem,
    readonly words: Words,
    private readonly wordSet: WordSet,
  ) {
    this.vowels = [...new Set(Object.values(words).map(vowelOf))];
  }

  /** Just as the system prints it. */
  exactFrom(place: Place): Transitions {
    let transitions = this.exact.get(place);
    if (!transitions) this.exact.set(place, (transitions = transitionsOf((put) => this.sayExactly(place, put))));
    return transitions;
  }

  /** With the holds left out, or in plain figures. */
  looseFrom(place: Place): Transitions {
    let transitions = this.loose.get(place);
    if (!transitions) this.loose.set(place, (transitions = transitionsOf((put) => this.sayLoosely(place, put))));
    return transitions;
  }

  private seen(event: CountedEvent): CountedEvent {
    return this.school.sees?.(event) ?? event;
  }

  private sayExactly(place: Place, put: Put): void {
    for (const fitting of this.places.fittingAt(place)) {
      const [note, rest] = [this.seen(fitting.note), this.seen(fitting.rest)];
      if (!this.school.cells) put(this.school.note(note, this.words), fitting.asNote);
      for (const token of this.tiedTokens(note)) put(token, fitting.asTied);
      for (const token of this.restTokens(rest)) put(token, fitting.asRest);
    }
    if (place.tuplet) return;
    if (this.school.cells) this.cells(place, put);
    if (place.at === 0) this.measureRests(put);
  }

  private sayLoosely(place: Place, put: Put): void {
    if (this.school.cells) return;
    for (const { note, asNote, length, tuplet } of this.places.fittingAt(place)) {
      const token = this.school.note(this.seen(note), this.words);
      const head = token.split('-', 1)[0]!;
      const plain = plainFigures(token);
      if (plain !== token) put(plain, { ...asNote, cost: asNote.cost + PLAIN_FIGURES_COST });
      // A whole beat is said, the rest of the note is not.
      if (head !== token && !tuplet)
        put(head, {
          ...asNote,
          cost: asNote.cost + LOOSE_COST,
          said: Math.min(length, toNextBeat(place.at, this.places.beatTicks)),
        });
    }
  }

  /**
   * The words of one measure as a parse has it, for systems that say whole cells: only there a longer cell may take the
   * place of shorter ones. Undefined for rests, which are given in several ways.
   */
  cellWords(events: readonly SpokenEvent[], from: number): (string | undefined)[] {
    const counted: CountedEvent[] = [];
    let at = from;
    for (const { kind, value, tuplet, tupletAt } of events) {
      const length = soundingTicks(value, tuplet);
      counted.push(
        this.places.counted(
          kind === 'measure-rest' ? 'rest' : kind,
          at,
          length,
          value,
          tuplet && { kind: tuplet, at: tupletAt! },
        ),
      );
      at += length;
    }
    const words: (string | undefined)[] = this.school.cells!(counted, this.wordSet);
    for (let i = 0; i < counted.length; i++) {
      const event = counted[i]!;
      if (event.kind === 'rest') words[i] = undefined;
      else if (event.kind === 'tied') words[i] = this.school.tied(event, this.words);
      else words[i] ??= this.school.note(event, this.words);
    }
    return words;
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
    const event: SpokenEvent = {
      kind: 'measure-rest',
      value: { base: 'w', dots: 0 },
      tuplet: undefined,
      tupletAt: undefined,
    };
    const transition: Transition = {
      more: WHOLE_TOKEN,
      events: [event],
      to: this.places.place(this.places.full),
      cost: MEASURE_REST_COST,
      said: undefined,
    };
    const first = this.restTokens(this.places.measureRest(1));
    for (const token of first) put(token, transition);
    for (let number = 2; number <= MOST_RUN; number++) {
      for (const token of this.restTokens(this.places.measureRest(number)))
        if (!first.includes(token)) put(token, transition);
    }
  }

  /** Words of several syllables for several notes at once; those of one note too. */
  private cells(place: Place, put: Put): void {
    const isBeat = (at: number) => at % this.places.beatTicks === 0;
    for (const [cell, word] of Object.entries(this.wordSet.cells)) {
      const syllables = word.split('-');
      const read = readCell(cell);
      if (!read || read.values.length !== syllables.length) continue;
      const ratio = read.n === undefined ? frac(1) : frac(2, 3);
      const length = ticks(read.values.map((value) => mul(lengthOf(value), ratio)).reduce(add));
      if (
        place.at + length > this.places.full ||
        (syllables.length > 1 && !(isBeat(place.at) && isBeat(place.at + length)))
      )
        continue;
      const kind =
        read.n === undefined
          ? undefined
          : tupletKinds(this.places.meter).find((k) => k.n === read.n && k.ticks === length);
      if (read.n !== undefined && !kind) continue;
      const events = read.values.map((value): SpokenEvent => ({
        kind: 'note',
        value,
        tuplet: kind,
        tupletAt: kind && place.at,
      }));
      put(syllables[0]!, {
        more: syllables.length === 1 ? WHOLE_TOKEN : syllables.slice(1),
        events,
        to: this.places.place(place.at + length),
        cost: 0.1 - length / 1e6,
        said: undefined,
      });
    }
  }
}

type Put = (token: string, transition: Transition) => void;

function transitionsOf(say: (put: Put) => void): Transitions {
  const transitions = new Map<string, Transition[]>();
  say((token, transition) => {
    const list = transitions.get(token);
    if (list) list.push(transition);
    else transitions.set(token, [transition]);
  });
  return transitions;
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
  const values = match[2]!
    .trim()
    .split(/\s+/)
    .map((text): NoteValue => ({ base: text[0] as ValueLetter, dots: Math.min(2, text.length - 1) as 0 | 1 | 2 }));
  return { n: match[1] === undefined ? undefined : Number(match[1]), values };
}
