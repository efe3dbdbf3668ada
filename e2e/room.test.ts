import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from 'playwright-core';
import { School } from './browser.test-helper.ts';
import {
  beatOneOf,
  boardOf,
  deviceAt,
  deviceOf,
  drumInTime,
  picturesOn,
  slowNetwork,
  tapPictures,
} from './room.test-helper.ts';
import { EVERYTHING, trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open({ inTime: true });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const NAMES = ['Ada', 'Bram', 'Celia', 'Dov', 'Edda', 'Finn'] as const;
/** Those who sit down before the first beat; one more comes late. */
const SEATED = NAMES.slice(0, EVERYTHING ? 5 : 3);
const BPM = 80;
/** Long rope: 4/4 h q q | q q h. */
const RIGHT = [1, 3, 4, 5, 6, 7];

/** What all do is chosen by its name and sent. */
async function toAll(board: Page, doing: string, rhythm?: string): Promise<void> {
  await board.getByLabel('All at once', { exact: true }).selectOption({ label: doing });
  if (rhythm) await board.getByLabel('Rhythm', { exact: true }).selectOption({ label: rhythm });
  await board.getByRole('button', { name: /To all devices/ }).click();
}

const tally = (board: Page, text: string) => board.locator('.room-tally', { hasText: text }).waitFor();

describe('a class at its own devices', () => {
  it('claps at once over slow ways, one drops out and comes back, one is late, one is a stranger', async () => {
    const { page: board, pictures } = await boardOf(school, 'Lighthouse 4');
    const pages: Page[] = [];
    for (const [i, name] of SEATED.entries()) {
      const { page } = await deviceAt(school);
      await slowNetwork(page, 5 + 15 * i, 10);
      await tapPictures(page, pictures);
      await page.getByRole('button', { name, exact: true }).click();
      await page.getByRole('heading', { name: 'Look at the board.' }).waitFor();
      pages.push(page);
    }
    // Whoever has the pictures sees the names that are free, and none that are taken.
    const { page: stranger } = await deviceAt(school);
    await tapPictures(stranger, pictures);
    const free = await stranger.locator('.room-names button').allTextContents();
    expect(free).toContain('Finn');
    expect(free.filter((name) => SEATED.includes(name as never))).toEqual([]);

    await board.getByLabel('Tempo').selectOption(String(BPM));
    await toAll(board, 'Clap it', 'Long rope');
    const many = SEATED.length;
    await tally(board, `${many} of ${many} are ready`);
    // One goes away and comes back as itself.
    const last = pages.at(-1)!;
    await last.reload();
    await last.locator('.room-head', { hasText: SEATED.at(-1)! }).waitFor();
    await last.locator('.room-drum').waitFor();
    await board.keyboard.press('Space');
    const starts = await Promise.all(pages.map(beatOneOf));
    console.log(`beat 1 of ${many} devices within ${(Math.max(...starts) - Math.min(...starts)).toFixed(1)} ms`);
    await Promise.all(
      pages.map((page, i) =>
        drumInTime(page, BPM, i === 1 ? [1, 2, 3, 4, 5, 6, 7, 8] : i === 2 ? RIGHT.slice(0, -1) : RIGHT),
      ),
    );
    const { page: latecomer } = await deviceOf(school, pictures, 'Finn');
    await latecomer.getByRole('heading', { name: 'This one has begun. Wait for the next one.' }).waitFor();
    await pages[0]!
      .getByText('All of it was right')
      .or(pages[0]!.getByRole('region', { name: 'Result' }))
      .first()
      .waitFor();
    await tally(board, `${many} of ${many + 1} have clapped`);
    const picture = board.getByRole('status', { name: 'The class' });
    await picture.getByText(`${many - 2} of ${many} had all of it right.`).waitFor();
    expect(await board.locator('.missed-most').textContent()).toBe(`${many - 1}/${many}`);
    // It is in the records like any take.
    await board.getByRole('link', { name: 'Lighthouse 4', exact: true }).click();
    await board.getByRole('link', { name: SEATED.at(-1)!, exact: true }).click();
    await board.locator('.takes-table, table', { hasText: 'Long rope' }).first().waitFor();
  });

  trial('answers at A to D: how many is on the board, then a bar each and why; it survives the server', async () => {
    const { page: board, pictures } = await boardOf(school, 'Harbour 2');
    const names = await freeNames(school, pictures);
    const [first, second] = [
      (await deviceOf(school, pictures, names[0]!)).page,
      (await deviceOf(school, pictures, names[1]!)).page,
    ];
    await toAll(board, 'Which one do you hear?');
    await first.locator('.room-option').nth(3).click();
    await tally(board, '1 of 2 have answered');
    await first.locator('.room-option').nth(0).click();
    await school.stopServer();
    await second.locator('.room-option').nth(1).click();
    await second.getByText('The room does not answer just now').first().waitFor();
    await school.startServer();
    await tally(board, '2 of 2 have answered');
    await board.reload();
    await tally(board, '2 of 2 have answered');
    expect(await board.locator('.room-bar-count').count()).toBe(0);
    await board.keyboard.press('Space');
    await board.locator('.room-bar-right').waitFor();
    expect(
      (await board.locator('.room-bar-count').allTextContents()).map((text) => Number(/\d/.exec(text)![0])),
    ).toEqual([1, 1, 0, 0]);
    await first.getByText(/^(Right: )?[Ii]t is [A-D]\.$/).waitFor();
    expect(await first.locator('.room-right').count()).toBe(1);
  });

  trial('writes what it hears, and a question of values has its words', async () => {
    const { page: board, pictures } = await boardOf(school, 'Harbour 2');
    const [name] = await freeNames(school, pictures);
    const { page } = await deviceOf(school, pictures, name!);
    await toAll(board, 'Write what you hear', 'Long rope');
    for (const piece of ['h', 'q', 'q', 'q', 'q', 'h'])
      await page.getByRole('button', { name: piece, exact: true }).click();
    await page.getByText('All full. You may change it.').waitFor();
    await tally(board, '1 of 1 have written something');
    await board.keyboard.press('Space');
    await page.getByText('All right.').waitFor();
    await board.getByText('1: 1 of 1 right').waitFor();
    await board.keyboard.press('Space');
    await toAll(board, 'Values: a question');
    await page.locator('.room-option').first().click();
    await board.keyboard.press('Space');
    await board.locator('.room-bar-right').waitFor();
    await page
      .getByText(/It is|Right/)
      .first()
      .waitFor();
  });

  it('frees a name, draws other pictures, asks for codes, and forgets the device at the end', async () => {
    const { page: board, pictures } = await boardOf(school, 'Lighthouse 4');
    const { page, context } = await deviceOf(school, pictures, 'Ada');
    await board.getByText('For the teacher: who is in').click();
    await board.getByLabel('Names on the board').check();
    await board.locator('.room-who', { hasText: 'Ada' }).waitFor();
    await board.getByRole('button', { name: 'Free the name' }).click();
    await page.getByRole('heading', { name: 'Tap the pictures on the board' }).waitFor();
    await board.getByRole('button', { name: 'New pictures' }).click();
    await board.waitForFunction(
      (before) => [...document.querySelectorAll('.room-four span')].map((one) => one.textContent).join(' ') !== before,
      pictures.join(' '),
    );
    for (const one of pictures) await page.getByRole('button', { name: one, exact: true }).click();
    await page.getByText('These are not the pictures on the board').waitFor();
    await board.getByLabel('Codes instead of names').check();
    await board.getByRole('button', { name: 'Show the codes' }).click();
    const code = (await board.getByRole('table', { name: 'Codes' }).locator('td').first().textContent())!;
    await tapPictures(page, await picturesOn(board));
    expect(await page.locator('.room-names').count()).toBe(0);
    for (const figure of code) await page.getByRole('button', { name: figure, exact: true }).click();
    await page.getByRole('heading', { name: 'Look at the board.' }).waitFor();
    board.on('dialog', (dialog) => void dialog.accept());
    await board.getByRole('button', { name: 'End the room' }).click();
    await page.getByRole('heading', { name: 'The lesson here is over.' }).waitFor();
    await page.reload();
    await page.getByRole('heading', { name: 'Tap the pictures on the board' }).waitFor();
    // Nothing is left of it.
    expect(await context.cookies()).toEqual([]);
    const left = await page.evaluate(async () => ({
      local: Object.keys(localStorage),
      session: Object.keys(sessionStorage),
      caches: await caches.keys(),
      databases: await indexedDB.databases(),
      workers: (await navigator.serviceWorker.getRegistrations()).length,
    }));
    expect(left).toEqual({ local: [], session: [], caches: [], databases: [], workers: 0 });
  });
});

/** The names that a stranger with the pictures is shown. */
async function freeNames(from: School, pictures: readonly string[]): Promise<string[]> {
  const { page, context } = await deviceAt(from);
  await tapPictures(page, pictures);
  const names = await page.locator('.room-names button').allTextContents();
  await context.close();
  return names;
}

describe('a week at home', () => {
  it('is opened by the slip, clapped, and waits until the teacher takes it in', async () => {
    const { page } = await school.guest({}, '/classes');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('link', { name: 'Practice', exact: true }).click();
    await page.getByRole('button', { name: 'New practice week' }).click();
    // Today is one of its days.
    await page.getByLabel('First day').fill(new Date().toLocaleDateString('sv'));
    await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Long rope' });
    await page.getByRole('button', { name: 'Keep this week' }).click();
    await page.getByRole('button', { name: /Put it on the slips/ }).click();
    await page.getByText('24 slips have a way home').waitFor();
    expect(await page.locator('.slip .dots-picture').count()).toBe(24);
    const path = new URL(page.url()).pathname;
    const from = await page.request.get(`${school.url}/api${path}/home`);
    const [{ token }] = ((await from.json()) as { links: { token: string }[] }).links as [{ token: string }];

    const { page: home } = await school.newcomer({ viewport: { width: 390, height: 844 }, hasTouch: true });
    await home.goto(`${school.url}/home#${token}`);
    await home.getByRole('button', { name: /Long rope/ }).click();
    await home.getByRole('button', { name: 'Try it' }).click();
    const bpm = await home.evaluate(async (secret) => {
      const week = await fetch('/api/home/week', { headers: { 'Clapboard-Home': secret } });
      return ((await week.json()) as { items: { bpm: number }[] }).items[0]!.bpm;
    }, token);
    await drumInTime(home, bpm, RIGHT);
    await home.getByRole('button', { name: 'Once more' }).waitFor();
    await home.getByRole('button', { name: 'All' }).click();
    await home.getByText(/^1 of/).waitFor();

    await page.reload();
    await page.getByRole('table', { name: 'Came from home' }).getByText('100 %').waitFor();
    await page.getByRole('button', { name: 'Take all in' }).click();
    await page.getByRole('table', { name: 'Came from home' }).waitFor({ state: 'detached' });
    await page
      .getByRole('table', { name: 'Done' })
      .getByText(/1 of|done/)
      .first()
      .waitFor();
  });
});
