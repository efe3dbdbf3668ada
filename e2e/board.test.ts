import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { PATTERNS, PATTERNS_IN_PARTS } from '../demo/school.ts';
import { parseScore } from '../core/rhythm/scoreText.ts';
import { EVERYTHING } from '../scripts/test/trial.test-helper.ts';
import { School, lookAround } from './browser.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});

afterEach(() => school.tidy());
afterAll(() => school.close());

type Page = Awaited<ReturnType<School['visitor']>>['page'];

/** A phone, a tablet, a laptop, a projector, a large screen. */
const WINDOWS = [
  [390, 844],
  [1024, 768],
  [1280, 800],
  [1920, 1080],
  [3840, 2160],
] as const;
/** Up to so many measures are seen at once. */
const SEEN = 4;

/** What is printed over something else, cut off, or out of sight, in words. */
async function troublesOf(page: Page, measures: number): Promise<string[]> {
  return page.evaluate((seenAtOnce) => {
    const troubles: string[] = [];
    const seen = document.querySelector('.ruler-seen')!;
    const frame = seen.getBoundingClientRect();
    if (frame.bottom > innerHeight + 1 && innerWidth > 700)
      troubles.push(`under the window by ${frame.bottom - innerHeight}`);
    if (seenAtOnce && seen.scrollHeight > seen.clientHeight + 2) troubles.push('not all of it is seen');
    for (const lane of seen.querySelectorAll('svg[data-lane]')) {
      const name = lane.getAttribute('data-lane');
      const boxes = [...lane.querySelectorAll('text, .hand-sign')]
        .map((sign) => ({ text: sign.textContent, box: sign.getBoundingClientRect() }))
        .toSorted((a, b) => a.box.left - b.box.left);
      boxes.forEach(({ text, box }, i) => {
        if (box.right > frame.right + 1 || box.left < frame.left - 1) troubles.push(`${name}: “${text}” is cut`);
        const before = boxes[i - 1];
        if (before && before.box.right > box.left + 1) troubles.push(`${name}: “${before.text}” runs into “${text}”`);
      });
    }
    for (const notes of seen.querySelectorAll('.lane-notes svg'))
      if (notes.getBoundingClientRect().right > frame.right + 2) troubles.push('notes are cut');
    return troubles;
  }, measures <= SEEN);
}

function measuresOf(text: string): number {
  const read = parseScore(text);
  if (!read.ok) throw new Error(text);
  const { measures, pickup } = read.score.parts[0]!.pattern;
  return measures.length - (pickup ? 1 : 0);
}

describe('the board', () => {
  it('shows all of a rhythm as large as fits, nothing cut, nothing over anything else', async () => {
    const { page } = await school.visitor({ reducedMotion: 'reduce' });
    await lookAround(page);
    const all = [...PATTERNS, ...PATTERNS_IN_PARTS];
    const some = /Crab|machine|Two boats/;
    const shown = EVERYTHING ? all : all.filter(({ title }) => some.test(title));
    const troubles: string[] = [];
    let lanes = 0;
    for (const { title, text } of shown) {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      const link = page.getByRole('link', { name: title });
      const href = (await link.getAttribute('href'))!;
      await link.click();
      await page.waitForURL(`**${href}`);
      await page.goto(new URL(href.replace('patterns', 'board'), page.url()).href);
      await page.locator('.ruler-seen .lane-notes svg').first().waitFor();
      if (lanes === 0) for (const key of ['h', 't']) await page.keyboard.press(key);
      lanes = await page.locator('.ruler-seen .ruler-system').first().locator('svg[data-lane]').count();
      for (const [width, height] of WINDOWS) {
        await page.setViewportSize({ width, height });
        // Two frames: the size is told in one, drawn in the next.
        await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
        await page.waitForTimeout(60);
        const found = await troublesOf(page, measuresOf(text));
        troubles.push(...found.map((trouble) => `${title} at ${width}x${height}: ${trouble}`));
      }
    }
    expect(lanes).toBeGreaterThan(2);
    expect(troubles).toEqual([]);
  });
});

const EAR_VIEWS = ['cards', 'write', 'echo', 'signs', 'choose'];

/** What of a page runs into something else or out of the window sideways, and what a class reads that is small. */
async function clashesOf(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const main = document.querySelector('main')!;
    const troubles: string[] = [];
    if (document.documentElement.scrollWidth > innerWidth + 1) troubles.push('wider than the window');
    const shown = [...main.querySelectorAll('button, select, input, h1, h2, label, .line-beats span, svg text')]
      .map((element) => {
        const range = document.createRange();
        range.selectNodeContents(element);
        const words = element.matches('button, select, input') ? element : range;
        return { element, box: words.getBoundingClientRect(), name: (element.textContent ?? '').slice(0, 30) };
      })
      .filter(({ element, box }) => box.width > 2 && box.height > 2 && element.checkVisibility())
      // A sign of music has a box much larger than its ink.
      .filter(({ element, name }) => !element.matches('svg *') || /[a-z0-9]/i.test(name));
    shown.forEach((one, i) => {
      for (const other of shown.slice(i + 1)) {
        if (one.element.contains(other.element) || other.element.contains(one.element)) continue;
        const across = Math.min(one.box.right, other.box.right) - Math.max(one.box.left, other.box.left);
        const down = Math.min(one.box.bottom, other.box.bottom) - Math.max(one.box.top, other.box.top);
        if (across > 3 && down > 3) troubles.push(`“${one.name}” and “${other.name}”`);
      }
    });
    return troubles;
  });
}

describe('the views of the ear', () => {
  it('let nothing run into anything in any window, and are as large as the window on a projector', async () => {
    const { page } = await school.visitor({ reducedMotion: 'reduce' });
    await lookAround(page);
    const troubles: string[] = [];
    for (const view of EAR_VIEWS) {
      await page.goto(new URL(`/ear/${view}`, page.url()).href);
      await page.locator('main h1, main h2').first().waitFor();
      for (const [width, height] of EVERYTHING ? WINDOWS : [WINDOWS[0], WINDOWS[3]]) {
        await page.setViewportSize({ width, height });
        await page.waitForTimeout(150);
        const found = await clashesOf(page);
        troubles.push(...found.map((trouble) => `${view} at ${width}x${height}: ${trouble}`));
        const filled = await page.locator('main').evaluate((main) => main.scrollHeight / innerHeight);
        if (width === 1920 && filled < 0.7) troubles.push(`${view} leaves ${Math.round(100 * (1 - filled))} % empty`);
      }
    }
    expect(troubles).toEqual([]);
  });
});
