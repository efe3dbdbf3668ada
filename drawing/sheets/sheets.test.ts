import PDFDocument from 'pdfkit';
import { type PDFDocumentProxy, getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import type { CountOptions } from '../../core/counting/count.ts';
import { LEVELS } from '../../core/making/level.ts';
import { type Sheet, type SheetPart, makeSheet, versionsOf } from '../../core/sheets/sheet.ts';
import { SHEET_KINDS, usualCount } from '../../core/sheets/sheetKinds.ts';
import type { SheetKind } from '../../core/sheets/sheetQuestion.ts';
import { testFonts } from '../fonts.test-helper.ts';
import { lettering } from '../lettering.ts';
import type { PdfDocument } from '../pdfPen.ts';
import { extent, moved, movedTexts } from './block.ts';
import { FOLD_CLEAR } from './kinds/pages.ts';
import { CM, MARGIN, PAPER_SIZES, type Page } from './paper.ts';
import { type SheetJob, sheetPages } from './sheetPages.ts';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import { scoreLines } from './score.ts';
import { bookletPages } from './bookletPages.ts';
import { sideBySide } from './twoToAPage.ts';
import { sheetPdf } from './sheetPdf.ts';
import { EVERYTHING, few } from '../../scripts/test/trial.test-helper.ts';

const fonts = testFonts();
const KIT = { fonts: () => Promise.resolve(fonts), pdf: () => Promise.resolve(PDFDocument as PdfDocument) };
const NUMBERS: CountOptions = { school: 'numbers' };

const part = (kind: SheetKind, more: Partial<SheetPart> = {}): SheetPart => ({
  key: 0,
  kind,
  count: usualCount(kind),
  level: 3,
  ...more,
});

function jobOf(parts: readonly SheetPart[], more: Partial<Sheet> = {}, job: Partial<SheetJob> = {}): SheetJob {
  const sheet: Sheet = {
    title: 'Week 7',
    seed: 4821,
    paper: 'a4',
    large: false,
    versions: false,
    bpm: 72,
    parts,
    ...more,
  };
  const counts = job.voice?.counts ?? NUMBERS;
  const made = versionsOf(sheet).map((version) => makeSheet(sheet, counts, version));
  return { sheet, made, voice: { counts, naming: 'quarters' }, ...job };
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  readonly what: string;
}

const FULL_PAGES: readonly SheetKind[] = ['strips', 'fold', 'cards', 'slip'];

async function read(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  return getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
}

/** The boxes of all words, read back out of the file; heights as letters stand. */
async function wordsOf(pdf: PDFDocumentProxy, number: number): Promise<Box[]> {
  const page = await pdf.getPage(number);
  const { height } = page.getViewport({ scale: 1 });
  const { items } = await page.getTextContent();
  return items.flatMap((item): Box[] => {
    if (!('str' in item) || item.str.trim() === '') return [];
    const [size, , , , x, y] = item.transform as number[];
    const base = height - y!;
    return [{ left: x!, right: x! + item.width, top: base - size! * 0.7, bottom: base + size! * 0.2, what: item.str }];
  });
}

const overlap = (a: Box, b: Box, by = 0.5) =>
  a.left < b.right - by && b.left < a.right - by && a.top < b.bottom - by && b.top < a.bottom - by;

function expectApart(boxes: readonly Box[], where: string): void {
  boxes.forEach((a, i) =>
    boxes.slice(i + 1).forEach((b) => {
      if (overlap(a, b)) throw new Error(`${where}: “${a.what}” and “${b.what}” overlap`);
    }),
  );
}

/** What each block really covers: its signs and its words. */
function blockBoxes({ blocks }: Page): Box[] {
  return blocks.flatMap(({ block, x, y, by }): Box[] => {
    const drawn = extent(moved(block.shapes, x, y, by));
    const words = movedTexts(block.texts, x, y, by).map((text) => {
      const { width } = lettering(text.strong ? fonts.strong : fonts.letters, text.text, text.size);
      const left = text.align === 'middle' ? text.x - width / 2 : text.align === 'right' ? text.x - width : text.x;
      return { left, right: left + width, top: text.y - text.size * 0.7, bottom: text.y + text.size * 0.2 };
    });
    const all = [...(block.shapes.length > 0 ? [drawn] : []), ...words];
    if (all.length === 0) return [];
    return [
      {
        left: Math.min(...all.map(({ left }) => left)),
        right: Math.max(...all.map(({ right }) => right)),
        top: Math.min(...all.map(({ top }) => top)),
        bottom: Math.max(...all.map(({ bottom }) => bottom)),
        what: block.alt ?? block.texts[0]?.text ?? block.tag,
      },
    ];
  });
}

describe.each(SHEET_KINDS)('%s', (kind) => {
  it('keeps inside its margins and apart, at every level, on both papers, in large print', async () => {
    for (const i of EVERYTHING ? LEVELS.keys() : [SHEET_KINDS.indexOf(kind) % 2 === 0 ? 1 : 2]) {
      const level = LEVELS[i]!;
      const paper = i % 2 === 0 ? 'a4' : 'letter';
      const cards = i % 2 === 0 ? 'measures' : 'cells';
      const job = jobOf([part(kind, { level, cards })], { paper, large: i === 2, versions: i === 1 });
      const pages = sheetPages(job, fonts);
      expect(pages.length).toBeGreaterThan(0);
      for (const page of pages) {
        const full = page.blocks.some(({ block }) => block.width === page.width);
        const boxes = blockBoxes(page);
        expectApart(boxes, `${kind}, level ${level}`);
        for (const { left, right, top, bottom } of full ? [] : boxes) {
          expect(left).toBeGreaterThanOrEqual(MARGIN - 1);
          expect(right).toBeLessThanOrEqual(page.width - MARGIN + 1);
          expect(top).toBeGreaterThanOrEqual(MARGIN - 1);
          expect(bottom).toBeLessThanOrEqual(page.height - MARGIN + 8);
        }
      }
      // Two files a kind: two versions on Letter, and large print on A4.
      if (i > 2) continue;
      const bytes = await sheetPdf(job, KIT);
      expect(bytes.length / pages.length).toBeLessThan(60_000);
      const pdf = await read(bytes);
      expect(pdf.numPages).toBe(pages.length);
      for (let number = 1; number <= pdf.numPages; number++) {
        const words = await wordsOf(pdf, number);
        expectApart(words, `${kind}, page ${number}`);
        const { width } = pages[number - 1]!;
        // The parts of the sheet to fold are as wide as each other: those at the sides reach as far as printers do.
        const margin = kind === 'fold' ? 0.5 * CM : MARGIN - 6;
        for (const { left, right } of words) {
          expect(left).toBeGreaterThanOrEqual(margin);
          expect(right).toBeLessThanOrEqual(width - margin);
        }
      }
    }
  });

  it.runIf(few(SHEET_KINDS, 4).includes(kind))('is the same for the same seed, byte by byte', async () => {
    const [one, other] = [await sheetPdf(jobOf([part(kind)]), KIT), await sheetPdf(jobOf([part(kind)]), KIT)];
    expect(Buffer.from(one).equals(other)).toBe(true);
  });
});

describe('a file', () => {
  const PARTS = [
    part('counts', { count: 2 }),
    part('choose', { key: 1, count: 2 }),
    part('sums', { key: 2, count: 3 }),
  ];

  it('has its title, its language and its parts for a screen reader', async () => {
    const pdf = await read(await sheetPdf(jobOf(PARTS), KIT));
    const { info } = await pdf.getMetadata();
    expect(info).toMatchObject({ Title: 'Week 7', Language: 'en' });
    expect(await pdf.getMarkInfo()).toMatchObject({ Marked: true });
    const tree = JSON.stringify(await (await pdf.getPage(1)).getStructTree());
    for (const role of ['H1', 'H2', 'P', 'Figure']) expect(tree).toContain(`"role":"${role}"`);
    expect(tree).toContain('A rhythm');
  });

  const textOf = async (bytes: Uint8Array) => {
    const pdf = await read(bytes);
    const pages = Array.from({ length: pdf.numPages }, async (_, i) =>
      (await wordsOf(pdf, i + 1)).map(({ what }) => what).join(' '),
    );
    return Promise.all(pages);
  };

  it('is for each child with the name on it, in versions by turns, then the lists and the keys', async () => {
    const names = ['Ana', 'Ben', 'Cleo'];
    const pages = await textOf(
      await sheetPdf(jobOf(PARTS, { versions: true }, { names, className: 'Lighthouse 4' }), KIT),
    );
    const each = names.map((name) => pages.findIndex((text) => text.startsWith('Name') && text.includes(name)));
    expect(each.every((at) => at >= 0)).toBe(true);
    expect(each.map((at) => /version ([AB])/.exec(pages[at]!)![1])).toEqual(['A', 'B', 'A']);
    expect(pages.filter((text) => text.startsWith('To clap'))).toHaveLength(2);
    expect(pages.filter((text) => /^Key [AB]/.test(text)).length).toBeGreaterThanOrEqual(2);
    expect(pages.find((text) => text.startsWith('To clap'))).toMatch(/72 beats a minute.*Count in: 1 2 ready go/);
    expect(pages.find((text) => text.startsWith('Key A'))).toMatch(
      /the grid of Lighthouse 4, column “Week 7”, out of 9/,
    );
    expect(pages.every((text) => /Seed 4821/.test(text))).toBe(true);
  });

  it('has the counts on the key only', async () => {
    const pages = await textOf(
      await sheetPdf(jobOf([part('counts', { count: 2, patterns: ['4/4 q. e (q) q | e e h q'] })]), KIT),
    );
    expect(pages).toHaveLength(2);
    expect(pages[0]).not.toMatch(/1-|&/);
    // A hold that ends inside the beat is a small figure.
    expect(pages[1]).toMatch(/1- ?2 & \(3\) 4/);
  });
});

describe('two to a page', () => {
  const NAMES = ['Ana', 'Ben', 'Cleo'];
  const textsOf = ({ blocks }: Page) =>
    blocks.flatMap(({ block, x, y, by }) =>
      block.texts.map((text) => ({ ...text, x: x + text.x * by, y: y + text.y * by })),
    );
  const nameOn = (page: Page, name: string) => textsOf(page).find(({ text }) => text === name);
  const long = [part('counts', { count: 12 })];

  it('what fills half a page stands twice on it, one under the other', () => {
    const pages = sheetPages(jobOf([part('how-many', { count: 3 })], {}, { names: NAMES }), fonts);
    const [first, second] = pages as [Page, Page];
    expect(pages).toHaveLength(3);
    expect([first.width, first.height]).toEqual([PAPER_SIZES.a4.width, PAPER_SIZES.a4.height]);
    const [ana, ben] = [nameOn(first, 'Ana')!, nameOn(first, 'Ben')!];
    expect(ben.y - ana.y).toBeCloseTo(first.height / 2, 6);
    expect(nameOn(second, 'Cleo')!.y).toBeCloseTo(ana.y, 6);
    for (const { y } of textsOf(first).filter(({ text }) => text !== 'Ben' && !/Seed/.test(text)))
      expect(y).toBeLessThan(first.height);
  });
  it('longer sheets stay a page each, unless they are wanted smaller', () => {
    const whole = sheetPages(jobOf(long, {}, { names: NAMES }), fonts);
    expect(nameOn(whole[0]!, 'Ben')).toBeUndefined();
    const two = sheetPages(jobOf(long, { twoToAPage: true }, { names: NAMES }), fonts);
    expect(two.length).toBeLessThan(whole.length);
    const [front, back] = two as [Page, Page];
    expect([front.width, front.height]).toEqual([PAPER_SIZES.a4.height, PAPER_SIZES.a4.width]);
    expect(front.front).toBe(true);
    const [ana, ben] = [nameOn(front, 'Ana')!, nameOn(front, 'Ben')!];
    expect(ben.x - ana.x).toBeCloseTo(front.width / 2, 6);
    // Turned on the short edge, what is behind the left half is the right one: Ana's second page.
    const behind = textsOf(back).filter(({ text }) => /^\d+$/.test(text));
    expect(behind.some(({ x }) => x < front.width / 2) && behind.some(({ x }) => x > front.width / 2)).toBe(true);
    const alone = sheetPages(jobOf(long, { twoToAPage: true }, { names: NAMES.slice(2) }), fonts);
    expect(nameOn(alone[0]!, 'Cleo')).toBeDefined();
  });
  it('the second page of the one whose first is at the left is at the right of the back', () => {
    const page = (text: string): Page => ({
      width: 200,
      height: 300,
      blocks: [
        {
          block: { tag: 'P', width: 0, height: 0, shapes: [], texts: [{ text, x: 0, y: 10, size: 8 }] },
          x: 0,
          y: 0,
          by: 1,
        },
      ],
    });
    const pages = sideBySide([[page('a1'), page('a2')], [page('b1')]], { width: 200, height: 300 });
    const side = (of: Page, text: string) => (nameOn(of, text)!.x < of.width / 2 ? 'left' : 'right');
    expect([side(pages[0]!, 'a1'), side(pages[0]!, 'b1'), side(pages[1]!, 'a2')]).toEqual(['left', 'right', 'right']);
  });
});

it('the heading of a part never stands alone at the end of a page', () => {
  for (let seed = 0; seed < (EVERYTHING ? 8 : 3); seed++)
    for (const kind of ['write', 'wrong-measure', 'circle', 'counts'] as const) {
      const parts = [part('how-many', { count: 3 + seed * 3 }), part(kind, { key: 1, count: 4 })];
      for (const { blocks } of sheetPages(jobOf(parts, { seed }), fonts))
        expect(blocks.findLast(({ block }) => block.tag !== 'Artifact')?.block.tag).not.toBe('H2');
    }
});

describe('paper to cut and to fold', () => {
  const shapesOf = ([page]: readonly Page[]) => page!.blocks.flatMap(({ block }) => block.shapes);

  it.each(['a4', 'letter'] as const)('strips on %s: a whole is exactly 24 cm, its parts the parts of it', (paper) => {
    const pages = sheetPages(jobOf([part('strips')], { paper }), fonts);
    expect([pages[0]!.width, pages[0]!.height]).toEqual([PAPER_SIZES[paper].height, PAPER_SIZES[paper].width]);
    const widths = shapesOf(pages).flatMap((shape) => {
      const { left, right, top, bottom } = extent([shape]);
      return shape.stroke && bottom - top > 20 ? [((right - left) / CM).toFixed(6)] : [];
    });
    expect([...new Set(widths)].map(Number)).toEqual([24, 12, 6, 3]);
    const { left, right } = extent(shapesOf(pages));
    expect(left).toBeGreaterThan(MARGIN - 1);
    expect(right).toBeLessThan(pages[0]!.width - MARGIN + 1);
    // The mark to check the printer with.
    const mark = shapesOf(pages)
      .map((shape) => extent([shape]))
      .find(({ top, bottom, left: from, right: to }) => top === bottom && to - from > 100);
    expect((mark!.right - mark!.left) / CM).toBeCloseTo(10, 6);
  });

  it('the sheet to fold has nothing where it folds', () => {
    const [page] = sheetPages(jobOf([part('fold', { level: 5 })]), fonts);
    const folds = Array.from({ length: 15 }, (_, i) => ((i + 1) * page!.width) / 16);
    const boxes = page!.blocks.flatMap(({ block }) => [
      ...block.shapes.map((shape) => extent([shape])),
      ...block.texts.map(({ text, x, size }) => ({ left: x, right: x + lettering(fonts.letters, text, size).width })),
    ]);
    expect(boxes.length).toBeGreaterThan(60);
    // Every box of the smallest parts is as wide as the others, also at the edges of the paper.
    const sides = page!.blocks
      .flatMap(({ block }) => block.shapes.map((shape) => extent([shape])))
      .filter(({ left, right, top, bottom }) => left === right && bottom - top > 20);
    const lowest = Math.max(...sides.map(({ top }) => top));
    const xs = sides.filter(({ top }) => top === lowest).map(({ left }) => left);
    const widths = xs.flatMap((x, i) => (i % 2 === 1 ? [(x - xs[i - 1]!).toFixed(3)] : []));
    expect(widths).toHaveLength(16);
    expect(new Set(widths).size).toBe(1);
    for (const { left, right } of boxes)
      for (const fold of folds)
        expect(right <= fold - FOLD_CLEAR + 0.01 || left >= fold + FOLD_CLEAR - 0.01).toBe(true);
  });

  it.each(['measures', 'cells'] as const)(
    'cards of %s: backs mirror fronts, cut on lines from edge to edge',
    (cards) => {
      const pages = sheetPages(jobOf([part('cards', { cards, count: 20 })]), fonts);
      const numbers = (page: Page) =>
        page.blocks.flatMap(({ block }) => block.texts).filter(({ size, text }) => size === 8 && /^\d+$/.test(text));
      for (let i = 0; i + 1 < pages.length - 2; i += 2) {
        expect(pages[i]!.front).toBe(true);
        const [front, back] = [numbers(pages[i]!), numbers(pages[i + 1]!)];
        expect(front.length).toBeGreaterThan(0);
        for (const { text, x, y } of front) {
          const behind = back.find((one) => one.text === text)!;
          expect(behind.x).toBeCloseTo(pages[i]!.width - x, 6);
          expect(behind.y).toBe(y);
        }
      }
      const crosses = (page: Page) =>
        page.blocks
          .flatMap(({ block }) => block.shapes)
          .filter(({ path, stroke }) => path.length === 2 && stroke?.width === 1)
          .map((shape) => extent([shape]));
      expect(crosses(pages[0]!)).toHaveLength(cards === 'cells' ? 16 : 6);
      // In register: turned over, each stands where one of the front stands.
      const turned = crosses(pages[1]!).map(({ left, right, top }) => [
        pages[0]!.width - right,
        pages[0]!.width - left,
        top,
      ]);
      const key = (numbers: readonly number[]) => numbers.map((one) => one.toFixed(3)).join();
      expect(turned.map(key).toSorted()).toEqual(
        crosses(pages[0]!)
          .map(({ left, right, top }) => key([left, right, top]))
          .toSorted(),
      );
      const lines = shapesOf(pages)
        .filter(({ path, stroke }) => path.length === 2 && stroke?.width === 0.5)
        .map((shape) => extent([shape]));
      const { width, height } = pages[0]!;
      expect(lines.filter(({ left, right }) => left === 0 && right === width).length).toBe(cards === 'cells' ? 4 : 3);
      expect(lines.filter(({ top, bottom }) => top === 0 && bottom === height).length).toBe(cards === 'cells' ? 2 : 1);
      expect(pages.at(-2)!.blocks[0]!.block.alt).toMatch(/try/);
    },
  );

  it('cards after a sheet of one page begin on a leaf of their own', () => {
    const pages = sheetPages(jobOf([part('how-many', { count: 3 }), part('cards', { key: 1, count: 4 })]), fonts);
    expect(pages.findIndex(({ front }) => front) % 2).toBe(0);
    expect(pages[1]!.blocks).toEqual([]);
  });

  it.each(['5/4', '9/8', '12/8'])('long measures of %s stay on their cards and slips', (meter) => {
    for (const cards of ['measures', 'cells'] as const) {
      const parts = [part('cards', { meter, cards, level: 5 }), part('slip', { key: 1, meter, level: 5, count: 4 })];
      for (const page of sheetPages(jobOf(parts), fonts)) {
        const notes = page.blocks.flatMap(({ block }) => block.shapes).filter(({ path }) => path.length > 2);
        if (notes.length === 0) continue;
        const { left, right, bottom } = extent(notes);
        expect(left).toBeGreaterThan(MARGIN - 6);
        expect(right).toBeLessThan(page.width - MARGIN + 6);
        expect(bottom).toBeLessThan(page.height - 10);
      }
    }
  });

  it('a slip for each child, two on a page', () => {
    const pages = sheetPages(jobOf([part('slip')], {}, { names: ['Ana', 'Ben', 'Cleo'] }), fonts);
    expect(pages).toHaveLength(2);
    expect(pages[1]!.blocks.flatMap(({ block }) => block.texts).map(({ text }) => text)).toContain('Cleo');
  });
});

it('a long word after a bar line has room before it too', () => {
  const first = (text: string) => {
    const [{ measures }] = scoreLines(patternOf(text), { fonts, width: 510 }, { width: 510 }) as [
      ReturnType<typeof scoreLines>[number],
    ];
    return measures[1]!.xs[0]! - measures[0]!.xs[0]!;
  };
  expect(first("1/4 q'i' | q'harbourmasters'")).toBeGreaterThan(1.3 * first("1/4 q'i' | q'i'"));
});

it('a sheet has no empty page at its end, also where its last question ends at the bottom', () => {
  for (let seed = 0; seed < 12; seed++)
    for (const paper of ['a4', 'letter'] as const) {
      const job = jobOf([part('draw', { count: 5 })], { seed, paper, large: true });
      for (const { blocks } of sheetPages(job, fonts))
        expect(blocks.some(({ block }) => block.tag !== 'Artifact')).toBe(true);
    }
});

describe('the key', () => {
  it('stands like the sheet: notes and lines at the same places, answers added', () => {
    for (const kind of SHEET_KINDS.filter((one) => !FULL_PAGES.includes(one) && one !== 'draw')) {
      const pages = sheetPages(jobOf([part(kind, { count: 1 })]), fonts);
      const figure = (page: Page) => page.blocks.find(({ block }) => block.tag === 'Figure')!.block;
      const [sheet, key] = [figure(pages[0]!), figure(pages.at(-1)!)];
      expect(key.width).toBe(sheet.width);
      const more = key.shapes.length + key.texts.length - sheet.shapes.length - sheet.texts.length;
      // Lines to write on give way to the counts.
      if (kind !== 'counts') expect(more).toBeGreaterThan(0);
      expect(key.height).toBeGreaterThanOrEqual(sheet.height);
    }
  });
});

describe('a booklet', () => {
  const chapter = (title: string, parts: readonly SheetPart[], more: Partial<Sheet> = {}) => ({
    when: 'Tue 1 Dec',
    job: jobOf(parts, { title, ...more }, { names: ['Ada', 'Bo'] }),
  });
  const says = ({ blocks }: Page) => blocks.flatMap(({ block }) => block.texts.map(({ text }) => text));
  const pages = bookletPages(
    {
      title: 'Rhythm booklet',
      about: 'Harbour 2',
      chapters: [
        chapter('Half', [part('counts', { count: 2 })]),
        chapter('Tie', [part('counts', { count: 30 })]),
        chapter('Cards', [part('cards', { count: 8 })]),
        chapter('Rests', [part('write', { count: 2 })]),
      ],
    },
    fonts,
  );
  const begins = (title: string) => pages.findIndex((page, i) => i > 0 && says(page).includes(title)) + 1;

  it('has contents that say on which page each sheet begins, and the keys', () => {
    const first = says(pages[0]!);
    const named = (title: string) => Number(first[first.indexOf(title) + 1]);
    for (const title of ['Half', 'Tie', 'Rests']) expect([title, named(title)]).toEqual([title, begins(title)]);
    expect(pages[named('Cards') - 1]!.front).toBe(true);
    expect(named('For the teacher: keys')).toBe(begins('Key: Half'));
  });
  it('every page has its number, in the order of the chapters, keys after all of them', () => {
    pages.forEach((page, i) => expect(says(page)).toContain(String(i + 1)));
    const order = ['Half', 'Tie', 'Rests', 'Key: Half', 'Key: Tie', 'To clap: Rests', 'Key: Rests'].map(begins);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order).not.toContain(0);
  });
  it('has one copy of each sheet, and cards whose backs are behind them', () => {
    expect(pages.flatMap(says)).not.toContain('Ada');
    pages.forEach((page, i) => page.front && expect(i % 2).toBe(0));
    expect(pages.filter(({ front }) => front).length).toBeGreaterThan(0);
  });
  it('contents of many lessons go on overleaf, and the numbers with them', () => {
    const many = Array.from({ length: 50 }, (_, i) => chapter(`Lesson ${i + 1}.`, [part('circle', { count: 1 })]));
    const long = bookletPages({ title: 'B', about: 'C', chapters: many }, fonts);
    expect(says(long[1]!)).toContain('Lesson 50.');
    const text = [...says(long[0]!), ...says(long[1]!)];
    const page = Number(text[text.indexOf('Lesson 50.') + 1]);
    expect(says(long[page - 1]!)).toContain('Lesson 50.');
  });
  it('of nothing is nothing', () => expect(bookletPages({ title: 'B', about: 'C', chapters: [] }, fonts)).toEqual([]));
});
