import { counted, t } from '../../core/words/say.ts';
import { countIn } from '../../core/leading/countIn.ts';
import type { MadePart, MadeSheet, Sheet } from '../../core/sheets/sheet.ts';
import { pointsOf } from '../../core/sheets/sheetKinds.ts';
import type { QuestionOf, SheetKind, SheetQuestion } from '../../core/sheets/sheetQuestion.ts';
import { OPTION_LETTERS } from '../../core/wording/earWords.ts';
import { SHEET_WORDS, sheetQuestionWords } from '../../core/wording/sheetWords.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { inNaming } from '../../core/wording/valueNames.ts';
import type { Fonts } from '../fonts.ts';
import { fitted, wrapped } from '../lettering.ts';
import type { WrittenText } from '../pdfPen.ts';
import { type Block, box, line, moved, movedTexts } from './block.ts';
import type { DrawQuestion, SheetInk } from './drawQuestion.ts';
import { cardPages, foldPages, slipPages, stripPages } from './kinds/pages.ts';
import {
  drawBarLines,
  drawChoose,
  drawClapped,
  drawComplete,
  drawCounts,
  drawWrite,
  drawMissingPart,
  drawWrongMeasure,
} from './kinds/rhythms.ts';
import { drawCircle, drawDraw, drawNameSign, drawStems } from './kinds/signs.ts';
import { drawHowMany, drawSums, drawTrueFalse } from './kinds/values.ts';
import { Flow, paragraph, textBlock } from './flow.ts';
import { MARGIN, type Page, upright } from './paper.ts';
import { sideBySide, stacked } from './twoToAPage.ts';

/** All that is printed together: the versions of a sheet, their keys, and a copy for each name. */
export interface SheetJob {
  readonly sheet: Sheet;
  readonly made: readonly MadeSheet[];
  readonly voice: Voice;
  /** A copy for each, the versions in turn. */
  readonly names?: readonly string[];
  /** The class it is for. */
  readonly className?: string;
}

/** Kinds that fill pages of their own. */
type PageKind = 'strips' | 'fold' | 'cards' | 'slip';
type LineKind = Exclude<SheetKind, PageKind>;

interface Drawing<Kind extends SheetKind> {
  readonly draw: DrawQuestion<Kind>;
  /** Questions stand beside each other where each has so many points. */
  readonly least?: number;
}

const DRAWINGS: { readonly [Kind in LineKind]: Drawing<Kind> } = {
  counts: { draw: drawCounts },
  complete: { draw: drawComplete },
  'bar-lines': { draw: drawBarLines },
  'wrong-measure': { draw: drawWrongMeasure },
  'missing-part': { draw: drawMissingPart },
  'how-many': { draw: drawHowMany },
  'true-false': { draw: drawTrueFalse },
  sums: { draw: drawSums },
  circle: { draw: drawCircle },
  'name-sign': { draw: drawNameSign, least: 100 },
  stems: { draw: drawStems },
  draw: { draw: drawDraw },
  choose: { draw: drawChoose },
  write: { draw: drawWrite },
};

function isLineKind(kind: SheetKind): kind is LineKind {
  return Object.hasOwn(DRAWINGS, kind);
}

const LARGE = 1.35;
const NUMBER = 24;
const POINTS_ROOM = 30;
const AFTER_QUESTION = 9;
const AFTER_PART = 10;
const STEP = 9;

/** Name, date, title, version and what can be earned. */
function heading(job: SheetJob, made: MadeSheet, ink: SheetInk): Block[] {
  const { sheet, className } = job;
  const { width } = ink;
  const date = width * 0.66;
  const nameLine = textBlock(
    'P',
    [
      { text: t`Name`, x: 0, y: 14, size: 12 },
      { text: t`Date`, x: date, y: 14, size: 12 },
    ],
    width,
    26,
    [line(NAME_X, 17, date - 16, 17, 0.7), line(date + DATE_X, 17, width, 17, 0.7)],
  );
  const right =
    made.points > 0 ? [{ text: `/ ${made.points}`, x: width, y: 22, size: 14, align: 'right' as const }] : [];
  const letterX = width - (made.points > 0 ? 92 : 22);
  const letter: WrittenText[] = made.version
    ? [{ text: made.version, x: letterX + 11, y: 22, size: 15, strong: true, align: 'middle' }]
    : [];
  const room = letterX - (made.version ? 10 : 0);
  const size = fitted(ink.fonts.strong, sheet.title, 20, room);
  const title = textBlock(
    'H1',
    [{ text: sheet.title, x: 0, y: 22, size, strong: true }, ...letter, ...right],
    width,
    34,
    [
      ...(made.version ? [box(letterX, 4, 22, 24, 1)] : []),
      ...(made.points > 0 ? [line(width - 62, 26, width - 32, 26, 0.7)] : []),
    ],
  );
  const about = className ? [paragraph(className, ink, 10)] : [];
  return [nameLine, title, ...about];
}

const NAME_X = 40;
/** Room for “Date”, which is longer in other languages. */
const DATE_X = 44;

function partHeading({ part }: MadePart, ink: SheetInk, alone: boolean): Block {
  const { title, task } = SHEET_WORDS()[part.kind];
  const says = inNaming(task, ink.voice.naming);
  const texts: WrittenText[] = alone ? [] : [{ text: title, x: 0, y: 14, size: 14, strong: true }];
  const top = alone ? 0 : 18;
  const lines = wrapped(ink.fonts.letters, says, 11, ink.width);
  lines.forEach((text, i) => texts.push({ text, x: 0, y: top + 12 + i * 14, size: 11 }));
  return textBlock('H2', texts, ink.width, top + 8 + lines.length * 14);
}

const drawn = <Kind extends LineKind>(kind: Kind, question: SheetQuestion, ink: SheetInk, filled: boolean): Block =>
  DRAWINGS[kind].draw(question as QuestionOf<Kind>, ink, filled);

/** A question with its number and what it is worth; in the key with its steps. */
function questionBlock(question: SheetQuestion, number: number, ink: SheetInk, filled: boolean): Block {
  const inner = { ...ink, width: ink.width - NUMBER - POINTS_ROOM };
  const body = drawn(question.kind as LineKind, question, inner, filled);
  const points = pointsOf(question);
  const shapes = moved(body.shapes, NUMBER, 0);
  const texts: WrittenText[] = [
    { text: `${number}`, x: 0, y: 14, size: 12, strong: true },
    ...movedTexts(body.texts, NUMBER, 0),
    ...(points > 0 ? [{ text: `/ ${points}`, x: ink.width, y: 14, size: 10, align: 'right' as const }] : []),
  ];
  let { height } = body;
  if (filled) {
    const { steps } = sheetQuestionWords(question, ink.voice);
    const width = ink.width - NUMBER;
    for (const text of steps.flatMap((step) => wrapped(ink.fonts.letters, step, STEP, width))) {
      height += STEP * 1.35;
      texts.push({ text, x: NUMBER, y: height + 2, size: STEP });
    }
    if (steps.length > 0) height += 4;
  }
  return { ...body, width: ink.width, height, shapes, texts };
}

/** The heading of a part, never without its first question, and its questions. */
function addPart(made: MadePart, flow: Flow, ink: SheetInk, filled: boolean, alone: boolean): void {
  const { part, questions, from } = made;
  const { least } = DRAWINGS[part.kind as LineKind];
  const columns = least === undefined ? 1 : Math.max(1, Math.floor(ink.width / (least + NUMBER + POINTS_ROOM)));
  const gap = 8;
  const width = (ink.width - gap * (columns - 1)) / columns;
  const blocks = questions.map((question, i) => questionBlock(question, from + i, { ...ink, width }, filled));
  const first = Math.max(...blocks.slice(0, columns).map(({ height }) => height));
  flow.add(partHeading(made, ink, alone), filled ? 4 : 6, first + 6);
  for (let i = 0; i < blocks.length; i += columns)
    flow.addRow(
      blocks.slice(i, i + columns).map((block, c) => ({ block, x: c * (width + gap) })),
      AFTER_QUESTION,
    );
}

function specialPages({ part, questions }: MadePart, job: SheetJob, ink: SheetInk): Page[] {
  const { paper, bpm } = job.sheet;
  const of = <Kind extends PageKind>(_kind: Kind) => questions as readonly QuestionOf<Kind>[];
  switch (part.kind as PageKind) {
    case 'strips':
      return stripPages(of('strips'), ink, paper);
    case 'fold':
      return foldPages(of('fold'), ink, paper);
    case 'cards':
      return cardPages(of('cards'), ink, paper, part.cards ?? 'measures');
    case 'slip':
      return slipPages(of('slip'), ink, paper, { names: job.names ?? [], bpm });
  }
}

const inkOf = ({ voice }: SheetJob, fonts: Fonts, width: number): SheetInk => ({ fonts, voice, width });

/** What a child gets of one version, without the parts that are pages for all. */
function childPages(
  job: SheetJob,
  made: MadeSheet,
  fonts: Fonts,
  paper: { width: number; height: number } = upright(job.sheet.paper),
): Page[] {
  const parts = made.parts.filter(({ part, questions }) => isLineKind(part.kind) && questions.length > 0);
  if (parts.length === 0) return [];
  const flow = new Flow(paper, job.sheet.large ? LARGE : 1);
  const ink = inkOf(job, fonts, flow.width);
  for (const block of heading(job, made, ink)) flow.add(block, 2);
  for (const part of parts) {
    addPart(part, flow, ink, false, made.parts.length === 1);
    flow.skip(AFTER_PART);
  }
  flow.turn();
  const [first, ...others] = flow.pages;
  const name = { x: MARGIN + NAME_X * flow.by, y: MARGIN + 14 * flow.by, size: 13 * flow.by };
  return [{ ...first!, name }, ...others];
}

const letterOf = ({ version }: MadeSheet) => (version ? ` ${version}` : '');

function teachersHead(text: string, ink: SheetInk): Block {
  return textBlock('H1', [{ text, x: 0, y: 20, size: 18, strong: true }], ink.width, 30);
}

/** What the teacher claps, in its order. */
function listPages(job: SheetJob, made: MadeSheet, fonts: Fonts): Page[] {
  const heard = made.parts.flatMap(({ questions, from }) =>
    questions.flatMap((question, i) =>
      question.kind === 'choose' || question.kind === 'write' ? [{ question, number: from + i }] : [],
    ),
  );
  if (heard.length === 0) return [];
  const flow = new Flow(upright(job.sheet.paper), 1);
  const ink = inkOf(job, fonts, flow.width);
  const words = countIn(heard[0]!.question.pattern, job.sheet.bpm).map(({ word }) => word);
  flow.add(teachersHead(t`To clap: ${job.sheet.title}${letterOf(made)}`, ink), 0);
  const how = t`Count in: ${words.join(' ')}. Clap each one twice, and once more after a moment.`;
  const says = t`For the teacher. ${job.sheet.bpm} beats a minute. ${how}`;
  flow.add(paragraph(says, ink, 11), 12);
  for (const { question, number } of heard) {
    const score = drawClapped(question.pattern, { ...ink, width: ink.width - NUMBER - 40 });
    const answer = question.kind === 'choose' ? OPTION_LETTERS[question.question.answer]! : '';
    flow.add(
      {
        ...score,
        width: ink.width,
        shapes: moved(score.shapes, NUMBER, 0),
        texts: [
          { text: String(number), x: 0, y: 14, size: 12, strong: true },
          { text: answer, x: ink.width, y: 14, size: 14, strong: true, align: 'right' },
          ...movedTexts(score.texts, NUMBER, 0),
        ],
      },
      AFTER_QUESTION,
    );
  }
  flow.turn();
  return flow.pages;
}

/** The sheet once more with the answers where the child writes them, and how they are worked out. */
function keyPages(job: SheetJob, made: MadeSheet, fonts: Fonts): Page[] {
  const parts = made.parts.filter(
    ({ part, questions }) => isLineKind(part.kind) && part.kind !== 'draw' && questions.length > 0,
  );
  if (parts.length === 0) return [];
  const flow = new Flow(upright(job.sheet.paper), 1);
  const ink = inkOf(job, fonts, flow.width);
  flow.add(teachersHead(t`Key${letterOf(made)}: ${job.sheet.title}`, ink), 0);
  flow.add(paragraph(gridLine(job, made), ink, 11), 10);
  for (const part of parts) {
    addPart(part, flow, ink, true, false);
  }
  flow.turn();
  return flow.pages;
}

/** Where the marks go. */
function gridLine({ sheet, className }: SheetJob, { points }: MadeSheet): string {
  const grid = className ? t`the grid of ${className}` : t`the grid of the class`;
  return t`${counted(points, 'point')} in all. They go into ${grid}, column “${sheet.title}”, out
    of ${points}.`;
}

function withFooters(pages: readonly Page[], text: string): Page[] {
  return pages.map((page, i): Page => {
    const of = pages.length > 1 ? t` · ${i + 1} of ${pages.length}` : '';
    const footer = textBlock('Artifact', [{ text: `${text}${of}`, x: 0, y: 8, size: 7.5 }], 0, 10);
    return { ...page, blocks: [...page.blocks, { block: footer, x: MARGIN, y: page.height - MARGIN - 4, by: 1 }] };
  });
}

function named(page: Page, name: string): Page {
  if (!page.name) return page;
  const { x, y, size } = page.name;
  const block = textBlock('P', [{ text: name, x: 0, y: 0, size, strong: true }], 0, 0);
  return { ...page, blocks: [...page.blocks, { block, x, y, by: 1 }] };
}

/**
 * What the children get: a copy for each name, the versions in turn. What fills half a page at most stands twice on it,
 * what is wanted smaller beside another one.
 */
function childCopies(job: SheetJob, fonts: Fonts, seed: (made: MadeSheet) => string): Page[] {
  const { sheet, made, names = [] } = job;
  const paper = upright(sheet.paper);
  const on = (height: number) => made.map((one) => childPages(job, one, fonts, { ...paper, height }));
  const halves = names.length > 1 ? on(paper.height / 2) : [];
  const short = names.length > 1 && halves.every((pages) => pages.length === 1);
  const children = (short ? halves : on(paper.height)).map((pages, i) => withFooters(pages, seed(made[i]!)));
  const each = names.map((name, i) => children[i % children.length]!.map((page) => named(page, name)));
  if (short) return stacked(each.flat());
  const some = names.length > 0 ? each : children;
  if (!sheet.twoToAPage) return some.flat();
  return sideBySide(some.length > 1 ? some : [...some, ...some], paper);
}

/** The pages of a sheet in the order of printing: what children get or is for all, and what is for the teacher. */
export function sheetSides(job: SheetJob, fonts: Fonts): { children: Page[]; teacher: Page[] } {
  const { sheet, made } = job;
  const seed = (one: MadeSheet) => t`Seed ${sheet.seed}${one.version ? t` · version ${one.version}` : ''}`;
  const [first] = made;
  const size = upright(sheet.paper);
  const special = (first?.parts ?? [])
    .filter(({ part, questions }) => !isLineKind(part.kind) && questions.length > 0)
    .flatMap((part) => specialPages(part, job, inkOf(job, fonts, size.width - 2 * MARGIN)));
  const lists = made.flatMap((one) => withFooters(listPages(job, one, fonts), t`${seed(one)} · to clap`));
  const keys = made.flatMap((one) => withFooters(keyPages(job, one, fonts), `${seed(one)} · key`));
  return { children: [...childCopies(job, fonts, seed), ...special], teacher: [...lists, ...keys] };
}

/** Every page in the order of printing. */
export function sheetPages(job: SheetJob, fonts: Fonts): Page[] {
  const { children, teacher } = sheetSides(job, fonts);
  return onLeaves([...children, ...teacher]);
}

/** An empty page before one that must be the front of a leaf. */
function onLeaves(pages: readonly Page[]): Page[] {
  const all: Page[] = [];
  for (const page of pages) {
    if (page.front && all.length % 2 === 1) all.push({ width: page.width, height: page.height, blocks: [] });
    all.push(page);
  }
  return all;
}
