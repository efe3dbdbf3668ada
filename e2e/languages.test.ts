import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { CLASSES, PATTERNS, PATTERNS_IN_PARTS, TEACHER } from '../demo/school.ts';
import { School } from './browser.test-helper.ts';
import { EVERYTHING, trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

it('the door, the pages, the server and the next visit are in the language that was chosen', async () => {
  const { page } = await school.guest();
  await page.getByRole('link', { name: /Robin Quay/ }).click();
  await page.getByLabel('Language of the pages').selectOption('Deutsch');
  await page.getByRole('heading', { name: 'Sprache' }).waitFor();
  expect(await page.locator('html').getAttribute('lang')).toBe('de');
  await page.getByRole('link', { name: 'Rhythmen', exact: true }).click();
  await page.getByText('Neuer Rhythmus').waitFor();
  await page.getByRole('link', { name: 'Klasse', exact: true }).click();
  await page.getByRole('link', { name: /Lighthouse 4/ }).click();
  await page.getByText('Bausteine').first().waitFor();
  const said = await page.evaluate(async () => {
    const answer = await fetch('/api/patterns/6f9619ff-8b86-4d01-b42d-00c04fc964ff', {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', 'Accept-Language': 'de' },
      body: JSON.stringify({ title: 'x', text: '4/4 q x' }),
    });
    return ((await answer.json()) as { error: { message: string } }).error.message;
  });
  expect(said).toMatch(/^Der Rhythmus ist nicht lesbar: Zeile 1/);
  await page.reload();
  await page.getByRole('link', { name: 'Rhythmen', exact: true }).waitFor();
  await page.getByRole('link', { name: /Robin Quay/ }).click();
  await page.getByLabel('Sprache der Seiten').selectOption({ index: 0 });
  await page.getByRole('heading', { name: 'Language' }).waitFor();
});

trial('a class learns in another language than its teacher works in', async () => {
  const { page } = await school.guest();
  await page.getByRole('link', { name: 'Class', exact: true }).click();
  await page.getByRole('link', { name: /Harbour 2/ }).click();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByLabel('What children see and hear').selectOption('Español');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('button', { name: 'Change', exact: true }).waitFor();
  const path = new URL(page.url()).pathname;
  await page.goto(new URL(`${path}/reports`, page.url()).href);
  await page
    .getByText(/ha palmeado .* un ritmo escrito|Todavía no se ha escuchado/)
    .first()
    .waitFor();
  await page
    .getByRole('button', { name: /^Print/ })
    .first()
    .waitFor();
});

/** Text that went through no catalogue, and is no name or rhythm of the demo. */
async function leftInEnglish(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const found: string[] = [];
    for (const element of document.querySelectorAll('button, label, h1, h2, h3, legend, dt, nav a, .caution')) {
      if (element.closest('.rhythm-card, .pattern-card')) continue;
      let text = element.textContent ?? '';
      for (const kbd of element.querySelectorAll('kbd')) text = text.replace(kbd.textContent ?? '', ' ');
      for (let depth = 0; depth < 6; depth++) text = text.replace(/⟦[^⟦⟧]*⟧/g, ' ');
      if (/[a-z]{3}/.test(text)) found.push(text.trim().slice(0, 60));
    }
    return found;
  });
}

/** What no catalogue has: names of the demo, of languages and of the product. */
const NAMES = new Set([
  TEACHER.name,
  'Clapboard',
  ...CLASSES.flatMap(({ name, children }) => [name, ...children]),
  ...[...PATTERNS, ...PATTERNS_IN_PARTS].map(({ title }) => title),
]);
const isName = (text: string) => NAMES.has(text.replace(/[^\p{L}\d ]+.*$/u, '').trim());

const PATHS = EVERYTHING
  ? [
      '/today',
      '/values',
      '/patterns',
      '/make',
      '/lead',
      '/ear',
      '/take',
      '/take/line-up',
      '/classes',
      '/plan',
      '/sheets',
    ]
  : ['/today', '/values', '/make', '/ear', '/take'];

trial('read from right to left no page is wider than its window, and time still goes from left to right', async () => {
  const { page } = await school.guest();
  await page.evaluate(() => localStorage.setItem('language', 'pseudo-rtl'));
  for (const path of EVERYTHING ? PATHS : ['/today', '/lead']) {
    await page.goto(new URL(path, page.url()).href);
    await page.locator('main h1, main h2, main button').first().waitFor();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect([path, wide <= 1]).toEqual([path, true]);
  }
  await page.goto(new URL('/lead', page.url()).href);
  // The ruler is drawn anew while the page comes: each is asked when it stands there.
  const directionOf = (one: string) =>
    page
      .locator(one)
      .first()
      .evaluate((element) => getComputedStyle(element).direction);
  expect(await directionOf('body')).toBe('rtl');
  await expect.poll(() => directionOf('.ruler'), { timeout: 20_000 }).toBe('ltr');
});

it('no sentence stands on a page that no catalogue has, and nothing is cut where words are longer', async () => {
  const { page } = await school.guest();
  await page.evaluate(() => localStorage.setItem('language', 'pseudo'));
  for (const path of PATHS) {
    await page.goto(new URL(path, page.url()).href);
    await page.locator('main h1, main h2, main button').first().waitFor();
    const left = (await leftInEnglish(page)).filter((text) => !isName(text) && !/\d{1,2} [A-Z][a-z]{2}/.test(text));
    expect([path, left]).toEqual([path, []]);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect([path, wide <= 1]).toEqual([path, true]);
  }
});
