import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { School, lookAround } from './browser.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

it('some patterns are a page of lines: led, one line alone, and a take of it has a result a line', async () => {
  const { page } = await school.visitor({ reducedMotion: 'reduce' });
  await lookAround(page);
  await page.getByRole('button', { name: 'Page of lines' }).click();
  await page.getByText('Choose the lines in the order').waitFor();
  await page.getByRole('button', { name: /^Slow tide/ }).click();
  await page.getByText('1 line: choose one more.').waitFor();
  await page.getByRole('button', { name: /^Two gulls/ }).click();
  await page.getByRole('button', { name: /^Line 2: Two gulls/ }).waitFor();
  await page.keyboard.press('l');

  await page.locator('.ruler .mark-line').first().waitFor();
  expect(await page.locator('#lead-plan').inputValue()).toBe('page');
  expect(await page.locator('.mark-line').allTextContents()).toEqual(['1', '2']);
  await page.getByText('5 passes').waitFor();
  await page.getByLabel('Measures', { exact: true }).selectOption({ label: 'all of it' });
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('Space');
  await page.locator('.lead-left').getByText('left').waitFor();
  await page.keyboard.press('2');
  await page.getByRole('button', { name: /^Looping/ }).waitFor();
  const here = page.locator('.ruler-system').filter({ has: page.locator('[data-here="true"]') });
  await here.locator('.mark-line').getByText('2', { exact: true }).waitFor();
  await page.keyboard.press('0');
  await page.getByRole('button', { name: /^Loop / }).waitFor();
  await page.keyboard.press('Escape');

  await page.goto(page.url().replace('/lead', '/take'));
  await page.getByRole('button', { name: 'Hear the practice child' }).click();
  const lines = page.getByRole('list', { name: 'Line by line' });
  await lines.getByText('Line 1').waitFor();
  expect(await lines.getByRole('listitem').allTextContents()).toEqual(['Line 1  all right', 'Line 2  all right']);
  // Kept as any other pattern.
  await page.goto(`${school.url}/patterns`);
  await page.getByRole('link', { name: /^Lines: Slow tide, Two gulls/ }).waitFor();
});

it('a second window shows the class the board and the run, in step, and nothing to press', async () => {
  const { page, context } = await school.guest({ reducedMotion: 'reduce' });
  await page.getByRole('link', { name: /^Two gulls/ }).click();
  await page.getByRole('button', { name: 'Board' }).click();
  await page.locator('.board .lane-notes svg').first().waitFor();
  const opened = context.waitForEvent('page');
  await page.keyboard.press('o');
  const show = await opened;
  await show.getByRole('heading', { name: 'Two gulls' }).waitFor();
  await show.locator('.ruler .lane-notes svg').first().waitFor();
  await page.keyboard.press('ArrowLeft');
  await show.getByRole('heading', { name: 'Walking to the quay' }).waitFor();
  await page.keyboard.press('n');
  await show.locator('.lane-notes').first().waitFor({ state: 'detached' });

  await page.goto(`${school.url}/lead`);
  await page.getByRole('button', { name: /^Start/ }).click();
  await show.locator('.lead-now').getByText('1 of 3').waitFor();
  const beats = new Set<string>();
  const beat = show.locator('.cue-text').first();
  await expect
    .poll(async () => beats.add((await beat.textContent())!).size, { timeout: 60_000, interval: 50 })
    .toBeGreaterThan(3);
  await page.keyboard.press('Space');
  await show.locator('.lead-role').getByText('Paused').waitFor();
  expect(await show.locator('.lead-words').textContent()).toBe(await page.locator('.lead-words').textContent());
  // Nothing of the menu is there, nor a bar whose keys would lead out of the window.
  expect(await show.locator('.shell-bar, .lesson-bar').count()).toBe(0);
  await show.keyboard.press('Tab');
  expect(await show.evaluate(() => document.activeElement!.closest('.shell-bar'))).toBeNull();
});
