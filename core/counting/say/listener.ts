import type { ValueLetter } from '../../rhythm/value.ts';
import { countOnce } from '../count.ts';
import type { School, Words } from '../school.ts';
import type { WordSet } from '../wordSet.ts';
import { Speaker } from './edges.ts';
import type { Places } from './places.ts';
import { type Opening, type Reading, type SearchResult, pickupStarts, readTokens } from './search.ts';
import { Stretch, type StretchReading } from './stretch.ts';
import { Cutter } from './tokens.ts';
import { BAR, Ways } from './ways.ts';
import { startsTied, writeReading } from './write.ts';

export interface Voice {
  readonly school: School;
  readonly words: Words;
  readonly wordSet: WordSet;
  /** Of its meter and beat; the voices of all schools share them. */
  readonly places: Places;
  readonly beat: ValueLetter | undefined;
}

/** A stretch as it was read. */
interface Kept {
  readonly mode: number;
  readonly from: Opening;
  readonly last: boolean;
  readonly part: readonly string[];
  readonly stretch: Stretch;
}

/** What reads the speech of one school in one meter. */
export class Listener {
  readonly cutter: Cutter;
  private readonly speaker: Speaker;
  /** By whether there are bars, and whether holds may be left out. */
  private readonly ways: Ways[] = [];
  /** The measures of the last text, by their place: while a teacher types, all but the last measure are known. */
  private kept: readonly (readonly Kept[])[] = [];

  constructor(private readonly voice: Voice) {
    const { school, words, wordSet, places } = voice;
    this.cutter = new Cutter(school, words, wordSet);
    this.speaker = new Speaker(places, school, words, wordSet);
  }

  /** @param loose  let tokens leave the holds out ("1 3" for two half notes) */
  read(tokens: readonly string[], loose: boolean): SearchResult {
    const bars = tokens.includes(BAR);
    const mode = (bars ? 1 : 0) + (loose ? 2 : 0);
    const ways = (this.ways[mode] ??= new Ways(this.speaker, this.voice.places, bars, loose));
    const before = this.kept;
    const kept: Kept[][] = [];
    this.kept = kept;
    return readTokens(tokens, (part, i, opening, last) => {
      // Only a tie asks whether a note sounds on into the stretch.
      const from = opening === 'sounding' && !part[0]!.startsWith('-') ? 'silent' : opening;
      const here = (kept[i] ??= []);
      const known = keptOf(here, mode, from, last, part) ??
        keptOf(before[i], mode, from, last, part) ?? {
          mode,
          from,
          last,
          part,
          stretch: this.stretch(ways, part, from, last, loose),
        };
      here.push(known);
      return known.stretch;
    });
  }

  /** Made apart, so that it holds on to nothing of the texts before. */
  private stretch(ways: Ways, part: readonly string[], from: Opening, last: boolean, loose: boolean): Stretch {
    const starts = from === 'pickup' ? pickupStarts(this.voice.places.full) : [0];
    return new Stretch(
      ways,
      part,
      ways.start(starts, from === 'sounding'),
      last,
      (reading) => loose || this.saysSo(reading, part),
    );
  }

  /** What a reading could not know by itself: ties that go on with the vowel of a measure before, and how many measures have rested. */
  saysAll({ stretches }: Reading, tokens: readonly string[]): boolean {
    return (
      !stretches.some((stretch) => this.leansOnBefore(stretch)) ||
      this.isSpoken(
        stretches,
        tokens.filter((token) => token !== BAR),
      )
    );
  }

  /** Words for cells, and ties that go on with a vowel, are only certain when the reading is spoken again. */
  private saysSo(reading: StretchReading, tokens: readonly string[]): boolean {
    const { cells, tiedByVowel } = this.voice.school;
    if (this.leansOnBefore(reading)) return true;
    if (cells) return this.saysCells(reading, tokens);
    return !(tiedByVowel && reading.ties) || this.isSpoken([reading], tokens);
  }

  private saysCells({ measures, from }: StretchReading, tokens: readonly string[]): boolean {
    let at = 0;
    for (let i = 0; i < measures.length; i++) {
      for (const word of this.speaker.cellWords(measures[i]!, i === 0 ? from : 0)) {
        if (word !== undefined && word !== tokens[at]) return false;
        at++;
      }
    }
    return true;
  }

  private leansOnBefore(reading: StretchReading): boolean {
    const { cells, tiedByVowel } = this.voice.school;
    return reading.restsMeasures || ((tiedByVowel || cells !== undefined) && startsTied(reading));
  }

  /** Spoken again it is what was typed, but for how the rests are given. */
  private isSpoken(stretches: readonly StretchReading[], tokens: readonly string[]): boolean {
    const { school, words, wordSet, beat, places } = this.voice;
    const counted = countOnce(writeReading(stretches, places.meter), {
      school: school.id,
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
