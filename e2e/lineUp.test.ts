import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { STRAY_MS } from '../web/ui/ownMoves.ts';
import { School, tapInTime } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';
import { BPM, NAMES, RIGHT, readyForLineUp } from './lineUp.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open({ inTime: true });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const turn = (page: Page, name: string) => page.locator('.whose-turn').filter({ hasText: name });
const inLine = (page: Page, name: string) => page.locator('.in-line').filter({ hasText: name });

/** What the view went on to by itself is seen before the hand sets out. */
const seen = (page: Page) => page.waitForTimeout(STRAY_MS + 100);

describe('a line-up of six', () => {
  it('takes one key a child, knows absent and later, and ends in the grid', async () => {
    const { page } = await school.visitor();
    await readyForLineUp(page, NAMES);
    await page.getByRole('button', { name: /^Start/ }).click();
    for (const [name, beats] of [
      ['Al', RIGHT],
      ['Bea', RIGHT.slice(0, 2)],
    ] as const) {
      await turn(page, name).waitFor();
      await seen(page);
      await page.keyboard.press(' ');
      await tapInTime(page, BPM, beats, ' ');
      await page.locator('.take-result').waitFor();
    }
    // Nobody touches anything: the next child is called by itself.
    await turn(page, 'Cy').waitFor();
    // What was meant for the child before does nothing to this one; it is offered to the other.
    for (const key of ['4', 'x', ' ']) await page.keyboard.press(key);
    await page.getByText('came just as the view moved on').waitFor();
    await seen(page);
    expect(await turn(page, 'Cy').isVisible()).toBe(true);
    await page.keyboard.press('x');
    await turn(page, 'Dot').waitFor();
    await page.keyboard.press('s');
    await turn(page, 'Eli').waitFor();
    // The keys of a turn are heard a moment after its name is seen.
    await page.waitForTimeout(150);
    await page.keyboard.press('l');
    await page.getByText(`· ${Math.round(BPM * 0.75)}`).waitFor();
    await page.keyboard.press('3');
    await turn(page, 'Flo').waitFor();
    await page.keyboard.press(' ');
    await tapInTime(page, BPM, RIGHT, ' ');
    await page.locator('.take-result').waitFor();
    // Who was passed over comes last; a mark by hand replaces what was heard.
    await turn(page, 'Dot').waitFor();
    await seen(page);
    await page.keyboard.press('4');
    await page.getByRole('heading', { name: 'Short one: all heard' }).waitFor();
    await page.getByText('Absent: Cy').waitFor();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    await page.getByRole('link', { name: /To the marks of Six/ }).click();
    await page.getByRole('button', { name: 'Al, Short one: mark 4, one take' }).waitFor();
    const cell = (name: string) => page.locator('.records-grid tr', { hasText: name }).locator('.grid-cell');
    expect(await Promise.all(NAMES.map(async (name) => (await cell(name).allTextContents()).join(' ')))).toEqual([
      '4 ·',
      '1 ·',
      '· ·',
      '· 4',
      '· 3',
      '4 ·',
    ]);
  });

  trial('marks in letters where the school does, by their keys, and hears again by another', async () => {
    const { page } = await school.visitor();
    await readyForLineUp(page, ['Al', 'Bea'], { name: 'Letters', scale: 'A-D,F' });
    await page.getByRole('button', { name: /^Start/ }).click();
    await turn(page, 'Al').waitFor();
    await page.waitForTimeout(150);
    await page.keyboard.press('b');
    await turn(page, 'Bea').waitFor();
    await inLine(page, 'Al B').waitFor();
    await page.keyboard.press(' ');
    await tapInTime(page, BPM, RIGHT, ' ');
    await page.locator('.mark-box', { hasText: 'A is best' }).waitFor();
    await seen(page);
    await page.keyboard.press('c');
    await page.locator('.mark-number', { hasText: 'C' }).waitFor();
    await page.keyboard.press('r');
    await turn(page, 'Bea').waitFor();
    await page.waitForTimeout(150);
    await page.keyboard.press('a');
    await page.getByText('2 children heard, A on average').waitFor();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    await page.getByRole('link', { name: /To the marks of Letters/ }).click();
    await page.getByRole('button', { name: 'Al, Short one: mark B' }).waitFor();
  });
  trial('goes on where it was on another device, takes late children, and survives a server that is away', async () => {
    const { page } = await school.visitor();
    await readyForLineUp(page, NAMES);
    await page.getByRole('button', { name: /^Start/ }).click();
    await turn(page, 'Al').waitFor();
    await school.stopServer();
    await page.keyboard.press('2');
    await turn(page, 'Bea').waitFor();
    await page.keyboard.press('x');
    await turn(page, 'Cy').waitFor();
    await page.locator('.notice').waitFor();
    await school.startServer();
    await page.locator('.notice').waitFor({ state: 'detached' });
    await page.keyboard.press('Escape');
    // Left for a moment: space goes on where it was.
    await page.getByRole('button', { name: /^Go on/ }).waitFor();
    await page.keyboard.press(' ');
    await turn(page, 'Cy').waitFor();
    await page.keyboard.press('Escape');

    const second = (await school.guest({}, '/take/line-up')).page;
    await second.getByLabel('Class').selectOption({ label: 'Six' });
    await second.getByText('1 of 6 heard').first().waitFor();
    await second.getByRole('link', { name: 'Go on' }).first().click();
    await turn(second, 'Cy').waitFor();
    await inLine(second, 'Al').getByText('2').waitFor();
    await inLine(second, 'Bea').getByText('absent').waitFor();
    // Bea comes late after all, and is called.
    await inLine(second, 'Bea').click();
    await turn(second, 'Bea').waitFor();
    await second.keyboard.press('4');
    await page.getByRole('link', { name: 'Go on' }).first().click();
    await inLine(page, 'Bea').getByText('4').waitFor();
    await turn(page, 'Cy').waitFor();
    await page.keyboard.press('1');
    await inLine(second, 'Cy').getByText('1').waitFor();
    await turn(second, 'Dot').waitFor();
    // Both say of Dot at once what became of her: neither is wiped, both are asked, one answer is enough.
    await turn(page, 'Dot').waitFor();
    await Promise.all([page, second].map(seen));
    await Promise.all([page.keyboard.press('3'), second.keyboard.press('x')]);
    const asked = (one: Page) => one.getByRole('alert', { name: 'Two say otherwise of Dot' });
    await Promise.all([asked(page).waitFor(), asked(second).waitFor()]);
    await asked(second).getByRole('button', { name: 'Mark 3' }).click();
    await Promise.all([page, second].map((one) => asked(one).waitFor({ state: 'detached' })));
    for (const one of [page, second]) await inLine(one, 'Dot').getByText('3').waitFor();
  });
});
