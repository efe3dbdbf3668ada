import type { BrowserContext, Page } from 'playwright-core';
import { expect } from 'vitest';
import type { School } from './browser.test-helper.ts';

/** One visit, until all that is needed is on the device. @param known  who is signed in; undefined is a new guest */
export async function visited(school: School, known?: Cookies): Promise<{ page: Page; context: BrowserContext }> {
  const options = { serviceWorkers: 'allow' } as const;
  const { page, context } = known
    ? await school.visitor({ ...options, storageState: known })
    : await school.guest(options);
  await page.getByRole('heading', { name: 'Patterns' }).waitFor();
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await expect.poll(async () => (await kept(page)).some((key) => key.endsWith('asked ahead')), WAIT).toBe(true);
  await page.waitForLoadState('networkidle');
  return { page, context };
}
type Cookies = Awaited<ReturnType<BrowserContext['storageState']>>;
export const WAIT = { timeout: 60_000 };

/** Another page of a browser, as when it is started anew. */
export async function opened(school: School, context: BrowserContext, path: string): Promise<Page> {
  const page = await context.newPage();
  page.setDefaultTimeout(60_000);
  await page.goto(school.url + path);
  return page;
}

/** What is kept of this teacher on the device: whose it is, and where it stood. */
export const kept = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<string[]>((resolve, reject) => {
        const opening = indexedDB.open('clapboard-answers', 1);
        opening.onerror = () => reject(new Error('no box'));
        // Looked at before anything was kept.
        opening.onupgradeneeded = () => opening.result.createObjectStore('answers', { keyPath: 'key' });
        opening.onsuccess = () => {
          const keys = opening.result.transaction('answers').objectStore('answers').getAllKeys();
          keys.onsuccess = () => {
            opening.result.close();
            resolve(keys.result as string[]);
          };
        };
      }),
  );
