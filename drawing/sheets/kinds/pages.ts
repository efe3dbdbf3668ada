import { counted, perLanguage, t } from '../../../core/words/say.ts';
import { toNumber } from '../../../core/rhythm/fraction.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { VALUES, lengthOf } from '../../../core/rhythm/value.ts';
import type { PaperId } from '../../../core/sheets/sheet.ts';
import type { QuestionOf } from '../../../core/sheets/sheetQuestion.ts';
import { SHEET_WORDS, WHOLE_CM, countsOf } from '../../../core/wording/sheetWords.ts';
import { measureName, valueName } from '../../../core/wording/valueNames.ts';
import { fitted, wrapped } from '../../lettering.ts';
import type { WrittenText } from '../../pdfPen.ts';
import type { Shape } from '../../strokes.ts';
import { type Block, GREY, box, extent, filledBox, line, moved, movedTexts, ring } from '../block.ts';
import type { SheetInk } from '../drawQuestion.ts';
import { CM, MARGIN, type Page, onItsSide, upright } from '../paper.ts';
import { scoreBlock } from '../score.ts';

/** A page with one drawing on it, as large as the page. */
function drawnPage(
  { width, height }: { width: number; height: number },
  alt: string,
  shapes: readonly Shape[],
  texts: readonly WrittenText[],
  more: Pick<Page, 'front'> = {},
): Page {
  const block: Block = { tag: 'Figure', alt, width, height, shapes, texts };
  return { width, height, blocks: [{ block, x: 0, y: 0, by: 1 }], ...more };
}

const STRIP_HEIGHT = 1.5 * CM;
/** Paper of the second colour, for a second sound. */
const SECOND = '#dcdcdc';
const RULER_CM = 10;

/** A line that shows whether the printer has kept to the size. */
function rulerMark(x: number, y: number): { shapes: Shape[]; texts: WrittenText[] } {
  const ticks = Array.from({ length: RULER_CM + 1 }, (_, cm) =>
    line(x + cm * CM, y, x + cm * CM, y - (cm % 5 === 0 ? 8 : 5), 0.7),
  );
  return {
    shapes: [line(x, y, x + RULER_CM * CM, y, 0.7), ...ticks],
    texts: [
      {
        text: t`This line is ${RULER_CM} cm long. If it is not, print without fitting to the page (100 %).`,
        x: x + RULER_CM * CM + 12,
        y,
        size: 9,
      },
    ],
  };
}

/**
 * Rows of strips, each a whole note long: cut them apart, lay them end to end. Twice where there is room, the second
 * grey.
 */
export function stripPages(rows: readonly QuestionOf<'strips'>[], ink: SheetInk, paper: PaperId): Page[] {
  const page = onItsSide(paper);
  const whole = WHOLE_CM * CM;
  const left = (page.width - whole) / 2;
  const most = Math.floor((page.height - 2 * MARGIN - 40) / STRIP_HEIGHT);
  const sets = Math.max(1, Math.min(2, Math.floor(most / rows.length)));
  const shapes: Shape[] = [];
  const texts: WrittenText[] = [];
  Array.from({ length: sets }, () => rows)
    .flat()
    .slice(0, most)
    .forEach(({ value, many }, nth) => {
      const top = MARGIN + nth * STRIP_HEIGHT;
      const width = toNumber(lengthOf(value)) * whole;
      const name = valueName(value, ink.voice.naming);
      const size = fitted(ink.fonts.letters, name, 11, width - 6);
      for (let i = 0; i < many; i++) {
        const x = left + i * width;
        if (nth >= rows.length) shapes.push(filledBox(x, top, width, STRIP_HEIGHT, SECOND));
        shapes.push(box(x, top, width, STRIP_HEIGHT, 0.6));
        texts.push({ text: name, x: x + width / 2, y: top + STRIP_HEIGHT / 2 + 4, size, align: 'middle' });
      }
    });
  const mark = rulerMark(left, page.height - MARGIN);
  return [drawnPage(page, SHEET_WORDS().strips.task, [...shapes, ...mark.shapes], [...texts, ...mark.texts])];
}

/** Nothing is printed so near to where the sheet is folded; and so far boxes end before it, as at the edges. */
export const FOLD_CLEAR = 0.2 * CM;
const BOX_CLEAR = 0.5 * CM;

/** A row for each fold: the sheet is folded in half across all of them, again and again. */
export function foldPages([first]: readonly QuestionOf<'fold'>[], ink: SheetInk, paper: PaperId): Page[] {
  const page = onItsSide(paper);
  const columns = 2 ** first!.folds;
  const column = page.width / columns;
  const row = (page.height - 2 * MARGIN) / (first!.folds + 1);
  const shapes: Shape[] = [];
  const texts: WrittenText[] = [];
  for (let folds = 0; folds <= first!.folds; folds++) {
    const top = MARGIN + folds * row + 6;
    const bottom = MARGIN + (folds + 1) * row - 6;
    const parts = 2 ** folds;
    for (let c = 0; c < columns; c++) {
      // All boxes of a row are as wide as each other: printers reach no nearer to the edges of the paper.
      const [opens, closes] = [c % (columns / parts) === 0, (c + 1) % (columns / parts) === 0];
      const from = c * column + (opens ? BOX_CLEAR : FOLD_CLEAR);
      const to = (c + 1) * column - (closes ? BOX_CLEAR : FOLD_CLEAR);
      shapes.push(line(from, top, to, top, 1), line(from, bottom, to, bottom, 1));
      if (opens) shapes.push(line(from, top, from, bottom, 1));
      if (closes) shapes.push(line(to, top, to, bottom, 1));
    }
    for (let part = 0; part < parts; part++) {
      const at = (part * page.width) / parts;
      const [from, to] = [at + BOX_CLEAR, at + column - (parts === columns ? BOX_CLEAR : FOLD_CLEAR)];
      const label = valueName({ base: VALUES[folds]!.letter, dots: 0 }, ink.voice.naming);
      const size = fitted(ink.fonts.letters, label, 13, to - from - 8);
      texts.push({ text: label, x: from + 4, y: top + 18, size });
    }
  }
  return [drawnPage(page, SHEET_WORDS().fold.task, shapes, texts)];
}

const GRIDS = { measures: { columns: 2, rows: 4 }, cells: { columns: 3, rows: 5 } } as const;

interface Card {
  readonly pattern: Pattern;
  readonly number: number;
}

/** Cards in rows and columns that are cut on straight lines through the whole page; backs mirrored, for both sides. */
export function cardPages(
  cards: readonly QuestionOf<'cards'>[],
  ink: SheetInk,
  paper: PaperId,
  grid: 'cells' | 'measures',
): Page[] {
  const page = upright(paper);
  const { columns, rows } = GRIDS[grid];
  const [width, height] = [page.width / columns, page.height / rows];
  const perPage = columns * rows;
  // All backs of one size.
  const longest = Math.max(...cards.map(({ pattern }) => countsOf(pattern, ink.voice.counts).length));
  const backSize = longest > 16 ? 20 : 28;
  const pages: Page[] = [];
  for (let from = 0; from < cards.length; from += perPage) {
    const some = cards.slice(from, from + perPage).map(({ pattern }, i): Card => ({ pattern, number: from + i + 1 }));
    const [front, back] = [0, 1].map(() => ({ shapes: [] as Shape[], texts: [] as WrittenText[] }));
    front!.shapes.push(...cutLines(page, columns, rows));
    for (const side of [front!, back!]) side.shapes.push(...cutMarks(page, columns, rows));
    some.forEach((card, i) => {
      const [c, r] = [i % columns, Math.floor(i / columns)];
      put(front!, cardFront(card, ink, width, height), c * width, r * height);
      put(back!, cardBack(card, ink, { width, height, size: backSize }), (columns - 1 - c) * width, r * height);
    });
    pages.push(drawnPage(page, SHEET_WORDS().cards.task, front!.shapes, front!.texts, { front: true }));
    pages.push(drawnPage(page, t`The backs of the cards`, back!.shapes, back!.texts));
  }
  return [...pages, ...testPages(page)];
}

interface Sheetful {
  readonly shapes: Shape[];
  readonly texts: WrittenText[];
}

function put(onto: Sheetful, { shapes, texts }: Pick<Block, 'shapes' | 'texts'>, x: number, y: number): void {
  onto.shapes.push(...moved(shapes, x, y));
  onto.texts.push(...movedTexts(texts, x, y));
}

/** From edge to edge of the paper, so that a guillotine needs nothing else. */
function cutLines({ width, height }: { width: number; height: number }, columns: number, rows: number): Shape[] {
  const down = Array.from({ length: columns - 1 }, (_, i) => {
    const x = ((i + 1) * width) / columns;
    return line(x, 0, x, height, 0.5, GREY);
  });
  const across = Array.from({ length: rows - 1 }, (_, i) => {
    const y = ((i + 1) * height) / rows;
    return line(0, y, width, y, 0.5, GREY);
  });
  return [...down, ...across];
}

/** Half the length of a mark where two cuts meet. */
const MARK = 5;

/** Crosses where cuts meet, on both sides at the same places: either side shows whether they are in register. */
function cutMarks({ width, height }: { width: number; height: number }, columns: number, rows: number): Shape[] {
  const inside = (size: number, parts: number) => Array.from({ length: parts - 1 }, (_, i) => ((i + 1) * size) / parts);
  const [xs, ys] = [inside(width, columns), inside(height, rows)];
  return xs.flatMap((x) => ys.flatMap((y) => [line(x - MARK, y, x + MARK, y, 1), line(x, y - MARK, x, y + MARK, 1)]));
}

const CARD_NOTES = 1.15;
/** Room above and below the notes of a card, for its number. */
const CARD_NUMBER = 56;

function cardFront(
  { pattern, number }: Card,
  ink: SheetInk,
  width: number,
  height: number,
): Pick<Block, 'shapes' | 'texts'> {
  const room = width - 2 * MARGIN + 8;
  const isCell = pattern.measures[0]!.meter.upper < 3;
  const score = scoreBlock(pattern, ink, {
    width: room / CARD_NOTES,
    alt: '',
    without: { meter: isCell, end: isCell },
    close: isCell,
  });
  // Long measures are drawn smaller: a card is no wider for them.
  const by = Math.min(CARD_NOTES, room / extent(score.shapes).right, (height - CARD_NUMBER) / score.height);
  const y = (height - score.height * by) / 2;
  return {
    shapes: moved(score.shapes, MARGIN - 4, y, by),
    texts: [{ text: String(number), x: width / 2, y: height - 14, size: 8, align: 'middle' }],
  };
}

function cardBack(
  { pattern, number }: Card,
  ink: SheetInk,
  { width, height, size }: { readonly width: number; readonly height: number; readonly size: number },
): Pick<Block, 'shapes' | 'texts'> {
  const counts = countsOf(pattern, ink.voice.counts);
  const lines = wrapped(ink.fonts.strong, counts, size, width - 2 * MARGIN);
  const top = height / 2 - ((lines.length - 1) * size * 1.3) / 2 + size / 3;
  return {
    shapes: [],
    texts: [
      ...lines.map((text, i): WrittenText => ({
        text,
        x: width / 2,
        y: top + i * size * 1.3,
        size,
        strong: true,
        align: 'middle',
      })),
      { text: String(number), x: width / 2, y: height - 14, size: 8, align: 'middle' },
    ],
  };
}

/** A leaf to try both sides with: held against the light, each cross must stand in its ring. */
function testPages(page: { width: number; height: number }): Page[] {
  const places = [0.2, 0.5, 0.8].flatMap((x) => [0.25, 0.75].map((y) => [x * page.width, y * page.height] as const));
  const crosses = places.flatMap(([x, y]) => [line(x - 9, y, x + 9, y, 1), line(x, y - 9, x, y + 9, 1)]);
  const rings = places.map(([x, y]) => ring(page.width - x, y, 9, 9, 1));
  const says = (text: string, down: number): WrittenText => ({
    text,
    x: page.width / 2,
    y: page.height / 2 + down,
    size: 12,
    align: 'middle',
  });
  const front = [
    says(t`A leaf to try the printer with: print both sides, turned on the long edge.`, 0),
    says(t`Against the light every cross must stand in a ring. Then print the cards the same way.`, 18),
  ];
  return [
    drawnPage(page, t`Crosses, to try both sides of a leaf`, crosses, front, { front: true }),
    drawnPage(page, t`Rings, to try both sides of a leaf`, rings, [says(t`The back of the leaf to try.`, 0)]),
  ];
}

const DAYS = perLanguage(() => [t`Mon`, t`Tue`, t`Wed`, t`Thu`, t`Fri`, t`Sat`, t`Sun`] as const);
const SLIPS_A_PAGE = 2;
/** Where the notes of a slip begin, and what the days need under them. */
const SLIP_NOTES = 60;
const SLIP_DAYS = 46;

/** Slips to take home, two on a page: the name, the notes with their counts, a box for each day. */
export function slipPages(
  slips: readonly QuestionOf<'slip'>[],
  ink: SheetInk,
  paper: PaperId,
  { names, bpm }: { readonly names: readonly string[]; readonly bpm: number },
): Page[] {
  const page = upright(paper);
  // Without names there is one for each half of a page.
  const who = names.length > 0 ? names : Array.from({ length: SLIPS_A_PAGE }, () => '');
  const all = slips.flatMap((slip) => who.map((name) => ({ slip, name })));
  const height = page.height / SLIPS_A_PAGE;
  const pages: Page[] = [];
  for (let from = 0; from < all.length; from += SLIPS_A_PAGE) {
    const onPage: Sheetful = { shapes: [line(0, height, page.width, height, 0.5, GREY)], texts: [] };
    all.slice(from, from + SLIPS_A_PAGE).forEach(({ slip, name }, i) => {
      const room = { width: page.width - 2 * MARGIN, height: height - 2 * MARGIN, bpm };
      put(onPage, slipBlock(slip.pattern, name, ink, room), MARGIN, i * height + MARGIN);
    });
    pages.push(drawnPage(page, SHEET_WORDS().slip.task, onPage.shapes, onPage.texts));
  }
  return pages;
}

function slipBlock(
  pattern: Pattern,
  name: string,
  ink: SheetInk,
  { width, height, bpm }: { readonly width: number; readonly height: number; readonly bpm: number },
): Pick<Block, 'shapes' | 'texts'> {
  const score = scoreBlock(pattern, ink, { width, counts: ink.voice.counts, show: 'counts', alt: '' });
  const nameLine = name === '' ? [line(52, 16, width * 0.6, 16, 0.6)] : [];
  // What is too high for its half of the page is drawn smaller.
  const by = Math.min(1, (height - SLIP_NOTES - SLIP_DAYS) / score.height);
  const days = SLIP_NOTES + score.height * by + 30;
  const step = width / DAYS().length;
  const count = pattern.measures.length;
  const [measure, measures] = [measureName(ink.voice.naming), measureName(ink.voice.naming, true)];
  return {
    shapes: [
      ...nameLine,
      ...moved(score.shapes, 0, SLIP_NOTES, by),
      ...DAYS().map((_, i) => box(i * step, days, 14, 14, 0.9)),
    ],
    texts: [
      { text: name === '' ? t`Name` : name, x: 0, y: 14, size: name === '' ? 12 : 16, strong: name !== '' },
      {
        text: t`Say the counts, then clap. ${counted(count, measure, measures)}, ${bpm} beats a
          minute. Tick the day.`,
        x: 0,
        y: 40,
        size: 11,
      },
      ...movedTexts(score.texts, 0, SLIP_NOTES, by),
      ...DAYS().map((day, i): WrittenText => ({ text: day, x: i * step + 20, y: days + 11, size: 11 })),
    ],
  };
}
