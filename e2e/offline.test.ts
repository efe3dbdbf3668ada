import { appendFileSync, cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BrowserContext, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, longRopes, tapInTime } from './browser.test-helper.ts';

let school: School;
/** Pages of its own: a newer version of them comes in the middle. */
let pages: string;

beforeAll(async () => {
  pages = mkdtempSync(join(tmpdir(), 'clapboard-pages-'));
  cpSync('dist/web', pages, { recursive: true });
  school = await School.open([], false, pages);
});
afterEach(() => school.tidy());
afterAll(async () => {
  await school.close();
  rmSync(pages, { recursive: true });
});

/** Of Harbour 2, in pairs: one who is changed on both devices, and one on one of them. */
const CHILDREN = ['Alma', 'Benno', 'Cleo', 'Dario'];

/** One visit, until all that is needed is on the device. @param known  who is signed in; undefined is a new guest */
async function visited(known?: Cookies): Promise<{ page: Page; context: BrowserContext }> {
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
const WAIT = { timeout: 25_000 };

/** Another page of a browser, as when it is started anew. */
async function opened(context: BrowserContext, path: string): Promise<Page> {
  const page = await context.newPage();
  page.setDefaultTimeout(25_000);
  await page.goto(school.url + path);
  return page;
}

/** What is kept of this teacher on the device: whose it is, and where it stood. */
const kept = (page: Page) =>
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

async function addChild(page: Page, name: string): Promise<void> {
  await page.getByLabel('First name or code').fill(name);
  await page.getByRole('button', { name: 'Add a child' }).click();
  await page.getByRole('link', { name, exact: true }).waitFor();
}

/** Changes a child's name in its class, which is open. */
async function rename(page: Page, from: string, to: string): Promise<void> {
  await page.getByRole('link', { name: from, exact: true }).click();
  await page.getByRole('button', { name: 'Name and what is made easier' }).click();
  await page.getByLabel('First name or code').first().fill(to);
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('heading', { name: to, exact: true }).waitFor();
  await page.getByRole('link', { name: 'Harbour 2' }).click();
}

describe('without a network', () => {
  it('opens, shows, leads, hears children in a line-up; all is there when the server is back, and once', async () => {
    const { context } = await visited();
    await school.stopServer();
    const page = await opened(context, '/patterns');
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
    for (const key of ['4', '3']) {
      await page.keyboard.press(key);
      await page.waitForTimeout(400);
    }
    // The sixth is heard: its mark stands after another reload, in the grid too.
    await page.locator('.whose-turn').getByText('Fritz').waitFor();
    await page.keyboard.press(' ');
    await tapInTime(page, 80, [1, 2, 3, 4], 'f');
    await page.locator('.take-result').waitFor();
    await page.reload();
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
    await expect.poll(stored, { timeout: 10_000 }).toEqual([[4, 3, 2, 4, 3, expect.any(Number), null]]);
    // The page knows it from the server now, and nobody is called again.
    await page.reload();
    await page.getByRole('heading', { name: 'Gwen' }).waitFor();
  });

  it('what two devices changed in a week is put together, and every difference shown', async () => {
    // Tried once more, there are others for it.
    const [both, single] = CHILDREN.splice(0, 2) as [string, string];
    const mark = `no. ${CHILDREN.length}`;
    const one = await visited();
    const other = await visited(await one.context.storageState());
    await school.stopServer();
    // A week later the browsers are started again, still without a server.
    const [left, right] = [await opened(one.context, '/classes'), await opened(other.context, '/classes')];
    const inClass = async (page: Page) => {
      await page.getByRole('link', { name: /Harbour 2/ }).click();
      await page.getByRole('grid', { name: 'Marks' }).waitFor();
    };
    for (const [page, child] of [
      [left, `Left ${mark}`],
      [right, `Right ${mark}`],
    ] as const) {
      // Each its own class, with a child.
      await page.getByRole('button', { name: 'New class' }).click();
      await page.getByLabel('Name', { exact: true }).fill(`Class of ${child}`);
      await page.getByRole('button', { name: 'Make the class' }).click();
      await page.getByText('There are no children').or(page.getByText('Add the children below')).waitFor();
      await page.getByText('1 change waiting to be sent').waitFor();
      await addChild(page, `Own ${child}`);
      await page.getByRole('link', { name: 'Class', exact: true }).click();
      await inClass(page);
      await addChild(page, child);
      await page.getByText('3 changes waiting to be sent').waitFor();
    }
    // The same child, changed on both: another name on each.
    await rename(left, both, `Almut ${mark}`);
    await rename(right, both, `Alba ${mark}`);
    // Another child on one of them only.
    await rename(left, single, `Ben ${mark}`);
    for (const page of [left, right]) await page.getByText(/[45] changes waiting to be sent/).waitFor();
    // No page of either is open when the server is back: they come one after the other.
    for (const page of [left, right, one.page, other.page]) await page.close();
    await school.startServer();
    const back = await opened(one.context, '/classes');
    const names = async () => {
      const classes = (await (await back.request.get(`${school.url}/api/classes`)).json()) as {
        id: string;
        name: string;
      }[];
      const { id } = classes.find(({ name }) => name === 'Harbour 2')!;
      const detail = (await (await back.request.get(`${school.url}/api/classes/${id}`)).json()) as {
        children: { name: string }[];
      };
      const all = [...classes, ...detail.children].map(({ name }) => name);
      return all.filter((name) => name.endsWith(` ${mark}`)).sort();
    };
    const sent = ['Almut', 'Ben', 'Class of Left', 'Left'];
    await expect.poll(names, WAIT).toEqual(sent.map((name) => `${name} ${mark}`));
    // Only now the other one is back.
    const later = await opened(other.context, '/classes');
    await later.getByText('1 change to look at').click();
    await later
      .getByRole('dialog')
      .getByRole('row', { name: `Name Almut ${mark} Alba ${mark}` })
      .waitFor();
    await later.getByRole('button', { name: 'Keep mine' }).click();
    await later.getByText(/to look at|waiting to be sent/).waitFor({ state: 'detached' });
    const put = ['Alba', 'Ben', 'Class of Left', 'Class of Right', 'Left', 'Right'];
    await expect.poll(names, WAIT).toEqual(put.map((name) => `${name} ${mark}`));
  });

  it('shows nothing to whom it is not known, and keeps nothing of a teacher who has signed out', async () => {
    const { page, context } = await visited();
    expect((await kept(page)).length).toBeGreaterThan(10);
    await page.getByRole('button', { name: 'Sign out' }).click();
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    await expect.poll(() => kept(page).then(({ length }) => length)).toBeLessThanOrEqual(1);
    await school.stopServer();
    const later = await opened(context, '/classes');
    await later
      .getByText(/cannot be reached|Look around/)
      .first()
      .waitFor();
    expect(await later.getByText('Harbour 2').count()).toBe(0);
  });

  it('a newer version waits for the take that is running, and the take is stored', async () => {
    const { page } = await visited();
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
