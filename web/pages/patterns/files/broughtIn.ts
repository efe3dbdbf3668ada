import { t } from '../../../../core/words/say.ts';
import { type Labels, buildPattern, numbersOf } from '../../../../core/formats/buildPattern.ts';
import { leftOutOf, phrasesOf, soundsIn, usualVoice } from '../../../../core/formats/choosing.ts';
import { mergeVoices } from '../../../../core/formats/mergeVoices.ts';
import type { Piece, RawVoice } from '../../../../core/formats/piece.ts';
import { mayBeScore, scoreOfPiece } from '../../../../core/formats/scoreOfPiece.ts';
import { type Score, checkParts } from '../../../../core/rhythm/score.ts';
import { parseScore, printScore } from '../../../../core/rhythm/scoreText.ts';
import { errorSentence, printRhythm } from '../../../../core/rhythm/text.ts';
import { leftOutList } from '../../../../core/wording/leftOutWords.ts';
import { partBarTrouble } from '../../../../core/wording/partTroubles.ts';
import type { NamingId } from '../../../../core/wording/valueNames.ts';

/**
 * Which line of a piece is taken: the index of a part and the id of a voice in it, all of them as one rhythm, or all
 * as parts of one pattern.
 */
export const ALL_LINES = 'all';
export const EACH_PART = 'parts';

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
  readonly score?: Score;
  readonly trouble?: string;
}

/** Everything of a piece that sounds; one voice of a part has the name of the part alone. */
export function linesOf({ parts }: Piece): Line[] {
  return parts.flatMap(({ name, voices }, i) => {
    const sounding = voices.filter((voice) => soundsIn(voice) > 0);
    const shown = sounding.length > 0 ? sounding : voices.slice(0, 1);
    return shown.map((voice) => ({
      key: `${i} ${voice.id}`,
      name: shown.length > 1 ? t`${name}, voice ${voice.id}` : name,
      voice,
    }));
  });
}

/** The line that is chosen, or all of them as one. */
export function voiceOf(lines: readonly Line[], key: string): RawVoice | undefined {
  // All parts have the same measures: the first says how they are numbered.
  if (key === EACH_PART) return lines[0]?.voice;
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
    line: hasParts(piece) ? EACH_PART : (line?.key ?? ''),
    extent: numbers.length > LONG ? 'phrases' : 'all',
    from: numbers.find((number) => number > 0) ?? 1,
    to: numbers.at(-1)!,
    labels: 'own',
  };
}

/** It has two to four parts that are one pattern together. */
export function hasParts(piece: Piece): boolean {
  return mayBeScore(piece) && scoreOfPiece(piece).ok;
}

/** As the contract has it. */
const LONGEST_TITLE = 60;

const clipped = (title: string, ending: string) => `${title.slice(0, LONGEST_TITLE - ending.length).trim()}${ending}`;

/** The patterns that a choice makes of a voice, or of all parts of its piece. */
export function offersOf(piece: Piece, voice: RawVoice, choice: LineChoice, naming: NamingId): Offer[] {
  const { title, line, extent, from, to, labels } = choice;
  const numbers = numbersOf(voice);
  const offer = (name: string, range: { from?: number; to?: number }): Offer => {
    const cut = { labels, ...range };
    const built = line === EACH_PART ? scoreOfPiece(piece, cut) : buildPattern(voice, cut);
    if (!built.ok) return { title: name, text: '', trouble: built.trouble };
    const text = 'score' in built ? printScore(built.score) : printRhythm(built.pattern);
    return { title: name, ...offerOfText(text, naming) };
  };
  if (extent === 'measures') return [offer(clipped(title, `, ${from}–${to}`), { from, to })];
  if (extent === 'all') return [offer(title, {})];
  return phrasesOf(voice.measures, numbers).map((phrase) =>
    offer(clipped(title, `, ${phrase.from}–${phrase.to}`), phrase),
  );
}

/** A text that the teacher may have mended, and what is still wrong with it. */
export function offerOfText(text: string, naming: NamingId): Omit<Offer, 'title'> {
  const parsed = parseScore(text);
  if (!parsed.ok) return { text, trouble: errorSentence(parsed.at) };
  const trouble = checkParts(parsed.score).flatMap((bar) => partBarTrouble(bar, naming) ?? [])[0];
  return { text, score: parsed.score, ...(trouble === undefined ? {} : { trouble }) };
}

/** What the chosen line does not have of its file, in words. */
export function leftOutWords(
  piece: Piece,
  lines: readonly Line[],
  voice: RawVoice,
  { labels, line }: Pick<LineChoice, 'labels' | 'line'>,
): string[] {
  if (line === EACH_PART) {
    const whole = scoreOfPiece(piece, { labels });
    if (!whole.ok) return [];
    const voices = lines.length - whole.score.parts.length;
    const wrong = whole.troubles.map(({ part, number, trouble }) => t`${part}, measure ${number}: ${trouble}`);
    return [...leftOutList(whole.leftOut, { parts: 0, voices }), ...wrong];
  }
  const chosen = lines.find((line) => line.voice === voice);
  const others = chosen ? lines.length - 1 : 0;
  const built = buildPattern(voice, { labels });
  const leftOut = leftOutOf(piece, built.ok ? built.leftOut : voice.leftOut);
  const wrong = built.ok ? built.troubles.map(({ number, trouble }) => t`measure ${number}: ${trouble}`) : [];
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
