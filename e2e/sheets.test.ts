import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;
beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const at = async (path: string) => school.guest({ acceptDownloads: true }, path);

/** The words of each page of the file that is saved. */
async function savedPages(page: Page): Promise<string[]> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the PDF' }).click();
  const bytes = readFileSync(await (await download).path());
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages = Array.from({ length: pdf.numPages }, async (_, i) => {
    const { items } = await (await pdf.getPage(i + 1)).getTextContent();
    return items
      .map((item) => ('str' in item ? item.str : ''))
      .join(' ')
      .replace(/\s+/g, ' ');
  });
  return Promise.all(pages);
}

const parts = (page: Page) => page.getByRole('list', { name: 'Parts of the sheet' }).locator(':scope > li');
const titles = async (page: Page) =>
  parts(page).evaluateAll((all) => all.map((part) => part.getAttribute('aria-label')));

async function add(page: Page, ...kinds: readonly string[]): Promise<void> {
  await page.getByRole('button', { name: 'Add a part' }).click();
  for (const kind of kinds) await page.getByRole('button', { name: new RegExp(`^${kind}`) }).click();
  await page.getByRole('button', { name: 'Add a part' }).click();
}

const shown = (page: Page) =>
  page
    .getByRole('img', { name: /^Page 1 of/ })
    .locator('canvas')
    .waitFor();

describe('a sheet', () => {
  it('is put together, shown as it is printed, kept, and the same after a reload', async () => {
    const { page } = await at('/sheets');
    await shown(page);
    await page.getByLabel('Title of the sheet').fill('Week 7');
    await add(page, 'Other beats', 'How many');
    expect(await titles(page)).toEqual(['Write the counts', 'Other beats', 'How many?']);

    // Dragged by keys, and moved by its arrow.
    await page.getByRole('button', { name: 'Drag How many?' }).focus();
    await page.keyboard.press('Space');
    await page.getByText(/How many\? is taken|How many\?: place 3 of 3/).waitFor({ state: 'attached' });
    await page.keyboard.press('ArrowUp');
    await page.getByText('How many?: place 2 of 3').waitFor({ state: 'attached' });
    await page.keyboard.press('Space');
    await expect.poll(() => titles(page)).toEqual(['Write the counts', 'How many?', 'Other beats']);
    await page.getByRole('button', { name: 'Write the counts down' }).click();
    expect(await titles(page)).toEqual(['How many?', 'Write the counts', 'Other beats']);
    // Dragged by the mouse.
    const grip = page.getByRole('button', { name: 'Drag Other beats' });
    const [from, to] = [await grip.boundingBox(), await parts(page).first().boundingBox()];
    await page.mouse.move(from!.x + 5, from!.y + 5);
    await page.mouse.down();
    await page.mouse.move(from!.x + 5, from!.y - 40, { steps: 4 });
    await page.mouse.move(to!.x + 20, to!.y + 10, { steps: 8 });
    await page.mouse.up();
    await expect.poll(() => titles(page)).toEqual(['Other beats', 'How many?', 'Write the counts']);
    await page.getByRole('button', { name: 'Take How many? away' }).click();

    await parts(page).first().getByLabel('Questions').fill('3');
    await parts(page).last().getByLabel('Questions').fill('2');
    await parts(page).last().getByLabel('Level').selectOption('4');
    await page.getByText('7 points in all').waitFor();
    const before = await savedPages(page);
    expect(before[0]).toMatch(/^Name Date Week 7.*\/ 7.*Other beats.*Write the counts/);
    expect(before.at(-1)).toMatch(/Key: Week 7.*out of 7/);

    await page.getByRole('button', { name: 'Keep this sheet' }).click();
    await page.waitForURL(/\/sheets\/[0-9a-f-]{36}/);
    await page.reload();
    await shown(page);
    expect(await titles(page)).toEqual(['Other beats', 'Write the counts']);
    expect(await savedPages(page)).toEqual(before);

    // Others with one key, and back by the seed.
    const seed = await page.getByLabel('Seed').inputValue();
    await page.keyboard.press('n');
    await expect.poll(() => page.getByLabel('Seed').inputValue()).not.toBe(seed);
    await page.getByText('7 points in all').waitFor();
    expect(await savedPages(page)).not.toEqual(before);
    await page.getByLabel('Seed').fill(seed);
    expect(await savedPages(page)).toEqual(before);

    // Found again from a new one, and thrown away.
    await page.getByRole('button', { name: 'New sheet' }).click();
    await page.getByRole('button', { name: 'Keep this sheet' }).waitFor();
    await page.getByLabel('Kept sheets').selectOption({ label: 'Week 7' });
    await page.getByRole('button', { name: 'Save the changes' }).waitFor();
    page.once('dialog', (dialog) => void dialog.accept());
    await page.getByRole('button', { name: 'Throw this sheet away' }).click();
    await page.getByRole('button', { name: 'Keep this sheet' }).waitFor();
    expect(await page.getByLabel('Kept sheets').count()).toBe(0);
  });

  trial('opens to be printed in a window of its own, at a key', async () => {
    const { page } = await at('/sheets');
    await shown(page);
    // A browser that opens no window has it saved instead.
    await page.evaluate(() => {
      window.open = (url) => (Object.assign(window, { printed: String(url) }), null);
    });
    const saving = page.waitForEvent('download');
    await page.keyboard.press('Space');
    const file = readFileSync(await (await saving).path());
    expect(await page.evaluate(() => (window as unknown as { printed: string }).printed)).toMatch(/^blob:/);
    expect(file.subarray(0, 5).toString()).toBe('%PDF-');
  });

  trial('is for each child of a class, in two versions, and its totals go in with one key a child', async () => {
    const { page } = await at('/sheets');
    await page.getByLabel('For').selectOption({ label: 'Lighthouse 4' });
    await parts(page).getByLabel('Questions').fill('7');
    await page.getByLabel('Title of the sheet').fill('Counts 1');
    await page.getByLabel('Two versions, A and B').check();
    await page.getByLabel('The children’s names on it').check();
    const said = await page.getByText(/pages are printed: a copy for each of \d+ children/).textContent();
    const pages = await savedPages(page);
    expect(Number.parseInt(said!)).toBe(pages.length);
    expect(pages[0]).toMatch(/Ada/);
    const children = pages.filter((text) => text.startsWith('Name'));
    expect(children.map((text) => /version ([AB])/.exec(text)![1]).slice(0, 4)).toEqual(['A', 'B', 'A', 'B']);
    expect(pages.filter((text) => text.startsWith('Key'))).toHaveLength(2);

    await page.getByRole('link', { name: 'Enter the totals' }).click();
    expect(await page.getByLabel('Out of').inputValue()).toBe('14');
    await page.getByText('a is 10, b is 11').waitFor();
    await page.getByLabel('Ada', { exact: true }).and(page.locator(':focus')).waitFor();
    await page.keyboard.press('9');
    await page.keyboard.press('d');
    await page.keyboard.press('Enter');
    await page.keyboard.press('7');
    await page.getByRole('button', { name: 'Save the marks' }).click();
    await page.getByRole('button', { name: 'Ada, Counts 1: 9 of 14' }).waitFor();
    await page.getByRole('button', { name: 'Bram, Counts 1: 13 of 14' }).waitFor();
  });

  trial('is made from a pattern, from what a class finds hard, and says when there is not enough to ask', async () => {
    const { page } = await at('/patterns');
    await page.getByRole('link', { name: /Leaning mast/ }).click();
    await page.getByRole('link', { name: 'On a sheet' }).click();
    await shown(page);
    expect(await titles(page)).toEqual(['Write the counts', 'Practice slip']);
    expect(await page.getByLabel('Title of the sheet').inputValue()).toBe('Leaning mast');
    expect(await parts(page).first().getByLabel('Rhythms').locator(':checked').innerText()).toBe('Leaning mast');
    await parts(page)
      .first()
      .getByText(/Only \d+ different ones? of these/)
      .waitFor();
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('link', { name: 'A sheet of what they find hard' }).click();
    await page.getByRole('button', { name: /^From \d elements/ }).click();
    expect(
      await page.getByRole('group', { name: 'What it is made of' }).getByRole('checkbox', { checked: true }).count(),
    ).toBeGreaterThan(1);
    await page.getByRole('button', { name: 'Make it about these' }).waitFor();
  });

  trial('a booklet follows the plan of the term: contents, a sheet a lesson, keys at the end', async () => {
    const { page } = await at('/plan/term');
    await page.getByRole('link', { name: 'Booklet of sheets' }).click();
    await page.getByText(/sheets on \d+ pages, keys at the end/).waitFor();
    const lessons = page.getByRole('list', { name: 'Lessons of the term' }).getByRole('combobox');
    for (const one of await lessons.all()) await one.selectOption('none');
    await page.getByText('the booklet is empty').waitFor();
    expect(await page.getByRole('button', { name: 'Save the PDF' }).isDisabled()).toBe(true);
    await lessons.nth(0).selectOption('made');
    await lessons.nth(1).selectOption('made');
    await page.getByRole('checkbox', { name: 'True or false?' }).uncheck();
    await page.getByText(/^2 sheets on [567] pages/).waitFor();
    const before = await savedPages(page);
    expect(before[0]).toMatch(/^Rhythm booklet Harbour 2 .*Contents .*2 .*3 For the teacher: keys 4/);
    expect(before[1]).toMatch(/^Name Date .*Write the counts.*Complete the measure.* 2$/);
    expect(before[3]).toMatch(/^Key: .* 4$/);
    // What was chosen is there after a reload; other questions are others.
    await page.reload();
    await page.getByText(/^2 sheets on [567] pages/).waitFor();
    expect(await savedPages(page)).toEqual(before);
    await page.keyboard.press('n');
    await expect.poll(() => savedPages(page)).not.toEqual(before);
    await page.getByRole('link', { name: 'The plan' }).click();
    await page.waitForURL(/\/plan\/term$/);
  });
});
