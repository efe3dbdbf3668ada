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

const titles = (page: Page) => page.locator('.pattern-card strong').allInnerTexts();
const arranged = (page: Page) => page.locator('.arrange-head label').allInnerTexts();
const saved = (page: Page) =>
  page.waitForResponse((response) => response.url().endsWith('/api/patterns') && response.request().method() === 'GET');

describe('the list of patterns', () => {
  it('is searched by words, meter, element and what the class has met', async () => {
    const { page, context } = await school.guest();
    await page.locator('.pattern-card').first().waitFor();
    const all = (await titles(page)).length;
    await page.getByRole('searchbox').fill('two gulls');
    await page.getByText('1 pattern', { exact: true }).waitFor();
    expect(await titles(page)).toEqual(['Two gulls']);
    await page.getByRole('button', { name: /^By meter/ }).click();
    await page.getByRole('button', { name: 'Show all' }).click();
    await page.getByLabel('Meter').selectOption('6/8');
    await page.getByText(/^\d+ patterns?$/).waitFor();
    expect(await titles(page)).toContain('Rolling barrels');
    await page.getByLabel('Meter').selectOption('');
    await page.getByLabel('With', { exact: true }).selectOption({ label: 'syncopation' });
    await page.locator('.pattern-card', { hasText: 'Two gulls' }).waitFor({ state: 'detached' });
    expect(await titles(page)).toContain('Rocking pier');
    await page.getByRole('button', { name: 'Show all' }).click();
    await page.getByRole('checkbox', { name: /^Met by/ }).check();
    await page.locator('.pattern-card', { hasText: 'Three in a boat' }).waitFor({ state: 'detached' });
    expect((await titles(page)).length).toBeLessThan(all);
    await context.close();
  });

  trial('is put into order by keys and buttons, into folders, and away; it stays so', async () => {
    const { page, context } = await school.guest();
    const away = (await page.locator('.pattern-card').first().getAttribute('href'))!.split('/').at(-1);
    await page.getByRole('button', { name: 'Arrange' }).click();
    await page.locator('.arrange-head').first().waitFor();
    const [first, second, third] = (await arranged(page)) as [string, string, string];
    const [moved] = [saved(page), page.getByRole('button', { name: `${first} one place on` }).click()];
    await moved;
    expect((await arranged(page)).slice(0, 2)).toEqual([second, first]);
    // By keys: taken, one place on, put down.
    await page.keyboard.press('Tab');
    await page.getByRole('button', { name: `Move ${first}` }).focus();
    await page.keyboard.press('Space');
    await page.getByText(new RegExp(`${first}(: place 2 of| is taken)`)).waitFor({ state: 'attached' });
    await page.keyboard.press('ArrowRight');
    await page.getByText(`${first}: place 3 of`).waitFor({ state: 'attached' });
    const down = saved(page);
    await page.keyboard.press('Space');
    await down;
    expect((await arranged(page)).slice(0, 3)).toEqual([second, third, first]);
    // Two go into a folder, one away.
    await page.getByRole('checkbox', { name: second, exact: true }).check();
    await page.getByRole('checkbox', { name: third, exact: true }).check();
    await page.getByLabel('Folder', { exact: true }).fill('For Friday');
    await page.getByRole('button', { name: 'Put there' }).click();
    await page.locator('.pattern-folder').nth(1).waitFor();
    await page.getByRole('checkbox', { name: first, exact: true }).check();
    await page.getByRole('button', { name: 'Put away' }).click();
    await page.getByRole('checkbox', { name: first, exact: true }).waitFor({ state: 'detached' });
    await page.reload();
    await page.locator('.pattern-card').first().waitFor();
    expect((await titles(page)).slice(0, 2)).toEqual([second, third]);
    await page.keyboard.press('f');
    await page.getByRole('combobox', { name: 'Folder' }).selectOption('For Friday');
    await page.getByText('2 patterns', { exact: true }).waitFor();
    // What is put away is offered nowhere, and comes back.
    await page.getByRole('link', { name: 'Lead', exact: true }).click();
    await page.locator('option', { hasText: second }).first().waitFor({ state: 'attached' });
    expect(await page.locator('option', { hasText: first }).count()).toBe(0);
    // From its own page it is led all the same.
    await page.goto(new URL(`/lead?pattern=${away}`, page.url()).href);
    await page.locator('option:checked', { hasText: first }).waitFor({ state: 'attached' });
    await page.getByRole('link', { name: 'Patterns', exact: true }).click();
    await page.getByRole('button', { name: /^By meter/ }).click();
    await page.getByRole('combobox', { name: 'Folder' }).selectOption({ label: 'Put away' });
    await page.getByRole('button', { name: 'Arrange' }).click();
    await page.getByRole('checkbox', { name: first, exact: true }).check();
    await page.getByRole('button', { name: 'Bring back' }).click();
    await page.getByText('None like this.').waitFor();
    await context.close();
  });
});
