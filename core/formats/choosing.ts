import { type BuiltPattern, type PatternChoice, buildPattern } from './buildPattern.ts';
import type { LeftOut, Piece, RawMeasure, RawPart, RawVoice } from './piece.ts';

/** A part of a file, wherever its piece is. */
export interface FoundPart {
  readonly piece: Piece;
  readonly part: RawPart;
}

/** How many sounds a voice has. */
export function soundsIn({ measures }: RawVoice): number {
  return measures.reduce((sounds, { events }) => sounds + events.filter(({ kind }) => kind === 'note').length, 0);
}

/** All parts of a file, in order. */
export function partsOf(pieces: readonly Piece[]): FoundPart[] {
  return pieces.flatMap((piece) => piece.parts.map((part) => ({ piece, part })));
}

/** A part by its place (from 1), its id or its name. */
export function findPart(parts: readonly FoundPart[], wanted: string): FoundPart | undefined {
  const name = wanted.trim().toLowerCase();
  return (
    (/^\d+$/.test(name) ? parts[Number(name) - 1] : undefined) ??
    parts.find(({ part }) => part.id.toLowerCase() === name) ??
    parts.find(({ part }) => part.name.toLowerCase() === name) ??
    parts.find(({ piece }) => piece.title.toLowerCase() === name)
  );
}

/** A voice by its id as the file has it, else by its place (from 1). */
export function findVoice({ voices }: RawPart, wanted: string): RawVoice | undefined {
  return (
    voices.find(({ id }) => id === wanted.trim()) ??
    (/^\d+$/.test(wanted.trim()) ? voices[Number(wanted) - 1] : undefined)
  );
}

/** The first part, and the first voice in it, that sound at all. */
export function usualPart(parts: readonly FoundPart[]): FoundPart | undefined {
  return parts.find(({ part }) => part.voices.some((voice) => soundsIn(voice) > 0)) ?? parts[0];
}

export function usualVoice({ voices }: RawPart): RawVoice | undefined {
  return voices.find((voice) => soundsIn(voice) > 0) ?? voices[0];
}

/** What was left out of a voice and of its piece. */
export function leftOutOf({ leftOut }: Piece, voice: LeftOut): LeftOut {
  const all: Record<string, number> = { ...leftOut };
  for (const [kind, count] of Object.entries(voice)) all[kind] = (all[kind] ?? 0) + count;
  return all;
}

/** A voice of a piece as a pattern, with all that was left out of it. */
export function patternOfVoice(piece: Piece, voice: RawVoice, choice: PatternChoice = {}): BuiltPattern {
  const built = buildPattern(voice, choice);
  return built.ok ? { ...built, leftOut: leftOutOf(piece, built.leftOut) } : built;
}

/** Measures that make a phrase, where nothing else says where one ends. */
const PHRASE = 8;
const LEAST_PHRASE = 2;

/**
 * Where a long piece can be cut: before rehearsal letters, after repeats and after measures of rest; else every eight
 * measures.
 * @returns numbers on paper of the first and last measure of each phrase
 */
export function phrasesOf(measures: readonly RawMeasure[], numbers: readonly number[]): { from: number; to: number }[] {
  const phrases: { from: number; to: number }[] = [];
  let from = 0;
  for (let i = 0; i < measures.length; i++) {
    const next = measures[i + 1];
    const long = i - from + 1;
    const parts = next?.letter !== undefined || measures[i]!.repeatEnd !== undefined || next?.repeatStart === true;
    const ends = next === undefined || (parts && long >= LEAST_PHRASE) || long >= PHRASE;
    if (!ends) continue;
    phrases.push({ from: numbers[from]!, to: numbers[i]! });
    from = i + 1;
  }
  return phrases;
}
