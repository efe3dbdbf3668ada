import { type CountOptions, type CountedMeasure, countPattern } from '../core/counting/count.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import { type PlacedMeasure, placePattern } from '../core/rhythm/place.ts';
import { engraveOn } from './engraving/engrave.ts';
import type { Fonts } from './fonts.ts';
import { COUNTS_HEIGHTS, MARKS_HEIGHTS, NOTES_HEIGHTS } from './heights.ts';
import { layoutPaper } from './paperLayout.ts';
import type { RulerSystem } from './system.ts';
import { type Shape, Strokes, measureWith } from './strokes.ts';

/** Words of a picture; x is where they begin, or their middle. */
export interface PictureText {
  readonly text: string;
  readonly x: number;
  /** Of the baseline. */
  readonly y: number;
  readonly size: number;
  readonly middle: boolean;
}

/** One line of notes with what stands over and under it; heights from its own top, pixels. */
export interface PictureLine {
  readonly height: number;
  readonly shapes: readonly Shape[];
  readonly texts: readonly PictureText[];
}

/** A pattern as it is printed: lines one under the other. */
export interface Picture {
  readonly title: string;
  readonly width: number;
  readonly lines: readonly PictureLine[];
}

export interface PictureOptions {
  readonly title?: string;
  readonly counts?: CountOptions;
  /** Several measures of rest one by one, not as one sign with their number. */
  readonly eachRest?: boolean;
}

/** As wide as a sheet of A4 between its margins, at 96 pixels an inch. */
export const PICTURE_WIDTH = 680;
const SIZE = 'desk';
/** In front of the first beat: the meter sign. */
export const BEFORE = 60;
/** Pixels of a letter of a count. */
const LETTER = 10;
export const COUNT_SIZE = 16;
const MARK_SIZE = 13;

/** How many letters stand over or under each note or rest: of its label, of its count. */
export function lettersOf(placed: readonly PlacedMeasure[], words: readonly CountedMeasure[] | undefined): number[][] {
  return placed.map(({ events }, m) =>
    events.map(({ label }, k) => Math.max(label?.length ?? 0, words?.[m]?.tokens[k]?.text.length ?? 0)),
  );
}

/** Draws a pattern on paper: the same notes as on the ruler, as an engraver spaces them. */
export function drawPattern(
  pattern: Pattern,
  fonts: Fonts,
  { title = '', counts, eachRest }: PictureOptions = {},
): Picture {
  measureWith(fonts);
  const counted = counts && countPattern(pattern, counts);
  const words = counted?.ok ? counted.measures : undefined;
  const room = { size: SIZE, width: PICTURE_WIDTH, before: BEFORE, letter: LETTER, eachRest } as const;
  const systems = layoutPaper(pattern, { ...room, letters: lettersOf(placePattern(pattern), words) });
  const marked = pattern.measures.some(({ number, letter }) => number !== undefined || letter !== undefined);
  return {
    title,
    width: PICTURE_WIDTH,
    lines: systems.map((system) => lineOf(system, fonts, words, marked)),
  };
}

function lineOf(
  system: RulerSystem,
  fonts: Fonts,
  words: readonly CountedMeasure[] | undefined,
  marked: boolean,
): PictureLine {
  const over = marked ? MARKS_HEIGHTS[SIZE] : 0;
  const context = new Strokes(fonts, 0, over);
  engraveOn(context, system, SIZE, { labels: true });
  const under = over + NOTES_HEIGHTS[SIZE];
  const texts = [...(marked ? marksOf(system) : []), ...(words ? countsOf(system, words, under) : [])];
  return { height: under + (words ? COUNTS_HEIGHTS[SIZE] : 0), shapes: context.shapes, texts };
}

/** Letters and numbers of measures, at their bar lines. */
export function marksOf({ measures }: RulerSystem): PictureText[] {
  return measures.flatMap(({ placed: { letter, number }, x }, i) => {
    const jumps = i === 0 || measures[i - 1]!.placed.number !== number - 1;
    const shown = [letter, jumps && number > 0 ? String(number) : undefined].filter((part) => part !== undefined);
    if (shown.length === 0) return [];
    return [{ text: shown.join('  '), x: x - MARK_SIZE / 2, y: MARK_SIZE + 3, size: MARK_SIZE, middle: false }];
  });
}

/** Counts under their notes; `top` is where they begin, pixels. */
export function countsOf({ measures }: RulerSystem, words: readonly CountedMeasure[], top: number): PictureText[] {
  return measures.flatMap(({ index, xs, rests }) =>
    (rests === undefined ? (words[index]?.tokens ?? []) : []).map(({ text }, k) => ({
      text,
      x: xs[k]!,
      y: top + COUNT_SIZE,
      size: COUNT_SIZE,
      middle: true,
    })),
  );
}
