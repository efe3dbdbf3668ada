import { type CountOptions, type CountedMeasure, countPattern } from '../core/counting/count.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import { engraveOn } from './engrave.ts';
import type { Fonts } from './fonts.ts';
import { COUNTS_HEIGHTS, MARKS_HEIGHTS, NOTES_HEIGHTS } from './heights.ts';
import { type RulerLayout, type RulerSystem, layoutRuler, xOf } from './layout.ts';
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
}

/** As wide as a sheet of A4 between its margins, at 96 pixels an inch. */
export const PICTURE_WIDTH = 680;
const SIZE = 'desk';
/** On the ruler the names of the lanes stand there; on paper there are none. */
export const NO_NAMES = 44;
export const COUNT_SIZE = 16;
const MARK_SIZE = 13;

/** How many letters each count has. */
const lettersOf = (counted: readonly CountedMeasure[]) =>
  counted.map(({ tokens }) => tokens.map(({ text }) => text.length));

/** Draws a pattern: the same notes as on the ruler, spaced by time, on paper. */
export function drawPattern(pattern: Pattern, fonts: Fonts, { title = '', counts }: PictureOptions = {}): Picture {
  measureWith(fonts);
  const counted = counts && countPattern(pattern, counts);
  const words = counted?.ok ? counted.measures : undefined;
  const layout = layoutRuler(pattern, PICTURE_WIDTH + NO_NAMES, SIZE, words && lettersOf(words));
  const marked = pattern.measures.some(({ number, letter }) => number !== undefined || letter !== undefined);
  return {
    title,
    width: PICTURE_WIDTH,
    lines: layout.systems.map((system) => lineOf(system, layout, fonts, words, marked)),
  };
}

function lineOf(
  system: RulerSystem,
  { scale }: RulerLayout,
  fonts: Fonts,
  words: readonly CountedMeasure[] | undefined,
  marked: boolean,
): PictureLine {
  const over = marked ? MARKS_HEIGHTS[SIZE] : 0;
  const context = new Strokes(fonts, -NO_NAMES, over);
  engraveOn(context, system, SIZE, scale);
  const under = over + NOTES_HEIGHTS[SIZE];
  const texts = [...(marked ? marksOf(system) : []), ...(words ? countsOf(system, scale, words, under) : [])];
  const moved = texts.map((text) => ({ ...text, x: text.x - NO_NAMES }));
  return { height: under + (words ? COUNTS_HEIGHTS[SIZE] : 0), shapes: context.shapes, texts: moved };
}

/** Letters and numbers of measures, at their bar lines. */
function marksOf({ measures }: RulerSystem): PictureText[] {
  return measures.flatMap(({ placed: { letter, number }, x }, i) => {
    const jumps = i === 0 || measures[i - 1]!.placed.number !== number - 1;
    const shown = [letter, jumps && number > 0 ? String(number) : undefined].filter((part) => part !== undefined);
    if (shown.length === 0) return [];
    return [{ text: shown.join('  '), x: x - MARK_SIZE / 2, y: MARK_SIZE + 3, size: MARK_SIZE, middle: false }];
  });
}

function countsOf(
  { measures }: RulerSystem,
  scale: number,
  words: readonly CountedMeasure[],
  top: number,
): PictureText[] {
  return measures.flatMap((measure) =>
    (words[measure.index]?.tokens ?? []).map(({ text }, k) => ({
      text,
      x: xOf(measure, measure.placed.events[k]!.onset, scale),
      y: top + COUNT_SIZE,
      size: COUNT_SIZE,
      middle: true,
    })),
  );
}
