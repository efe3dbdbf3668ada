import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';

let school: School;
/** A new pattern: each test writes another. */
let page: Page;

beforeAll(async () => {
  school = await School.open();
  page = (await school.guest({ viewport: { width: 2100, height: 800 } })).page;
  await page.getByRole('button', { name: /New pattern/ }).click();
});
afterAll(() => school.close());

/** What the signs of the music font are; code points of SMuFL. */
const SIGNS: Readonly<Record<string, string>> = {
  e0a2: 'w',
  e0a3: 'h',
  e0a4: 'q',
  e1e7: '.',
  e4e3: '(w)',
  e4e4: '(h)',
  e4e5: '(q)',
  e4e6: '(e)',
  e4e7: '(s)',
  e240: 'flag1',
  e242: 'flag2',
};

interface Drawn {
  /** Its sign and dots, and where the middle of the head stands, in pixels of the lane. */
  readonly notes: readonly { readonly signs: string; readonly x: number; readonly stem: boolean }[];
  readonly meters: readonly string[];
  readonly beams: number;
  readonly tuplets: readonly string[];
  readonly ties: readonly { readonly from: number; readonly to: number }[];
  /** Bars and dots of the line: x and width, in pixels of the lane. */
  readonly bars: readonly { readonly x: number; readonly width: number; readonly height: number }[];
}

async function write(page: Page, text: string): Promise<void> {
  await page.getByLabel('Rhythm', { exact: true }).fill(text);
  await page.locator(`.lane-notes svg`).first().waitFor();
  await page.waitForFunction(
    (count) => document.querySelectorAll('.lane-notes .vf-stavenote').length === count,
    text.split(' ').filter((item) => /[whqest]/.test(item) && !/^[^whqest]*$/.test(item)).length,
  );
}

/** What the engraver drew, of all lines together. */
async function drawn(page: Page): Promise<Drawn> {
  return page.evaluate((signs) => {
    const lane = document.querySelector('.lane-notes')!;
    const left = lane.getBoundingClientRect().left;
    const all = (selector: string) => [...lane.querySelectorAll<SVGGraphicsElement>(selector)];
    const sign = (element: Element) => {
      const code = element.textContent.codePointAt(0)?.toString(16) ?? '';
      return signs[code] ?? code;
    };
    const figure = (code: number) => String.fromCharCode(48 + ((code - 0xe080) & 0xf));
    const box = (element: Element) => element.getBoundingClientRect();
    const [dots, figures] = [true, false].map((dot) =>
      all('svg > text').filter((text) => (sign(text) === '.') === dot),
    );
    const texts = figures!.map((element) =>
      [...element.textContent].map((one) => figure(one.codePointAt(0)!)).join(''),
    );
    const heads = all('.vf-stavenote').map((note) => box(note.querySelector('.vf-notehead text')!).left);
    return {
      notes: all('.vf-stavenote').map((note, i) => {
        const head = note.querySelector('.vf-notehead text')!;
        const { left: from, width } = box(head);
        const own = dots!.filter((dot) => box(dot).left > heads[i]! && !(box(dot).left > (heads[i + 1] ?? Infinity)));
        return {
          signs: [...note.querySelectorAll('text'), ...own].map(sign).join(''),
          x: from + width / 2 - left,
          stem: note.querySelector('.vf-stem path') !== null,
        };
      }),
      meters: texts.flatMap((upper, i) => (i % 2 === 0 ? [`${upper}/${texts[i + 1]}`] : [])),
      beams: all('.vf-beam').length,
      tuplets: all('.vf-tuplet').map((tuplet) =>
        [...tuplet.textContent].map((one) => String.fromCharCode(48 + ((one.codePointAt(0)! - 0xe880) & 0xf))).join(''),
      ),
      ties: all('.vf-stavetie path').map((tie) => ({ from: box(tie).left - left, to: box(tie).right - left })),
      bars: all('svg > rect').map((bar) => ({
        x: box(bar).left - left,
        width: box(bar).width,
        height: box(bar).height,
      })),
    };
  }, SIGNS);
}

describe('the drawn rhythm', () => {
  it('has the signs that were written, each head at its time', async () => {
    await write(page, '4/4 q. e (q) q | h.. e');
    const { notes, meters } = await drawn(page);
    expect(notes.map(({ signs }) => signs)).toEqual(['q.', 'qflag1', '(q)', 'q', 'h..', 'qflag1']);
    expect(notes.map(({ stem }) => stem)).toEqual([true, true, false, true, true, true]);
    expect(meters).toEqual(['4/4']);
    const strips = await page.evaluate(() =>
      [...document.querySelectorAll('.lane-strips rect')].map((strip) => Number(strip.getAttribute('x')) - 0.75),
    );
    notes.forEach(({ x }, i) => expect(Math.abs(x - strips[i]!)).toBeLessThan(1.5));
  });

  it('has its beams, ties and tuplets', async () => {
    await write(page, '4/4 e e s s s s q~ q | 3{e e e} q h~ | w');
    const { notes, beams, tuplets, ties } = await drawn(page);
    // Two groups in the first measure, the triplet in the second.
    expect(beams).toBe(3);
    expect(tuplets).toEqual(['3']);
    expect(notes.every(({ signs }) => !signs.includes('flag'))).toBe(true);
    expect(ties).toHaveLength(2);
    const [q, tied] = [notes[6]!, notes[7]!];
    expect(ties[0]!.from).toBeGreaterThan(q.x - 2);
    expect(ties[0]!.to).toBeLessThan(tied.x + 2);
    expect(ties[1]!.to).toBeLessThan(notes[13]!.x + 2);
    expect(ties[1]!.from).toBeGreaterThan(notes[12]!.x - 2);
  });

  it('has a meter sign where the meter changes, bars between measures, repeats and an end', async () => {
    await write(page, '3/4 |: q q q :| 6/8 q. q. | q. q.');
    const { meters, bars } = await drawn(page);
    expect(meters).toEqual(['3/4', '6/8']);
    const upright = bars.filter(({ height }) => height > 30).sort((a, b) => a.x - b.x);
    const thick = upright.filter(({ width }) => width > 3);
    // The beginning of the repeat, its end, and the end of all.
    expect(thick).toHaveLength(3);
    // A thin one beside each, and one between the two measures of the new meter, which stands after the repeat.
    expect(new Set(upright.map(({ x }) => Math.round(x))).size).toBe(3 + 3 + 1);
    const dots = bars.filter(({ width, height }) => Math.abs(width - height) < 0.5 && width < 7);
    expect(dots).toHaveLength(4);
  });

  it('draws rests of every length, and a rest that fills a measure in its middle', async () => {
    await write(page, '4/4 (h) (q) (e) (s) (s) | (w)');
    const { notes } = await drawn(page);
    expect(notes.map(({ signs }) => signs)).toEqual(['(h)', '(q)', '(e)', '(s)', '(s)', '(w)']);
  });
});

describe('on paper', () => {
  it('every line fits the sheet and none is cut', async () => {
    await write(page, `4/4 ${Array.from({ length: 8 }, () => 'e e e e q q').join(' | ')}`);
    const folder = mkdtempSync(join(tmpdir(), 'clapboard-print-'));
    const file = await page.pdf({ path: join(folder, 'sheet.pdf'), format: 'A4' });
    rmSync(folder, { recursive: true });
    expect(file.subarray(0, 5).toString()).toBe('%PDF-');
    const pages = file.toString('latin1').match(/\/Type ?\/Page\b/g)!.length;
    expect(pages).toBeLessThanOrEqual(2);
    await page.evaluate(() => void dispatchEvent(new Event('beforeprint')));
    await page.emulateMedia({ media: 'print' });
    // Longer than the two frames after which the window would have its say again.
    await page.waitForTimeout(300);
    const lanes = await page.evaluate(() =>
      [...document.querySelectorAll('.lane-strips')].map((lane) => lane.clientWidth),
    );
    expect(lanes.length).toBeGreaterThan(1);
    for (const width of lanes) expect(width).toBeLessThanOrEqual(680);
    await page.emulateMedia({ media: 'screen' });
    await page.evaluate(() => void dispatchEvent(new Event('afterprint')));
    await page.waitForFunction(() => document.querySelector('.lane-strips')!.clientWidth > 900);
  });
});
