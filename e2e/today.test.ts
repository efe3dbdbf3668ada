import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

it('a visit begins with the day: the next lesson is prepared and started with the space bar', async () => {
  const { page } = await school.visitor();
  await page.getByRole('button', { name: /Look around/ }).click();
  const next = page.getByRole('region', { name: 'Next lesson' });
  await next.getByText('Nothing is prepared yet.').waitFor();
  const room = (await next.locator('.today-room').textContent())!;
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: /^Prepare the next lesson/ }).waitFor();
  expect(await page.getByLabel('Class', { exact: true }).locator('option:checked').textContent()).toBe(room);
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: /^Start lesson/ }).waitFor();
  const title = await page.getByLabel('Name of the lesson').inputValue();

  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await next.getByText(title, { exact: true }).waitFor();
  await next.getByRole('button', { name: /^Start lesson/ }).waitFor();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('Space');
  await page.locator('.lesson-bar').waitFor();
  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await next.getByRole('button', { name: /^To the lesson that is on/ }).waitFor();

  // Every class at one press.
  const other = page.getByRole('region', { name: 'Classes' }).getByRole('link').nth(1);
  const name = (await other.locator('strong').textContent())!.trim();
  await other.click();
  await page.getByRole('heading', { name, level: 1 }).waitFor();
});
