import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, tapInTime } from './browser.test-helper.ts';
import { WAIT, opened, visited } from './offline.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open({ inTime: true });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

/** Of Harbour 2, in pairs: one who is changed on both devices, and one on one of them. */
const CHILDREN = ['Alma', 'Benno', 'Cleo', 'Dario'];

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
    const { context } = await visited(school);
    await school.stopServer();
    const page = await opened(school, context, '/patterns');
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
    const one = await visited(school);
    const other = await visited(school, await one.context.storageState());
    await school.stopServer();
    // A week later the browsers are started again, still without a server.
    const [left, right] = [
      await opened(school, one.context, '/classes'),
      await opened(school, other.context, '/classes'),
    ];
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
    const back = await opened(school, one.context, '/classes');
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
    const later = await opened(school, other.context, '/classes');
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
});
