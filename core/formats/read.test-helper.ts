import { printRhythm } from '../rhythm/text.ts';
import { type PatternChoice, buildPattern } from './buildPattern.ts';
import { findVoice, leftOutOf, usualVoice } from './choosing.ts';
import type { LeftOut, ReadFile } from './piece.ts';

/** What a file was read as: the text of the chosen voice, or why there is none. */
export interface ReadBack {
  readonly text: string;
  readonly leftOut: LeftOut;
  readonly troubles: readonly string[];
}

/** @param place  which piece, part and voice, from 0 */
export function readBack(
  read: ReadFile,
  choice: PatternChoice = {},
  place: { piece?: number; part?: number; voice?: string } = {},
): ReadBack {
  if (!read.ok) return { text: read.trouble, leftOut: {}, troubles: [] };
  const piece = read.pieces[place.piece ?? 0]!;
  const part = piece.parts[place.part ?? 0];
  if (!part)
    return {
      text: piece.played?.some(({ free }) => free) ? 'performed' : 'no part',
      leftOut: piece.leftOut,
      troubles: [],
    };
  const voice = place.voice === undefined ? usualVoice(part)! : findVoice(part, place.voice)!;
  const built = buildPattern(voice, choice);
  if (!built.ok) return { text: built.trouble, leftOut: {}, troubles: [] };
  return {
    text: printRhythm(built.pattern),
    leftOut: leftOutOf(piece, built.leftOut),
    troubles: built.troubles.map(({ number, trouble }) => `${number}: ${trouble}`),
  };
}
