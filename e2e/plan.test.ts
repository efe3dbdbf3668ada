import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

/** The plan of Lighthouse 4. */
async function plan(part: 'lessons' | 'term') {
  const { page } = await school.guest({}, '/plan');
  await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  if (part === 'term') await page.getByRole('link', { name: 'Term', exact: true }).click();
  return page;
}

const rows = (page: Page) => page.locator('.term-lessons > li');
const stepsIn = async (page: Page, row: number) =>
  (await rows(page).nth(row).locator('.plan-step').allInnerTexts()).map((text) => text.trim());
/** What is done on this page is stored. */
const stored = (page: Page, what: 'lessons' | 'term-plan') =>
  page.waitForResponse((response) => response.url().includes(`/${what}`) && response.request().method() === 'PUT');
const kept = (page: Page) => page.locator('.lesson-kept', { hasText: 'Kept' }).waitFor();

describe('the term', () => {
  trial('is changed by keys: a lesson moved, what was not done moves on, and stays so', async () => {
    const page = await plan('term');
    await rows(page).nth(3).waitFor();
    const [first, second] = [await stepsIn(page, 0), await stepsIn(page, 1)];
    expect(await page.locator('.term-picture tbody tr').count()).toBeGreaterThan(6);
    expect(await page.locator('.sign-heard').count()).toBeGreaterThan(5);
    // A lesson takes the place of the next by its keys.
    const moved = stored(page, 'term-plan');
    await rows(page).first().getByRole('button', { name: /^Drag/ }).focus();
    await page.keyboard.press(' ');
    await page.getByText(/is taken|: place 1 of/).waitFor({ state: 'attached' });
    await page.keyboard.press('ArrowDown');
    await page.getByText(/: place 2 of/).waitFor({ state: 'attached' });
    await page.keyboard.press(' ');
    await moved;
    expect((await stepsIn(page, 0)).length + (await stepsIn(page, 1)).length).toBe(first.length + second.length);
    // Not done, it stands in the next lesson.
    const [row] = await rows(page).evaluateAll((list) =>
      list.flatMap((one, i) => (one.querySelector('.plan-step') ? [i] : [])),
    );
    const [step] = await stepsIn(page, row!);
    const on = stored(page, 'term-plan');
    await rows(page)
      .nth(row!)
      .getByRole('button', { name: `Not done: ${step!}` })
      .click();
    await on;
    expect(await stepsIn(page, row!)).not.toContain(step);
    expect(await stepsIn(page, row! + 1)).toContain(step);
    await page.reload();
    await rows(page).nth(3).waitFor();
    expect(await stepsIn(page, row! + 1)).toContain(step);
  });

  trial('goes by days, holidays and order, says what does not fit, and goes out as a calendar', async () => {
    const page = await plan('term');
    await rows(page).nth(3).waitFor();
    const count = await rows(page).count();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Calendar file' }).click();
    const calendar = readFileSync(await (await download).path(), 'utf8').replaceAll('\r\n ', '');
    expect(calendar).toMatch(/SUMMARY:Lighthouse 4: .*: (new|read|write|for a mark)/);
    expect(calendar).toMatch(/DTSTART:\d{8}T(094000|112000)\r\n/);
    // Half of the lessons: the last elements do not fit any more.
    await page.getByRole('button', { name: 'Take lesson 2 away' }).click();
    await page.getByText(/^Does not fit into the term/).waitFor();
    expect(await rows(page).count()).toBeLessThan(count);
    await page.getByRole('button', { name: 'Another lesson a week' }).click();
    await page.getByText(/^Does not fit into the term/).waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Dotted eighth and sixteenth earlier' }).click();
    const order = page.locator('.new-elements li');
    expect(await order.nth(4).innerText()).toContain('Dotted eighth and sixteenth');
    await page.getByLabel('Another element').selectOption('triplet');
    expect(await order.last().innerText()).toContain('Triplet');
    const saved = stored(page, 'term-plan');
    await page.getByRole('button', { name: 'Holidays', exact: true }).click();
    await saved;
    await page.getByLabel('First day of holidays 2').waitFor();
  });
});

describe('a lesson', () => {
  it('is prepared, put into order, held from block to block by one key, and what was left out moves on', async () => {
    const page = await plan('lessons');
    await page.getByRole('button', { name: /^Prepare the next lesson/, disabled: false }).waitFor();
    await page.keyboard.press(' ');
    const blocks = page.locator('.block-card');
    await blocks.nth(2).waitFor();
    await kept(page);
    // A block with something new in it: said, then met in the block itself.
    await page.getByRole('group', { name: 'Add a block' }).getByRole('button', { name: 'Lead' }).click();
    await blocks
      .filter({ hasText: 'pass after pass' })
      .last()
      .getByLabel('A pattern for Lead')
      .selectOption({ label: 'Limping sailor' });
    const lead = blocks.filter({ has: page.locator('.pattern-chip', { hasText: 'Limping sailor' }) });
    await lead.getByText(/^Dotted eighth and sixteenth is not met yet/).waitFor();
    await lead.getByLabel(/^New in Lead/).selectOption('dotted-eighth meet');
    await lead.getByText(/is not met yet/).waitFor({ state: 'detached' });
    await lead.getByText(/computed/).waitFor();
    await lead.getByLabel('Minutes of Lead').fill('5');
    await page
      .getByText(/computed/)
      .last()
      .waitFor();
    // Its place: the second.
    const count = await blocks.count();
    for (let at = count - 2; at > 1; at--) await lead.getByRole('button', { name: 'Lead up' }).click();
    const changed = stored(page, 'lessons');
    await page.getByLabel('Name of the lesson').fill('Sailors');
    await changed;
    await kept(page);
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press(' ');
    const bar = page.getByRole('region', { name: 'Lesson: Sailors' });
    await bar.getByText('1. Warm-up').waitFor();
    await page.getByText('Listen, then clap it back').waitFor();
    await page.keyboard.press('>');
    await bar.getByText('2. Lead').waitFor();
    await page.getByLabel('Pattern').waitFor();
    expect(await page.getByLabel('Pattern').locator('option:checked').innerText()).toBe('Limping sailor');
    expect(await page.getByLabel('Plan', { exact: true }).locator('option:checked').innerText()).toBe('Read it new');
    // A reload in the middle: the lesson goes on.
    await page.reload();
    await bar.getByText('2. Lead').waitFor();
    await page.keyboard.press('<');
    await bar.getByText('1. Warm-up').waitFor();
    await page.getByRole('link', { name: 'Patterns', exact: true }).click();
    await bar.getByRole('button', { name: 'To this block' }).click();
    await page.getByText('Listen, then clap it back').waitFor();
    await page.keyboard.press('>');
    await bar.getByRole('button', { name: 'Leave out' }).click();
    await bar.getByText('3. ').waitFor();
    const written = stored(page, 'lessons');
    await bar.getByRole('button', { name: 'End', exact: true }).click();
    await written;
    await page.getByText(/^Held on/).waitFor();
    expect(await page.getByRole('region', { name: 'How it went' }).innerText()).toMatch(
      /Left out: Lead, .* and Close\./,
    );
    expect(await bar.count()).toBe(0);
    // For the other class: what it has not met is made of what it has.
    const other = page.waitForResponse((one) => one.url().includes('/lessons/') && one.request().method() === 'PUT');
    await page.getByLabel('A copy for another class').selectOption({ label: 'Harbour 2' });
    await other;
    await page.getByRole('link', { name: 'The lesson for Harbour 2' }).click();
    await page.getByRole('link', { name: 'Harbour 2', exact: true }).waitFor();
    await blocks.nth(2).waitFor();
    expect(await page.getByText(/^Held on/).count()).toBe(0);
    await page.getByRole('link', { name: 'A sheet for it' }).click();
    await page.getByRole('heading', { name: 'Sheets' }).or(page.locator('.sheet-part').first()).first().waitFor();
  });

  trial('from a template is changed while the server is away; nothing is lost, and it is deleted', async () => {
    const page = await plan('lessons');
    await page.getByRole('button', { name: /^Hear everybody/ }).click();
    await page.locator('.block-card').nth(3).waitFor();
    expect(await page.locator('.block-card strong').allInnerTexts()).toEqual([
      '1. Warm-up',
      '2. Lead',
      '3. Line-up',
      '4. Close',
    ]);
    await page.getByLabel('A pattern for Line-up').selectOption({ label: 'Two gulls' });
    await page.getByLabel('Tries in Line-up').selectOption('2');
    await kept(page);
    await school.stopServer();
    await page.getByLabel('Name of the lesson').fill('By the sea');
    await page
      .getByText(/cannot be reached/)
      .first()
      .waitFor();
    await school.startServer();
    await page.reload();
    await kept(page);
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('.lesson-title')?.value === 'By the sea');
    await page.getByRole('link', { name: 'Open Line-up' }).click();
    await page.getByRole('heading', { name: 'Line-up' }).waitFor();
    expect(await page.getByLabel('Tries').locator('option:checked').innerText()).toBe('2');
    await page.goBack();
    await page.getByRole('button', { name: 'Delete this lesson' }).click();
    await page.getByText('A lesson from the start').waitFor();
    expect(await page.getByText('By the sea').count()).toBe(0);
  });
});
