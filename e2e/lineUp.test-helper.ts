import type { Page } from 'playwright-core';
import { lookAround } from './browser.test-helper.ts';

export const BPM = 150;
const PATTERN = '4/4 q q e e q';
export const RIGHT = [1, 2, 3, 3.5, 4];
export const NAMES = ['Al', 'Bea', 'Cy', 'Dot', 'Eli', 'Flo'];

/** A class and a short pattern are made, and the line-up is set up. */
export async function readyForLineUp(
  page: Page,
  names: readonly string[],
  { name = 'Six', scale = null }: { readonly name?: string; readonly scale?: string | null } = {},
): Promise<void> {
  const { origin } = new URL(page.url());
  await lookAround(page);
  await page.evaluate(
    async ([text, names, name, scale]) => {
      const put = (path: string, body: object) =>
        fetch(`/api/${path}`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        });
      const [room, pattern] = [crypto.randomUUID(), crypto.randomUUID()];
      await put(`patterns/${pattern}`, { title: 'Short one', text });
      await put(`classes/${room}`, { name, ages: '9-10', school: 'numbers', rests: null, scale });
      for (const child of names) await put(`classes/${room}/children/${crypto.randomUUID()}`, { name: child });
    },
    [PATTERN, names, name, scale] as const,
  );
  await page.goto(`${origin}/take/line-up`);
  await page.getByLabel('Class').selectOption({ label: name });
  await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Short one' });
  await page.getByLabel('Tempo').fill(String(BPM));
  await page.getByText(`${names.length} children, about`).waitFor();
}
