import { type CountedMeasure, countPattern } from '../core/counting/count.ts';
import { placePattern } from '../core/rhythm/place.ts';
import { type Score, leadingPart } from '../core/rhythm/score.ts';
import { engraveOn } from './engraving/engrave.ts';
import type { Fonts } from './fonts.ts';
import { COUNTS_HEIGHTS, MARKS_HEIGHTS, NOTES_HEIGHTS } from './heights.ts';
import { type Spacing, layoutRuler } from './layout.ts';
import {
  PICTURE_WIDTH,
  type Picture,
  type PictureLine,
  type PictureOptions,
  type PictureText,
  countsOf,
  lettersOf,
  marksOf,
} from './picture.ts';
import { type RulerSystem, withPlaced } from './system.ts';
import { Strokes, measureWith } from './strokes.ts';

const SIZE = 'desk';
/** On paper things stand nearer to each other than on a screen. */
const SPACING: Spacing = { closest: 19, letter: 9, leastWhole: 96 };
/** Of the name of a part, pixels; so much of it stands before the meter. */
const NAME_SIZE = 13;
const NAME_LETTERS = 9;
/** The line of notes, from the top of their lane. */
const NAME_DOWN = 74;

/** A part as it is drawn. */
interface Row {
  readonly name: string;
  readonly placed: ReturnType<typeof placePattern>;
  readonly words: readonly CountedMeasure[] | undefined;
}

/**
 * Draws several parts on paper: a line of notes each, one under the other on one axis of time, so that what sounds
 * together stands together, with bar lines through all and the counts of each part under it.
 */
export function drawScore(score: Score, fonts: Fonts, { title = '', counts }: PictureOptions = {}): Picture {
  measureWith(fonts);
  const rows = score.parts.map(({ name, pattern }): Row => {
    const counted = counts && countPattern(pattern, counts);
    return { name, placed: placePattern(pattern), words: counted?.ok ? counted.measures : undefined };
  });
  const { pattern } = leadingPart(score);
  const beside = rows.map(({ placed, words }) => ({ placed, tokens: lettersOf(placed, words) }));
  const { systems, scale } = layoutRuler(pattern, PICTURE_WIDTH, SIZE, [], SPACING, beside);
  const marked = pattern.measures.some(({ number, letter }) => number !== undefined || letter !== undefined);
  return {
    title,
    width: PICTURE_WIDTH,
    lines: systems.map((system) => lineOf(system, rows, { fonts, scale, marked })),
  };
}

function lineOf(
  system: RulerSystem,
  rows: readonly Row[],
  { fonts, scale, marked }: { readonly fonts: Fonts; readonly scale: number; readonly marked: boolean },
): PictureLine {
  const over = marked ? MARKS_HEIGHTS[SIZE] : 0;
  const texts: PictureText[] = marked ? marksOf(system) : [];
  const shapes: PictureLine['shapes'][number][] = [];
  let top = over;
  const heights = rows.map(({ words }) => NOTES_HEIGHTS[SIZE] + (words ? COUNTS_HEIGHTS[SIZE] : 0));
  const through = heights.slice(0, -1).reduce((sum, height) => sum + height, 0);
  rows.forEach(({ name, placed, words }, i) => {
    const own = withPlaced(system, placed, { scale, size: SIZE });
    const context = new Strokes(fonts, 0, top);
    engraveOn(context, own, SIZE, { labels: true, ...(i === 0 ? { barsDown: through } : {}) });
    shapes.push(...context.shapes);
    const short = name.length > NAME_LETTERS ? `${name.slice(0, NAME_LETTERS - 1)}…` : name;
    texts.push({ text: short, x: 0, y: top + NAME_DOWN, size: NAME_SIZE, middle: false });
    if (words) texts.push(...countsOf(own, words, top + NOTES_HEIGHTS[SIZE]));
    top += heights[i]!;
  });
  return { height: top, shapes, texts };
}
