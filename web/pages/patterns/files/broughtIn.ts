import { barCheck } from '../../../../core/rhythm/barCheck.ts';
import { type Labels, buildPattern, numbersOf } from '../../../../core/formats/buildPattern.ts';
import { leftOutOf, phrasesOf, soundsIn, usualVoice } from '../../../../core/formats/choosing.ts';
import { mergeVoices } from '../../../../core/formats/mergeVoices.ts';
import type { Piece, RawVoice } from '../../../../core/formats/piece.ts';
import type { Pattern } from '../../../../core/rhythm/pattern.ts';
import { errorSentence, parseRhythm, printRhythm } from '../../../../core/rhythm/text.ts';
import { leftOutList } from '../../../../core/wording/leftOutWords.ts';
import { barTroubleText } from '../../../../core/wording/troubles.ts';
import type { NamingId } from '../../../../core/wording/valueNames.ts';

/** Which line of a piece is taken: the index of a part and the id of a voice in it, or all of them together. */
export const ALL_LINES = 'all';

/** A line of a piece that can be chosen. */
export interface Line {
  readonly key: string;
  readonly name: string;
  readonly voice: RawVoice;
}

/** How much of it: all in one pattern, cut into phrases, or the measures from one number to another. */
export type Extent = 'all' | 'phrases' | 'measures';

export interface LineChoice {
  readonly title: string;
  readonly line: string;
  readonly extent: Extent;
  readonly from: number;
  readonly to: number;
  readonly labels: Labels;
}

/** A piece that was read, and what is taken of it. */
export interface Brought {
  readonly key: string;
  readonly file: File;
  readonly piece: Piece;
  readonly choice: LineChoice;
  /** Texts that the teacher mended, by their place among the offers. */
  readonly mended: Readonly<Record<number, string>>;
  /** Places of offers that are not taken. */
  readonly left: readonly number[];
}

/** A pattern that is offered to be saved. */
export interface Offer {
  readonly title: string;
  readonly text: string;
  readonly pattern?: Pattern;
  readonly trouble?: string;
}

/** Everything of a piece that sounds; one voice of a part has the name of the part alone. */
export function linesOf({ parts }: Piece): Line[] {
  return parts.flatMap(({ name, voices }, i) => {
    const sounding = voices.filter((voice) => soundsIn(voice) > 0);
    const shown = sounding.length > 0 ? sounding : voices.slice(0, 1);
    return shown.map((voice) => ({
      key: `${i} ${voice.id}`,
      name: shown.length > 1 ? `${name}, voice ${voice.id}` : name,
      voice,
    }));
  });
}

/** The line that is chosen, or all of them as one. */
export function voiceOf(lines: readonly Line[], key: string): RawVoice | undefined {
  if (key === ALL_LINES) return mergeVoices(lines.map(({ voice }) => voice));
  return lines.find((line) => line.key === key)?.voice;
}

/** Measures that fit on a line or two; what is longer is offered in phrases. */
const LONG = 16;

export function firstChoice(piece: Piece, fileName: string): LineChoice {
  const lines = linesOf(piece);
  const usual = piece.parts.map((part) => usualVoice(part)).find((voice) => voice && soundsIn(voice) > 0);
  const line = lines.find(({ voice }) => voice === usual) ?? lines[0];
  const numbers = line ? numbersOf(line.voice) : [1];
  return {
    title: (piece.title || fileName.replace(/\.[^.]*$/, '')).slice(0, LONGEST_TITLE),
    line: line?.key ?? '',
    extent: numbers.length > LONG ? 'phrases' : 'all',
    from: numbers.find((number) => number > 0) ?? 1,
    to: numbers.at(-1)!,
    labels: 'own',
  };
}

/** As the contract has it. */
const LONGEST_TITLE = 60;

const clipped = (title: string, ending: string) => `${title.slice(0, LONGEST_TITLE - ending.length).trim()}${ending}`;

/** The patterns that a choice makes of a voice. */
export function offersOf(voice: RawVoice, { title, extent, from, to, labels }: LineChoice, naming: NamingId): Offer[] {
  const numbers = numbersOf(voice);
  const offer = (name: string, range: { from?: number; to?: number }): Offer => {
    const built = buildPattern(voice, { labels, ...range });
    if (!built.ok) return { title: name, text: '', trouble: built.trouble };
    return { title: name, ...offerOfText(printRhythm(built.pattern), naming) };
  };
  if (extent === 'measures') return [offer(clipped(title, `, ${from}–${to}`), { from, to })];
  if (extent === 'all') return [offer(title, {})];
  return phrasesOf(voice.measures, numbers).map((phrase) =>
    offer(clipped(title, `, ${phrase.from}–${phrase.to}`), phrase),
  );
}

/** A text that the teacher may have mended, and what is still wrong with it. */
export function offerOfText(text: string, naming: NamingId): Omit<Offer, 'title'> {
  const parsed = parseRhythm(text);
  if (!parsed.ok) return { text, trouble: errorSentence(parsed.at) };
  const trouble = barCheck(parsed.pattern).flatMap((bar) => barTroubleText(bar, naming) ?? [])[0];
  return { text, pattern: parsed.pattern, ...(trouble === undefined ? {} : { trouble }) };
}

/** What the chosen line does not have of its file, in words. */
export function leftOutWords(piece: Piece, lines: readonly Line[], voice: RawVoice, labels: Labels): string[] {
  const chosen = lines.find((line) => line.voice === voice);
  const others = chosen ? lines.length - 1 : 0;
  const built = buildPattern(voice, { labels });
  const leftOut = leftOutOf(piece, built.ok ? built.leftOut : voice.leftOut);
  const wrong = built.ok ? built.troubles.map(({ number, trouble }) => `measure ${number}: ${trouble}`) : [];
  return [...leftOutList(leftOut, { parts: others, voices: 0 }), ...wrong];
}

/** The offers, with the texts that the teacher mended in their places. */
export function offersAsMended(
  offers: readonly Offer[],
  { mended }: Pick<Brought, 'mended'>,
  naming: NamingId,
): Offer[] {
  return offers.map((offer, i) =>
    mended[i] === undefined ? offer : { title: offer.title, ...offerOfText(mended[i], naming) },
  );
}
