import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { PATTERNS } from '../demo/school.ts';
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

const measuresOf = (text: string) =>
  text.split('|').filter((part) => /[a-z]/.test(part)).length - (text.includes('^') ? 1 : 0);

describe('the board', () => {
  it('shows all of a rhythm as large as fits, nothing cut, nothing over anything else', async () => {
    const { page } = await school.visitor({ reducedMotion: 'reduce' });
    await lookAround(page);
    const shown = EVERYTHING
      ? PATTERNS
      : PATTERNS.filter(({ title }) => /Rain|Crab|Before the bell|lighthouse/.test(title));
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
