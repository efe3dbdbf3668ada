import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, longRopes, lookAround, tapInTime } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open({ inTime: true });
});

afterEach(() => school.tidy());
afterAll(() => school.close());

describe('nothing played is lost', () => {
  const takeOne = async (page: Awaited<ReturnType<School['visitor']>>['page']) => {
    await lookAround(page);
    await page.goto(`${school.url}/take`);
    await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
    await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Long rope' });
    await page.getByRole('radio', { name: /Wren/ }).check();
    await page.getByRole('button', { name: /Start: Wren/ }).click();
    await tapInTime(page, 72, [1, 3, 4, 5, 6, 7], 'f');
    await page.getByRole('button', { name: 'Done' }).click();
    await page.locator('.take-result').waitFor();
  };
  trial('a take survives a reload in the middle of its saving', async () => {
    const { page, context } = await school.visitor();
    let held = 0;
    await context.route('**/api/takes/*', async (route) => {
      held++;
      await new Promise((resolve) => setTimeout(resolve, 60_000)).then(() => route.abort().catch(() => undefined));
    });
    await takeOne(page);
    await page.getByText('1 take waiting to be stored').waitFor();
    await expect.poll(() => held).toBeGreaterThan(0);
    await context.unroute('**/api/takes/*');
    await page.reload();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    expect(await longRopes(page, school.url)).toBeGreaterThan(0);
    await context.close();
  });

  it('a take survives a dead server, and is stored once', async () => {
    const { page, context } = await school.guest();
    const before = await longRopes(page, school.url);
    await page.goto(school.url);
    await page.getByRole('button', { name: /Sign out/ }).click();
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    const played = takeOne(page);
    await page.getByTestId('pad').waitFor();
    await school.stopServer();
    await played;
    await page.getByText('1 take waiting to be stored').waitFor();
    await school.startServer();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached', timeout: 120_000 });
    expect(await longRopes(page, school.url)).toBe(before + 1);
    await context.close();
  });

  it('typing survives a reload, also when it makes no sense yet', async () => {
    const { page, context } = await school.guest();
    await page.getByRole('link', { name: /Slow tide/ }).click();
    await page.getByLabel('Rhythm', { exact: true }).fill('4/4 q q h | w | q (');
    await page.reload();
    expect(await page.getByLabel('Rhythm', { exact: true }).inputValue()).toBe('4/4 q q h | w | q (');
    await page.locator('[data-lane="Numbers"]').getByText('1-2-3-4').waitFor();
    await context.close();
  });
});
