import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

describe('making patterns', () => {
  it('what the class needs, as notes: harder, around a locked measure, kept, and for a line-up', async () => {
    const { page, context } = await school.guest();
    await page.getByRole('link', { name: 'Make', exact: true }).click();
    await page.getByText(/not firm in it yet|hardly heard yet|did so lately|this comes next/).waitFor();
    await page.keyboard.press('n');
    const cards = page.locator('.made-card');
    await cards.nth(3).waitFor();
    await page.locator('.made-notes svg').first().waitFor();
    await page.getByLabel('To practise').selectOption({ label: 'a rest given no time' });
    await page.getByLabel('Measures', { exact: true }).selectOption('4');
    await page.getByRole('radio', { name: '2' }).check();
    await page.getByRole('button', { name: 'Make twelve others' }).click();
    await page.locator('section[aria-label=Made][aria-busy=false]').waitFor();
    // One card: heard, harder, then the second measure stays and the others are made anew.
    const first = cards.first();
    const text = () => first.locator('.pattern-text').innerText();
    await first.getByRole('button', { name: 'Hear' }).click();
    await first.getByRole('button', { name: 'Stop' }).click();
    const before = await text();
    await first.getByRole('button', { name: 'Harder' }).click();
    await first.locator('.made-level', { hasText: 'level 3' }).waitFor();
    const harder = await text();
    expect(harder).not.toBe(before);
    await first.getByRole('button', { name: 'Keep measure 2' }).click();
    await first.getByRole('button', { name: 'Make the others anew' }).click();
    await page.waitForFunction(
      (was) => document.querySelector('.made-card .pattern-text')?.textContent !== was,
      harder,
    );
    expect((await text()).split(' | ')[1]).toBe(harder.split(' | ')[1]);
    // Kept, it is among the patterns; the rest is not.
    const kept = await text();
    await first.getByRole('button', { name: 'Keep', exact: true }).click();
    await first.getByRole('button', { name: 'Kept' }).waitFor();
    await page.getByRole('button', { name: /^Line-up: another one for each of/ }).click();
    await page.getByRole('heading', { name: 'Line-up' }).waitFor();
    await page.getByRole('link', { name: 'Patterns', exact: true }).click();
    await page.locator('.pattern-text', { hasText: kept }).waitFor();
    await context.close();
  });

  trial('every way to fill a measure, as a drill', async () => {
    const { page, context } = await school.guest();
    await page.goto(new URL('/make/all', page.url()).href);
    await page.getByText('4 measures.').waitFor();
    expect(await page.locator('.fill-list .pattern-text').allInnerTexts()).toEqual([
      'h h',
      'h (h)',
      '(h) h',
      '(h) (h)',
    ]);
    await page.getByRole('checkbox', { name: '(h)', exact: true }).uncheck();
    await page.getByRole('checkbox', { name: 'q', exact: true }).check();
    await page.getByText('5 measures.').waitFor();
    await page.getByRole('button', { name: 'Lead them as a drill' }).click();
    await page.waitForURL(/\/lead\?pattern=/);
    await page.locator('option:checked', { hasText: 'All of q, h' }).waitFor({ state: 'attached' });
    await context.close();
  });

  trial('a test for four levels, on a sheet', async () => {
    const { page, context } = await school.guest();
    await page.goto(new URL('/make', page.url()).href);
    await page.getByRole('button', { name: 'Make twelve' }).waitFor();
    await page.keyboard.press('Space');
    await page.getByRole('link', { name: 'A test for four levels' }).click();
    await page.locator('.sheet-part').nth(3).waitFor();
    expect(await page.getByLabel('Title of the sheet').inputValue()).toBe('Test');
    await context.close();
  });
});
