import { type CountOptions, type CountedMeasure, countPattern } from '../../core/counting/count.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import { LINE_Y, engraveOn } from '../engraving/engrave.ts';
import type { Omissions } from '../engraving/omissions.ts';
import { type Spacing, layoutRuler } from '../layout.ts';
import { BAR_BEFORE, type RulerMeasure, type RulerSystem, ZOOM, beatXs, withPlaced } from '../system.ts';
import { POINTS, type WrittenText } from '../pdfPen.ts';
import { BEFORE, COUNT_SIZE, lettersOf } from '../picture.ts';
import { layoutPaper, neededPixels } from '../paperLayout.ts';
import { Strokes, measureWith, type Shape } from '../strokes.ts';
import { type Block, type Ink, box, extent, line, moved } from './block.ts';

const SIZE = 'desk';
/** Under the notes to the baseline of the counts; and of a line they are written on. */
const COUNTS_DOWN = 17;
const BETWEEN_LINES = 8;
/** The counts of paper are a little larger than those of the ruler. */
const COUNT_POINTS = COUNT_SIZE * POINTS * 1.05;
/** The lines on which a child writes a count: as wide as this where there is room. */
const WIDEST_LINE = 26;

export interface ScoreOptions {
  /** Points to fill. */
  readonly width: number;
  /** Room is left for these under the notes. */
  readonly counts?: CountOptions | undefined;
  /** How they stand there: written, or as lines to write on. */
  readonly show?: 'counts' | 'lines' | undefined;
  readonly without?: Omissions | undefined;
  /** Where nothing stands before the first note. */
  readonly close?: boolean | undefined;
  /** Each note at its time, as on the ruler, where beats are marked or bar lines are looked for. */
  readonly byTime?: boolean | undefined;
  /** Several measures of rest one by one. */
  readonly eachRest?: boolean | undefined;
}

/** Paper is read from near: things stand closer than on a screen. */
const ON_PAPER: Spacing = { closest: 25, letter: 7.5, leastWhole: 150 };

/** In front of the first note when no meter stands there; and where the ruler has the names of its lanes. */
const CLOSE_BEFORE = 26;
const LANE_NAMES = 44;

/** Points a pattern of one line needs at least, without a meter in front of it. */
export function neededWidth(pattern: Pattern): number {
  return neededPixels(pattern, { size: SIZE, before: CLOSE_BEFORE }) * POINTS;
}

/** One line of notes, its heights as they are drawn: 0 is the top of the highest sign. */
export interface ScoreLine {
  readonly shapes: readonly Shape[];
  readonly height: number;
  /** Points from the left to each event of each measure on it. */
  readonly measures: readonly ScoreMeasure[];
  /** Where the line itself is. */
  readonly middle: number;
}

/** All in points from the left of the line. */
interface ScoreMeasure {
  readonly measure: RulerMeasure;
  /** The middle of each note and rest. */
  readonly xs: readonly number[];
  /** Its bar lines. */
  readonly from: number;
  readonly to: number;
  /** Its beats, where each note stands at its time. */
  readonly beats: readonly number[];
}

/** @param scale  pixels of a whole note, where each note stands at its time */
function drawLines(
  systems: readonly RulerSystem[],
  { ink, left, without, scale }: { ink: Ink; left: number; without: Omissions | undefined; scale?: number },
): ScoreLine[] {
  const at = (x: number) => (x - left) * POINTS;
  const bar = BAR_BEFORE * ZOOM[SIZE];
  return systems.map((system) => {
    const context = new Strokes(ink.fonts, 0, 0);
    engraveOn(context, system, SIZE, { without, labels: true });
    const raw = moved(context.shapes, -left * POINTS, 0, POINTS);
    // The line of the rhythm is there in any case, also where all notes are left out.
    const { top, bottom } = extent(raw);
    return {
      shapes: moved(raw, 0, -top),
      height: bottom - top,
      middle: LINE_AT * POINTS - top,
      measures: system.measures.map((measure) => ({
        measure,
        xs: measure.xs.map(at),
        from: at(measure.x - bar),
        to: at(measure.x + measure.width - bar),
        beats: scale === undefined ? [] : beatXs(measure, scale).map(({ x }) => at(x)),
      })),
    };
  });
}

/** Pixels from the top of the engraver's drawing to the line of the rhythm: its own units by its zoom. */
const LINE_AT = LINE_Y * ZOOM[SIZE];

/** Letters each count or label needs: half of it and half of the next stand between their notes, and over bar lines. */
function roomOf(pattern: Pattern, counted: readonly CountedMeasure[]): number[][] {
  const letters = lettersOf(placePattern(pattern), counted);
  return letters.map((measure, m) =>
    measure.map((own, i) => Math.max(own, (own + (measure[i + 1] ?? letters[m + 1]?.[0] ?? 0)) / 2)),
  );
}

/** The counts of a pattern; none where none are wanted, or a school has none for it. */
function wordsOf(pattern: Pattern, counts: CountOptions | undefined): readonly CountedMeasure[] {
  const counted = counts && countPattern(pattern, counts);
  return counted?.ok ? counted.measures : [];
}

/** The notes of a pattern, one line under the other. */
export function scoreLines(
  pattern: Pattern,
  ink: Ink,
  options: ScoreOptions,
  words = wordsOf(pattern, options.counts),
): ScoreLine[] {
  measureWith(ink.fonts);
  const letters = roomOf(pattern, words);
  const { without, eachRest } = options;
  const width = options.width / POINTS;
  if (options.byTime) {
    const { systems, scale } = layoutRuler(pattern, width + LANE_NAMES, SIZE, letters, ON_PAPER);
    return drawLines(systems, { ink, left: LANE_NAMES, without, scale });
  }
  const before = options.close ? CLOSE_BEFORE : BEFORE;
  const room = { size: SIZE, width, before, letters, letter: ON_PAPER.letter, eachRest } as const;
  return drawLines(layoutPaper(pattern, room), { ink, left: 0, without });
}

/**
 * The lines of two parts on one axis: what sounds together stands together.
 * @param without  what is left out of the lower one
 */
export function pairLines(
  upper: Pattern,
  lower: Pattern,
  ink: Ink,
  { width, without }: Pick<ScoreOptions, 'width' | 'without'>,
): { readonly upper: ScoreLine; readonly lower: ScoreLine }[] {
  measureWith(ink.fonts);
  const [above, below] = [placePattern(upper), placePattern(lower)];
  const room = width / POINTS + LANE_NAMES;
  const { systems, scale } = layoutRuler(upper, room, SIZE, [], ON_PAPER, [{ placed: below }]);
  const lines = (placed: typeof above, left: Omissions | undefined) =>
    drawLines(
      systems.map((system) => withPlaced(system, placed, { scale, size: SIZE })),
      { ink, left: LANE_NAMES, without: left, scale },
    );
  const lowers = lines(below, without);
  return lines(above, undefined).map((one, i) => ({ upper: one, lower: lowers[i]! }));
}

/** The counts under the notes of a line, or lines to write them on; y from the top of the notes. */
function underLine(
  { measures, height }: ScoreLine,
  words: readonly CountedMeasure[],
  show: ScoreOptions['show'],
): { shapes: Shape[]; texts: WrittenText[] } {
  const y = height + COUNTS_DOWN;
  const all = measures.flatMap(({ measure: { index, rests }, xs }) =>
    rests === undefined ? xs.map((x, i) => ({ x, text: words[index]?.tokens[i]?.text })) : [],
  );
  if (show === 'counts') {
    const texts = all.flatMap(({ x, text }): WrittenText[] =>
      text === undefined ? [] : [{ text, x, y, size: COUNT_POINTS, align: 'middle', strong: true }],
    );
    return { shapes: [], texts };
  }
  const shapes = all.map(({ x }, i) => {
    const next = all[i + 1]?.x ?? Infinity;
    const before = all[i - 1]?.x ?? -Infinity;
    const half = Math.min(WIDEST_LINE, next - x - 4, x - before - 4) / 2;
    return line(x - half, y + 3, x + half, y + 3, 0.6);
  });
  return { shapes, texts: [] };
}

/** A pattern as a block: its notes, and under them counts or lines to write on. */
export function scoreBlock(pattern: Pattern, ink: Ink, options: ScoreOptions & { readonly alt: string }): Block {
  const shapes: Shape[] = [];
  const texts: WrittenText[] = [];
  const words = wordsOf(pattern, options.counts);
  let y = 0;
  for (const score of scoreLines(pattern, ink, options, words)) {
    shapes.push(...moved(score.shapes, 0, y));
    let bottom = score.height;
    if (options.show) {
      const under = underLine(score, words, options.show);
      shapes.push(...moved(under.shapes, 0, y));
      texts.push(...under.texts.map((text) => ({ ...text, y: text.y + y })));
      bottom = score.height + COUNTS_DOWN + 5;
    }
    y += bottom + BETWEEN_LINES;
  }
  return { tag: 'Figure', alt: options.alt, width: options.width, height: y - BETWEEN_LINES, shapes, texts };
}

/** A box where a note is missing: one that is as wide for all of them. */
export function gapBox(x: number, middle: number): Shape {
  return box(x - 12, middle - 30, 24, 40, 1);
}
