import type { ValueLetter } from '../rhythm/value.ts';
import { countOnce } from '../counting/count.ts';
import type { CountingSystem, Words } from '../counting/countingSystem.ts';
import type { CountingSystemId } from '../counting/countingSystems.ts';
import type { WordSet } from '../counting/wordSet.ts';
import { Vocabulary } from './vocabulary.ts';
import type { Places } from './places.ts';
import { type Opening, type SpeechParse, type SearchResult, pickupStarts, searchParses } from './parseSearch.ts';
import { BarSpan, type SpanParse } from './barSpan.ts';
import { Tokenizer } from './tokenizer.ts';
import { BAR, SpeechAutomaton } from './automaton.ts';
import { startsTied, writeParse } from './writePatterns.ts';

export interface SpokenSystem {
  readonly id: CountingSystemId;
  readonly school: CountingSystem;
  readonly words: Words;
  readonly wordSet: WordSet;
  /** Of its meter and beat; the voices of all systems share them. */
  readonly places: Places;
  readonly beat: ValueLetter | undefined;
}

/** A span as it was read. */
interface Kept {
  readonly mode: number;
  readonly from: Opening;
  readonly last: boolean;
  readonly part: readonly string[];
  readonly span: BarSpan;
}

/** What reads the speech of one school in one meter. */
export class SpokenParser {
  readonly tokenizer: Tokenizer;
  private readonly vocabulary: Vocabulary;
  /** By whether there are bars, and whether holds may be left out. */
  private readonly automata: SpeechAutomaton[] = [];
  /** The measures of the last text, by their place: while a teacher types, all but the last measure are known. */
  private kept: readonly (readonly Kept[])[] = [];

  constructor(private readonly spoken: SpokenSystem) {
    const { school, words, wordSet, places } = spoken;
    this.tokenizer = new Tokenizer(school, words, wordSet);
    this.vocabulary = new Vocabulary(places, school, words, wordSet);
  }

  /** @param loose  let tokens leave the holds out ("1 3" for two half notes) */
  read(tokens: readonly string[], loose: boolean): SearchResult {
    const bars = tokens.includes(BAR);
    const mode = (bars ? 1 : 0) + (loose ? 2 : 0);
    const automaton = (this.automata[mode] ??= new SpeechAutomaton(this.vocabulary, this.spoken.places, bars, loose));
    const before = this.kept;
    const kept: Kept[][] = [];
    this.kept = kept;
    return searchParses(tokens, (part, i, opening, last) => {
      // Only a tie asks whether a note sounds on into the span.
      const from = opening === 'sounding' && !part[0]!.startsWith('-') ? 'silent' : opening;
      const here = (kept[i] ??= []);
      const known = keptOf(here, mode, from, last, part) ??
        keptOf(before[i], mode, from, last, part) ?? {
          mode,
          from,
          last,
          part,
          span: this.span(automaton, part, from, last, loose),
        };
      here.push(known);
      return known.span;
    });
  }

  /** Made apart, so that it holds on to nothing of the texts before. */
  private span(
    automaton: SpeechAutomaton,
    part: readonly string[],
    from: Opening,
    last: boolean,
    loose: boolean,
  ): BarSpan {
    const starts = from === 'pickup' ? pickupStarts(this.spoken.places.full) : [0];
    return new BarSpan(
      automaton,
      part,
      automaton.start(starts, from === 'sounding'),
      last,
      (parse) => loose || this.saysSo(parse, part),
    );
  }

  /**
   * What a parse could not know by itself: ties that go on with the vowel of a measure before, and how many measures
   * have rested.
   */
  saysAll({ spans }: SpeechParse, tokens: readonly string[]): boolean {
    return (
      !spans.some((span) => this.leansOnBefore(span)) ||
      this.isSpoken(
        spans,
        tokens.filter((token) => token !== BAR),
      )
    );
  }

  /** Words for cells, and ties that go on with a vowel, are only certain when the parse is spoken again. */
  private saysSo(parse: SpanParse, tokens: readonly string[]): boolean {
    const { cells, tiedByVowel } = this.spoken.school;
    if (this.leansOnBefore(parse)) return true;
    if (cells) return this.saysCells(parse, tokens);
    return !(tiedByVowel && parse.ties) || this.isSpoken([parse], tokens);
  }

  private saysCells({ measures, from }: SpanParse, tokens: readonly string[]): boolean {
    let at = 0;
    for (let i = 0; i < measures.length; i++) {
      for (const word of this.vocabulary.cellWords(measures[i]!, i === 0 ? from : 0)) {
        if (word !== undefined && word !== tokens[at]) return false;
        at++;
      }
    }
    return true;
  }

  private leansOnBefore(parse: SpanParse): boolean {
    const { cells, tiedByVowel } = this.spoken.school;
    return parse.restsMeasures || ((tiedByVowel || cells !== undefined) && startsTied(parse));
  }

  /** Spoken again it is what was typed, but for how the rests are given. */
  private isSpoken(spans: readonly SpanParse[], tokens: readonly string[]): boolean {
    const { id, words, wordSet, beat, places } = this.spoken;
    const counted = countOnce(writeParse(spans, places.meter), {
      school: id,
      beat,
      houseWords: words,
      wordSet,
    });
    if (!counted.ok) return false;
    const said = counted.measures.flatMap((measure) => measure.tokens);
    return (
      said.length === tokens.length &&
      said.every(({ kind, text }, i) => text.toLowerCase() === tokens[i] || (kind === 'rest' && !/\d/.test(text)))
    );
  }
}

function keptOf(
  list: readonly Kept[] | undefined,
  mode: number,
  from: Opening,
  last: boolean,
  part: readonly string[],
): Kept | undefined {
  return list?.find(
    (one) =>
      one.mode === mode &&
      one.from === from &&
      one.last === last &&
      one.part.length === part.length &&
      one.part.every((token, k) => token === part[k]),
  );
}
