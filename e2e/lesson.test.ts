import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, tapInTime } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open({ inTime: true });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

describe('a lesson', () => {
  it('hears one child after the other', async () => {
    const page = await school.guestIn('Take');
    await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
    await page.getByLabel('Pattern').selectOption({ label: 'Leaning mast' });
    await page.getByRole('button', { name: 'Faster' }).click();
    const tempo = Number(await page.getByLabel('Tempo, beats a minute').inputValue());
    await page.getByRole('button', { name: 'Slower' }).click();
    expect(Number(await page.getByLabel('Tempo, beats a minute').inputValue())).toBe(tempo - 4);
    await page.getByRole('radio', { name: 'Ada' }).check();
    await page.getByRole('button', { name: /Start: Ada/ }).click();
    await tapInTime(page, tempo - 4, [1, 2.5, 3, 4, 5, 6.5, 7], ' ');
    await page.getByText(/right/).first().waitFor();
    await page.getByRole('button', { name: /Bram/ }).click();
    await page.getByRole('button', { name: /Start: Bram/ }).waitFor();
    expect(await page.getByRole('radio', { name: 'Bram' }).isChecked()).toBe(true);
    // Ada has a take of this pattern now.
    await page.locator('.child-choice', { hasText: 'Ada' }).getByText('has a take').waitFor({ state: 'attached' });
  });

  trial('with repeats says which time it was, in the take and in the class', async () => {
    const page = await school.guestIn('Patterns');
    await page.getByRole('button', { name: /New pattern/ }).click();
    await page.getByLabel('Title').fill('Twice round');
    await page.getByLabel('Rhythm', { exact: true }).fill('4/4 |: q q h | q. e q (q) :|');
    await page.locator('.save-saved').waitFor();
    await page.getByRole('button', { name: 'Hear a child clap it' }).click();
    await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
    await page.getByRole('radio', { name: 'Celia' }).check();
    await page.getByRole('button', { name: /Start: Celia/ }).click();
    await tapInTime(page, 72, [1, 2, 3, 5, 6.5, 7, 9, 10, 11, 13, 14, 15], ' ');
    const said = page.locator('.fix-first');
    await said.filter({ hasText: 'Measure 2, second time, beat' }).waitFor();
    const here = await said.textContent();
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('link', { name: 'Celia', exact: true }).click();
    await page.locator('.takes-cell').getByRole('link', { name: 'Twice round' }).click();
    await said.waitFor();
    expect(await said.textContent()).toBe(here);
  });
});
