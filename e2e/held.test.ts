import type { BrowserContext, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, longRopes, lookAround } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

/** Begins a take of Wren and claps a few times; how well does not matter. */
async function clap(page: Page): Promise<void> {
  await page.evaluate(() => localStorage.setItem('take.bpm', '120'));
  await page.getByRole('link', { name: 'Take', exact: true }).click();
  await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
  await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Long rope' });
  await page.getByRole('radio', { name: /Wren/ }).check();
  await page.getByRole('button', { name: /Start: Wren/ }).click();
  await page.locator('.pad[data-beat-one]').waitFor();
  await page.evaluate(async () => {
    const pad = document.querySelector<HTMLElement>('.pad[data-beat-one]')!;
    while (performance.now() < Number(pad.dataset['beatOne'])) await new Promise((later) => setTimeout(later, 20));
  });
  for (let i = 0; i < 3; i++) {
    await page.keyboard.press('f');
    await page.waitForTimeout(150);
  }
}

async function takeOne(page: Page): Promise<void> {
  await clap(page);
  await page.getByRole('button', { name: 'Done' }).click();
  await page.locator('.take-result').waitFor();
}

const noServer = (context: BrowserContext) => context.route('**/api/takes/*', (route) => route.abort());

describe('a take', () => {
  it('that was broken off by a reload is asked about first, and can be judged afterwards', async () => {
    const { page } = await school.guest({}, '/take');
    const before = await longRopes(page, school.url);
    await clap(page);
    const asked: string[] = [];
    page.on('dialog', (dialog) => {
      asked.push(dialog.type());
      void dialog.accept();
    });
    await page.reload();
    expect(asked).toEqual(['beforeunload']);
    await page.getByText(/Wren, Long rope: broken off/).waitFor();
    await page.getByRole('button', { name: 'Judge it' }).click();
    await page.getByText(/Wren, Long rope: mark/).waitFor();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    expect(await longRopes(page, school.url)).toBe(before + 1);
    await page.goto(`${school.url}/take`);
    await page.getByRole('radio', { name: /Wren/ }).waitFor();
    expect(await page.getByText('broken off').count()).toBe(0);
  });

  trial('that was broken off can be thrown away, and one that was stopped is not kept', async () => {
    const { page } = await school.guest();
    await clap(page);
    await page.goBack();
    await page.getByRole('heading', { name: 'Patterns' }).waitFor();
    await page.getByRole('link', { name: 'Take', exact: true }).click();
    await page.getByRole('button', { name: 'Throw it away' }).click();
    await page.getByText('broken off').waitFor({ state: 'detached' });
    await clap(page);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /Start: Wren/ }).waitFor();
    await page.waitForTimeout(300);
    await page.reload();
    await page.getByRole('radio', { name: /Wren/ }).waitFor();
    expect(await page.getByText('broken off').count()).toBe(0);
  });

  trial(
    'in a browser that keeps nothing is warned of, held in the page, and stored when the server is back',
    async () => {
      const { page, context } = await school.visitor();
      await context.addInitScript(() => {
        Object.defineProperty(globalThis, 'indexedDB', {
          value: {
            open: () => {
              throw new DOMException('not allowed', 'SecurityError');
            },
          },
        });
      });
      // Only a page that is opened now has it so.
      await page.reload();
      await lookAround(page);
      const before = await longRopes(page, school.url);
      await noServer(context);
      await takeOne(page);
      await page.getByText('This browser keeps nothing on the device').waitFor();
      await page.getByText('1 take waiting to be stored').click();
      await page.getByText('Kept in this page only').waitFor();
      await page.keyboard.press('Escape');
      await context.unroute('**/api/takes/*');
      await page.getByText('waiting to be stored').waitFor({ state: 'detached', timeout: 120_000 });
      expect(await longRopes(page, school.url)).toBe(before + 1);
    },
  );

  trial('that is not stored yet is said when its teacher signs out, and sent when she is back', async () => {
    const { page, context } = await school.guest({}, '/take');
    const before = await longRopes(page, school.url);
    await noServer(context);
    await takeOne(page);
    await page.getByRole('button', { name: /Sign out/ }).click();
    await page.getByText('Not stored yet: 1 take').waitFor();
    await page.getByRole('button', { name: 'Sign out all the same' }).click();
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    await context.unroute('**/api/takes/*');
    await page.goto(school.url);
    await lookAround(page);
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    expect(await longRopes(page, school.url)).toBe(before + 1);
  });

  trial('that the server refuses is shown with the reason, saved as a file, and tried again', async () => {
    const { page, context } = await school.guest({}, '/take');
    await context.route('**/api/takes/*', (route) =>
      route.fulfill({ status: 422, json: { error: { code: 'not-judged', message: 'It is out of all bounds.' } } }),
    );
    await takeOne(page);
    await page.getByText('1 take not stored').click();
    await page.getByText('It is out of all bounds.').waitFor();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as a file' }).click(),
    ]);
    expect(file.suggestedFilename()).toMatch(/^take-.*\.json$/);
    await context.unroute('**/api/takes/*');
    await page.getByRole('button', { name: 'Try again' }).click();
    await page.getByText('not stored').waitFor({ state: 'detached' });
  });
});

describe('a page', () => {
  trial('of which a part cannot be loaded says so, and offers to load it again', async () => {
    const { page, context } = await school.guest({}, '/take');
    await context.route('**/assets/LeadPage*', (route) => route.abort());
    await page.getByRole('link', { name: 'Lead', exact: true }).click();
    await page.getByText('A part of this page could not be loaded').waitFor();
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Lighthouse 4/ }).waitFor();
    await page.getByRole('link', { name: 'Lead', exact: true }).click();
    await context.unroute('**/assets/LeadPage*');
    await page.getByRole('button', { name: 'Load again' }).click();
    await page.getByRole('heading', { name: 'Lead' }).or(page.getByLabel('Pattern')).first().waitFor();
  });

  trial('shows how far the marks of a class are that are worked out anew', async () => {
    const { page, context } = await school.guest({}, '/take');
    let done = 40;
    await context.route('**/rejudging', (route) =>
      route.fulfill({
        json: done > 200 ? { running: false } : { running: true, done: (done += 60), total: 300, cancels: true },
      }),
    );
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByText(/worked out anew: \d+ of 300 takes/).waitFor();
    await page.getByText(/worked out anew/).waitFor({ state: 'detached' });
  });
});
