import { appendFileSync, cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, longRopes, tapInTime } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';
import { WAIT, kept, opened, visited } from './offline.test-helper.ts';

let school: School;
/** Pages of its own: a newer version of them comes in the middle. */
let pages: string;

beforeAll(async () => {
  pages = mkdtempSync(join(tmpdir(), 'clapboard-pages-'));
  cpSync('dist/web', pages, { recursive: true });
  school = await School.open({ pages });
});
afterEach(() => school.tidy());
afterAll(async () => {
  await school.close();
  rmSync(pages, { recursive: true });
});

describe('without a network', () => {
  it('opens and shows; a new name and marks of a line-up are there when the server is back, and once', async () => {
    const { context } = await visited(school);
    await school.stopServer();
    const page = await opened(school, context, '/classes');
    await page.getByText('No network').waitFor();
    await page.getByRole('link', { name: /Harbour 2/ }).click();
    await page.getByRole('grid', { name: 'Marks' }).waitFor();
    await page.getByRole('link', { name: 'Benno', exact: true }).click();
    await page.getByRole('button', { name: 'Name and what is made easier' }).click();
    await page.getByLabel('First name or code').first().fill('Ben');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('heading', { name: 'Ben', exact: true }).waitFor();
    await page.goto(`${school.url}/take/line-up`);
    await page.getByLabel('Class').selectOption({ label: 'Harbour 2' });
    await page.getByRole('button', { name: /^Start/ }).click();
    for (const [name, key] of [
      ['Alma', '4'],
      ['Ben', 'x'],
      ['Cleo', '2'],
    ] as const) {
      await page.locator('.whose-turn').getByText(name, { exact: true }).waitFor();
      await page.keyboard.press(key);
    }
    await page.locator('.whose-turn').getByText('Dario').waitFor();
    await page.reload();
    await page.getByRole('heading', { name: 'Dario' }).waitFor();
    const path = new URL(page.url()).pathname.split('/');
    const [classId, lineUpId] = [path.at(-2)!, path.at(-1)!];
    await school.startServer();
    await page.getByText('No network').waitFor({ state: 'detached' });
    const read = async (what: string): Promise<unknown> =>
      (await page.request.get(`${school.url}/api/classes/${classId}${what}`)).json();
    const stored = async () => {
      const all = (await read('/line-ups')) as { id: string; turns: { state: string; mark: number | null }[] }[];
      const turns = all.filter(({ id }) => id === lineUpId).map((one) => one.turns.slice(0, 4));
      return turns.map((some) => some.map(({ state, mark }) => `${state} ${mark}`));
    };
    await expect.poll(stored, WAIT).toEqual([['heard 4', 'absent null', 'heard 2', 'waiting null']]);
    const { children } = (await read('')) as { children: { name: string }[] };
    expect(children.map(({ name }) => name).filter((name) => name.startsWith('Ben'))).toEqual(['Ben']);
  });

  trial('shows nothing to whom it is not known, and keeps nothing of a teacher who has signed out', async () => {
    const { page, context } = await visited(school);
    expect((await kept(page)).length).toBeGreaterThan(10);
    await page.getByRole('button', { name: 'Sign out' }).click();
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    await expect.poll(() => kept(page).then(({ length }) => length)).toBeLessThanOrEqual(1);
    await school.stopServer();
    const later = await opened(school, context, '/classes');
    await later
      .getByText(/cannot be reached|Look around/)
      .first()
      .waitFor();
    expect(await later.getByText('Harbour 2').count()).toBe(0);
  });

  trial('a newer version waits for the take that is running, and the take is stored', async () => {
    const { page } = await visited(school);
    await page.goto(`${school.url}/take`);
    await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
    await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Long rope' });
    await page.getByRole('radio', { name: /Wren/ }).check();
    await page.evaluate(() => Object.assign(globalThis, { sameParts: true }));
    await page.getByRole('button', { name: /Start: Wren/ }).click();
    await page.locator('.pad[data-beat-one]').waitFor();
    appendFileSync(join(pages, 'sw.js'), '\n// newer\n');
    await page.evaluate(async () => (await navigator.serviceWorker.ready).update());
    await tapInTime(page, 72, [1, 3, 4, 5, 6, 7], 'f');
    await page.getByRole('button', { name: 'Done' }).click();
    await page.locator('.take-result').waitFor();
    const isSame = () => page.evaluate(() => 'sameParts' in globalThis);
    expect(await isSame()).toBe(true);
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Newer version: load it' }).click();
    await expect.poll(isSame, WAIT).toBe(false);
    await page.getByRole('button', { name: 'Newer version: load it' }).waitFor({ state: 'detached' });
    expect(await longRopes(page, school.url)).toBeGreaterThan(0);
  });
});
