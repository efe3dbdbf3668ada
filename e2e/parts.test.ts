import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, moveInTime } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open({ inTime: true });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const BPM = 120;
const rhythm = (page: Page) => page.getByRole('textbox', { name: 'Rhythm', exact: true });
const names = (page: Page) =>
  page.locator('.ruler [data-part]').evaluateAll((all) => all.map((one) => one.getAttribute('data-part')));

describe('a pattern in parts', () => {
  trial('is made of one by buttons, taken back by one, and led on the board by two groups', async () => {
    const { page } = await school.guest();
    await page.getByRole('button', { name: /New pattern/ }).click();
    await page.getByLabel('Title').fill('Two crews');
    await rhythm(page).fill('4/4 q q e e q | h h');
    await page.getByRole('button', { name: 'Parts', exact: true }).click();
    await page.getByRole('button', { name: 'Measure by measure' }).click();
    expect(await rhythm(page).inputValue()).toBe('4/4 [A] q q e e q | (M1) [B] (M1) | h h');
    await page.getByText('2 measures in 2 parts, every one adds up').waitFor();
    expect(await names(page)).toEqual(['A', 'B']);
    await page.getByRole('button', { name: 'Take back' }).click();
    expect(await rhythm(page).inputValue()).toBe('4/4 q q e e q | h h');
    await page.getByLabel('Rhythm of the part beside it').fill('4/4 q h q');
    await page.getByRole('button', { name: 'Add it' }).click();
    expect(await rhythm(page).inputValue()).toBe('4/4 [clap] q q e e q | h h [stamp]* q h q');
    await page.getByRole('button', { name: 'Swap the parts' }).click();
    await page.getByLabel('Name of part 2').fill('snap');
    await page.getByLabel('Name of part 2').press('Enter');
    expect(await rhythm(page).inputValue()).toBe('4/4 [clap]* q h q [snap] q q e e q | h h');
    await page.getByLabel('Both parts on one line').check();
    await page.getByText('Saved', { exact: true }).waitFor();

    await page.getByRole('button', { name: 'Lead the class' }).click();
    await page.getByText('9 passes').waitFor();
    await page.getByLabel('Parts', { exact: true }).selectOption({ label: 'All parts together at once' });
    await page.getByText('3 passes').waitFor();
    await page.keyboard.press('Space');
    await page.getByText('both together').waitFor();
    const sides = () => page.locator('.part-cue').evaluateAll((all) => all.map((one) => one.getAttribute('data-part')));
    expect(await sides()).toEqual(['clap', 'snap']);
    await page.keyboard.press('g');
    expect(await sides()).toEqual(['snap', 'clap']);
    await page.keyboard.press('Escape');
  });

  it('that does not fit together is said with its place, and a wrong ostinato as well', async () => {
    const { page } = await school.guest({}, '/patterns');
    await page.getByRole('button', { name: /New pattern/ }).click();
    await rhythm(page).fill('4/4 [clap] q q h | w [stamp] h h');
    await page
      .locator('.rhythm-error')
      .getByText(/measure/)
      .waitFor();
    await rhythm(page).fill('4/4 [clap] q q h | w [stamp] h h | q');
    await page.getByText(/Stamp: measure 2 is 3 beats short/).waitFor();
    await rhythm(page).fill('4/4 q q h | w');
    await page.getByRole('button', { name: 'Parts', exact: true }).click();
    await page.getByLabel('Rhythm of the part beside it').fill('4/4 w | w | w');
    await page.getByRole('button', { name: 'Add it' }).click();
    await page
      .getByRole('alert')
      .getByText(/3 measures do not go into 2 measures/)
      .waitFor();
    expect(await rhythm(page).inputValue()).toBe('4/4 q q h | w');
    // A measure of strips that comes again to the end.
    await page.getByRole('button', { name: 'Lay a part in strips' }).click();
    await page.getByLabel('How much is laid').selectOption('1');
    await page.getByText('4 beats left to fill').waitFor();
    await page.getByRole('group', { name: 'Tray of strips' }).getByRole('button', { name: /half/i }).click();
    await page.getByRole('group', { name: 'Tray of strips' }).getByRole('button', { name: /half/i }).click();
    await page.getByRole('button', { name: 'Add this part' }).click();
    expect(await rhythm(page).inputValue()).toBe('4/4 [clap] q q h | w [stamp]* h h');
    await page.getByRole('button', { name: 'Take out stamp' }).click();
    expect(await rhythm(page).inputValue()).toBe('4/4 q q h | w');
  });

  it('is tapped by two children on two keys: a result each, how together they were, and both are kept', async () => {
    const { page } = await school.guest();
    await page.evaluate((bpm) => localStorage.setItem('take.bpm', String(bpm)), BPM);
    await page.getByRole('link', { name: /Clap and stamp/ }).click();
    await page.getByRole('button', { name: 'Hear a child clap it' }).click();
    await page.getByLabel('Class').selectOption({ label: 'Harbour 2' });
    await page.getByLabel('Part', { exact: true }).selectOption({ label: 'clap and stamp at once' });
    await page.getByRole('button', { name: /Start: Alma and Benno/ }).click();
    const late = (0.06 * BPM) / 60;
    const claps = [1, 2, 3, 3.5, 4, 5, 5.5, 6, 7, 7.5, 8].map((beat) => ({ beat, by: 'f' }));
    const stamps = [1, 3, 5, 7].map((beat) => ({ beat: beat + late, by: 'j' }));
    await moveInTime(
      page,
      BPM,
      [...claps, ...stamps].toSorted((a, b) => a.beat - b.beat),
    );
    await page.locator('.take-result').first().waitFor();
    expect(await page.locator('.pair-results h2').allTextContents()).toEqual(['Alma: clap', 'Benno: stamp']);
    expect(await page.locator('.together').innerText()).toMatch(
      /4 shared notes: apart, 6\d ms from one clap to the other on average.*Alma comes first, by 6\d ms/s,
    );
    expect(await page.locator('.mark-number').allTextContents()).toEqual(['4', expect.stringMatching(/[34]/)]);
    await page.getByRole('button', { name: /Next: Cleo/ }).waitFor();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    await page.getByRole('link', { name: 'Correct the claps, or the mark' }).click();
    await page.getByRole('heading', { name: 'Alma', exact: true }).waitFor();
    await page
      .locator('.together')
      .getByText(/Alma comes first/)
      .waitFor();
    await page.getByRole('link', { name: /To the other part: Clap and stamp at the quay · stamp, Benno/ }).click();
    await page.getByRole('heading', { name: 'Benno', exact: true }).waitFor();
  });

  trial('is tapped by a class in pairs, two names and two keys at a time, and both have been heard', async () => {
    const { page } = await school.guest({}, '/take/line-up');
    await page.evaluate((bpm) => localStorage.setItem('take.bpm', String(bpm)), BPM);
    await page.reload();
    await page.getByLabel('Class').selectOption({ label: 'Harbour 2' });
    await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Clap and stamp at the quay · clap' });
    await page.getByLabel('In pairs: clap at F, stamp at J').check();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Start/ }).click();
    await page.getByRole('heading', { name: 'Alma and Benno' }).waitFor();
    await page.getByRole('button', { name: /Count in/ }).click();
    const claps = [1, 2, 3, 3.5, 4, 5, 5.5, 6, 7, 7.5, 8].map((beat) => ({ beat, by: 'f' }));
    const stamps = [1, 3, 5, 7].map((beat) => ({ beat, by: 'j' }));
    await moveInTime(
      page,
      BPM,
      [...claps, ...stamps].toSorted((a, b) => a.beat - b.beat),
    );
    await page.locator('.pair-results h2').nth(1).waitFor();
    await page.getByRole('button', { name: 'Goes on by itself' }).click();
    expect(await page.locator('.pair-results h2').allTextContents()).toEqual(['Alma: clap', 'Benno: stamp']);
    expect(await page.locator('.mark-number').allTextContents()).toEqual(['4', '4']);
    await page.getByRole('button', { name: /Next: Cleo/ }).click();
    await page.getByRole('heading', { name: 'Cleo and Dario' }).waitFor();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    const [, , , room, line] = new URL(page.url()).pathname.split('/');
    const lineUps = (await (await page.request.get(`${school.url}/api/classes/${room}/line-ups`)).json()) as {
      id: string;
      turns: { state: string }[];
    }[];
    const { turns } = lineUps.find(({ id }) => id === line)!;
    expect(turns.slice(0, 4).map(({ state }) => state)).toEqual(['heard', 'heard', 'waiting', 'waiting']);
  });

  trial('is tapped in one part while the app plays the others, or in both by one child', async () => {
    const { page } = await school.guest();
    await page.evaluate((bpm) => localStorage.setItem('take.bpm', String(bpm)), BPM);
    await page.getByRole('link', { name: /Waves and gulls/ }).click();
    await page.getByRole('button', { name: 'Hear a child clap it' }).click();
    await page.getByLabel('Class').selectOption({ label: 'Harbour 2' });
    await page.getByLabel('Part', { exact: true }).selectOption({ label: 'waves' });
    expect(await page.getByLabel('The app plays the others').isChecked()).toBe(true);
    await page.getByRole('button', { name: /Start: Alma/ }).click();
    const beats = [1, 4, 6, 7, 10, 12];
    await moveInTime(
      page,
      BPM,
      beats.map((beat) => ({ beat, by: ' ' })),
    );
    await page.locator('.take-result').waitFor();
    expect(await page.locator('.mark-number').textContent()).toBe('4');
    await page.getByText('Waves and gulls · waves').waitFor();
    await page.getByRole('button', { name: /Next: Benno/ }).click();
    // Who has the part has a tick, and no other part of it.
    await page.getByRole('radio', { name: /Alma.*has a take/ }).waitFor();
    await page.getByLabel('Part', { exact: true }).selectOption({ label: 'gulls and waves at once' });
    expect(await page.getByRole('radio', { name: /has a take/ }).count()).toBe(0);
    await page.getByLabel('waves is clapped by').selectOption('same');
    await page.getByRole('button', { name: /Start: Benno space/ }).waitFor();
    await page.getByRole('button', { name: 'Hear the practice child' }).click();
    await page.locator('.take-result').first().waitFor();
    expect(await page.locator('.pair-results h2').allTextContents()).toEqual(['gulls', 'waves']);
    await page.getByText(/\d shared notes/).waitFor();
  });
});
