import type { BrowserContext, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

/** One visit, until all that is needed is on the device. */
async function visited(): Promise<{ page: Page; context: BrowserContext }> {
  const { page, context } = await school.guest({ serviceWorkers: 'allow' });
  await page.getByRole('heading', { name: 'Patterns' }).waitFor();
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await page.reload();
  // The last of what is asked for ahead.
  const last = page.waitForResponse((response) => response.url().endsWith('/practice'));
  await last;
  await page.waitForLoadState('networkidle');
  return { page, context };
}

/** What is kept of this teacher on the device. */
const answers = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const opening = indexedDB.open('clapboard-answers');
        opening.onerror = () => reject(new Error('no box'));
        opening.onsuccess = () => {
          const count = opening.result.transaction('answers').objectStore('answers').count();
          count.onsuccess = () => {
            opening.result.close();
            resolve(count.result);
          };
        };
      }),
  );

describe('without a network', () => {
  it('opens, shows, leads, hears children in a line-up; all is there when the server is back, and once', async () => {
    const { context } = await visited();
    await school.stopServer();
    const page = await context.newPage();
    page.setDefaultTimeout(25_000);
    await page.goto(`${school.url}/patterns`);
    await page.getByText('No network').waitFor();
    await page.getByRole('link', { name: /Two gulls/ }).click();
    await page.locator('.ruler .lane-notes svg').first().waitFor();
    await page.getByRole('link', { name: 'Lead', exact: true }).click();
    await page.getByRole('button', { name: /^Start/ }).click();
    await page.locator('.start').waitFor({ state: 'detached' });
    await page.keyboard.press('Escape');
    await page.locator('.start').waitFor();
    await page.getByRole('link', { name: 'Plan', exact: true }).click();
    await page.locator('.plan-day').first().waitFor();
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Harbour 2/ }).click();
    await page.getByRole('grid', { name: 'Marks' }).waitFor();
    // A line-up that the server knows nothing of: marks by hand for six, and it goes on after a reload.
    await page.goto(`${school.url}/take/line-up`);
    await page.getByLabel('Class').selectOption({ label: 'Harbour 2' });
    await page.getByText('20 children, about').waitFor();
    await page.getByRole('button', { name: /^Start/ }).click();
    await page.locator('.whose-turn').waitFor();
    for (const key of ['4', '3', '2']) {
      await page.keyboard.press(key);
      await page.waitForTimeout(400);
    }
    await page.reload();
    await page.getByRole('heading', { name: 'Dario' }).waitFor();
    for (const key of ['4', '3', '2']) {
      await page.keyboard.press(key);
      await page.waitForTimeout(400);
    }
    await page.getByRole('heading', { name: 'Gwen' }).waitFor();
    const path = new URL(page.url()).pathname.split('/');
    const [classId, lineUpId] = [path.at(-2)!, path.at(-1)!];
    await school.startServer();
    await page.getByText('No network').waitFor({ state: 'detached', timeout: 10_000 });
    const stored = async () => {
      const response = await page.request.get(`${school.url}/api/classes/${classId}/line-ups`);
      const all = (await response.json()) as { id: string; turns: { state: string; mark: number | null }[] }[];
      return all.filter(({ id }) => id === lineUpId).map(({ turns }) => turns.slice(0, 7).map(({ mark }) => mark));
    };
    await expect.poll(stored, { timeout: 10_000 }).toEqual([[4, 3, 2, 4, 3, 2, null]]);
    // The page knows it from the server now, and nobody is called again.
    await page.reload();
    await page.getByRole('heading', { name: 'Gwen' }).waitFor();
  });

  it('shows nothing to whom it is not known, and keeps nothing of a teacher who has signed out', async () => {
    const { page, context } = await visited();
    expect(await answers(page)).toBeGreaterThan(10);
    await page.getByRole('button', { name: 'Sign out' }).click();
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    await expect.poll(() => answers(page)).toBeLessThanOrEqual(1);
    await school.stopServer();
    const later = await context.newPage();
    later.setDefaultTimeout(25_000);
    await later.goto(`${school.url}/classes`);
    await later
      .getByText(/cannot be reached|Look around/)
      .first()
      .waitFor();
    expect(await later.getByText('Harbour 2').count()).toBe(0);
  });
});
