import { t } from '../../core/words/say.ts';
import type { Fonts } from '../fonts.ts';
import { lettering } from '../lettering.ts';
import { type Block, line } from './block.ts';
import { Flow, paragraph, textBlock } from './flow.ts';
import { MARGIN, type Page, upright } from './paper.ts';
import { type SheetJob, sheetSides } from './sheetPages.ts';

/** A sheet of a booklet, and when it is wanted: "Mon 14 Sep". */
export interface Chapter {
  readonly when: string;
  readonly job: SheetJob;
}

/** Sheets that are printed together, in their order. */
export interface BookletJob {
  readonly title: string;
  /** What it is about, under the title: the class, the term. */
  readonly about: string;
  readonly chapters: readonly Chapter[];
}

/** A line of the contents, and on which page what it names begins. */
interface Entry {
  readonly when: string;
  readonly title: string;
  readonly page: number;
}

const TITLE = 26;
const ROW = 20;
const ROW_SIZE = 12;
const WHEN_ROOM = 92;
const PAGE_ROOM = 34;

/**
 * The contents, every sheet in its order, then every list to clap from and every key; all pages are numbered. An empty
 * page stands before one that must be the front of a leaf.
 */
export function bookletPages({ title, about, chapters }: BookletJob, fonts: Fonts): Page[] {
  const [first] = chapters;
  if (!first) return [];
  const paper = upright(first.job.sheet.paper);
  const sides = chapters.map(({ job }) => sheetSides({ ...job, names: [] }, fonts));
  const entriesFrom = (front: number): { entries: Entry[]; pages: Page[] } => {
    const pages: Page[] = [];
    const begin = (own: readonly Page[]) => {
      for (const [i, page] of own.entries()) {
        // The page before it counts the contents too.
        if (page.front && (front + pages.length) % 2 === 1) pages.push({ ...paper, blocks: [] });
        if (i === 0) starts.push(front + pages.length + 1);
        pages.push(page);
      }
      if (own.length === 0) starts.push(0);
    };
    const starts: number[] = [];
    for (const { children } of sides) begin(children);
    const entries = chapters.map(({ when, job }, i) => ({ when, title: job.sheet.title, page: starts[i]! }));
    const teachers = sides.flatMap(({ teacher }) => teacher);
    begin(teachers);
    const keys = teachers.length > 0 ? [{ when: '', title: t`For the teacher: keys`, page: starts.at(-1)! }] : [];
    return { entries: [...entries.filter(({ page }) => page > 0), ...keys], pages };
  };
  // The number of its own pages does not depend on the numbers that stand on them.
  const front = contents(title, about, entriesFrom(0).entries, paper, fonts).length;
  const { entries, pages } = entriesFrom(front);
  return numbered([...contents(title, about, entries, paper, fonts), ...pages]);
}

function contents(
  title: string,
  about: string,
  entries: readonly Entry[],
  paper: { width: number; height: number },
  fonts: Fonts,
): Page[] {
  const flow = new Flow(paper, 1);
  const ink = { fonts, width: flow.width };
  const head = { text: title, x: 0, y: TITLE, size: TITLE, strong: true };
  flow.add(textBlock('H1', [head], flow.width, TITLE * 1.5), 0);
  flow.add(paragraph(about, ink, ROW_SIZE), ROW);
  flow.add(textBlock('H2', [{ text: t`Contents`, x: 0, y: 16, size: 16, strong: true }], flow.width, 24), 4, ROW);
  for (const entry of entries) flow.add(row(entry, flow.width, fonts), 0);
  flow.turn();
  return flow.pages;
}

/** A line of the contents, its title led to its page. */
function row({ when, title, page }: Entry, width: number, fonts: Fonts): Block {
  const x = when === '' ? 0 : WHEN_ROOM;
  const font = when === '' ? fonts.strong : fonts.letters;
  const ends = x + lettering(font, title, ROW_SIZE).width + 6;
  const texts = [
    ...(when === '' ? [] : [{ text: when, x: 0, y: 14, size: ROW_SIZE, strong: true }]),
    { text: title, x, y: 14, size: ROW_SIZE, strong: when === '' },
    { text: String(page), x: width, y: 14, size: ROW_SIZE, strong: true, align: 'right' as const },
  ];
  const led = width - PAGE_ROOM;
  return textBlock('P', texts, width, ROW, ends < led ? [line(ends, 15, led, 15, 0.3)] : []);
}

function numbered(pages: readonly Page[]): Page[] {
  return pages.map((page, i): Page => {
    const texts = [{ text: String(i + 1), x: 0, y: 10, size: 11, strong: true, align: 'right' as const }];
    const block = textBlock('Artifact', texts, 0, 12);
    const placed = { block, x: page.width - MARGIN, y: page.height - MARGIN - 6, by: 1 };
    return { ...page, blocks: [...page.blocks, placed] };
  });
}
