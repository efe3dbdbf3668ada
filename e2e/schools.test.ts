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

/** The administrator makes an invitation. @returns its code */
async function invited(page: Page): Promise<string> {
  await page.goto(`${school.url}/school`);
  await page.getByRole('button', { name: 'Make an invitation' }).click();
  return page.getByRole('status').locator('output').innerText();
}

/** Somebody with an invitation comes in. */
async function comeIn(page: Page, name: string, code: string): Promise<void> {
  await page.getByRole('button', { name: 'I was invited' }).click();
  await page.getByLabel('Your name at the school').fill(name);
  await page.getByLabel('Code of the invitation').fill(code);
  await page.getByLabel('New password').fill('seven wet stones');
  await page.getByRole('button', { name: 'Make my account and sign in' }).click();
  await page.getByRole('link', { name }).waitFor();
}

describe('a colleague', () => {
  it('comes in with an invitation, takes from the shelf, and lays something there', async () => {
    const { page } = await school.guest();
    const code = await invited(page);
    const { page: hers } = await school.visitor();
    await comeIn(hers, 'Nell Buoy', code);
    await hers.goto(`${school.url}/shelf`);
    await hers.getByRole('button', { name: 'Look at “Three ropes”' }).click();
    await hers.getByRole('button', { name: 'Take a copy' }).click();
    // A copy says where it is from.
    await hers.getByRole('link', { name: /Second rope/ }).click();
    await hers.getByText('by Noor Tide, Marrow Lane School').waitFor();
    await hers.getByLabel('Title').fill('Rope of my own');
    await hers.getByText('Saved', { exact: true }).waitFor();
    await hers.getByRole('link', { name: 'For the school’s shelf' }).click();
    await hers.getByLabel('A word on it').fill('made harder');
    await hers.getByRole('button', { name: 'Lay it on the shelf' }).click();
    await hers.getByRole('button', { name: 'Take “Rope of my own” away' }).waitFor();
    await page.goto(`${school.url}/shelf`);
    await page.getByText('by Nell Buoy, Marrow Lane School').waitFor();
    expect(await page.getByText('made harder').count()).toBe(1);
    // The code was good for one.
    await hers.getByRole('button', { name: 'Sign out' }).click();
    await hers.getByRole('button', { name: 'I was invited' }).click();
    await hers.getByLabel('Your name at the school').fill('Otto Weed');
    await hers.getByLabel('Code of the invitation').fill(code);
    await hers.getByLabel('New password').fill('seven wet stones');
    await hers.getByRole('button', { name: 'Make my account and sign in' }).click();
    await hers.getByText('This invitation does not fit').waitFor();
  });
});

describe('a child', () => {
  trial('is deleted wherever it stands, and the class page knows it no more', async () => {
    const { page } = await school.guest();
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    const first = page.getByRole('rowheader').getByRole('link').first();
    const name = await first.innerText();
    await first.click();
    await page.getByRole('button', { name: 'What is kept' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: `Save everything of ${name}` }).click(),
    ]);
    expect(file.suggestedFilename()).toBe(`${name}.json`);
    await page.getByLabel(`Write ${name} to say so`).fill(name);
    await page.getByRole('button', { name: 'Delete everything' }).click();
    await page.getByRole('heading', { name: `Nothing of ${name} is left` }).waitFor();
    expect(
      await page
        .getByRole('row', { name: /^takes/ })
        .getByRole('cell')
        .last()
        .innerText(),
    ).toBe('0');
    await page.getByRole('button', { name: 'Done' }).click();
    await page.getByRole('heading', { name: 'Lighthouse 4' }).waitFor();
    expect(await page.getByRole('rowheader').getByRole('link', { name, exact: true }).count()).toBe(0);
  });
});
