import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

const KIM = { name: 'Kim Tide', password: 'kelp under glass' };

let school: School;

beforeAll(async () => {
  school = await School.open();
  await school.addTeacher(KIM.name, KIM.password);
});
afterEach(() => school.tidy());
afterAll(() => school.close());

async function signIn(page: Page, { name, password } = KIM): Promise<void> {
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

async function inClass(name: RegExp | string): Promise<Page> {
  const page = await school.guestIn('Class');
  await page.getByRole('link', { name }).click();
  await page.getByRole('heading', { name }).waitFor();
  return page;
}

const more = async (page: Page, what: string) => {
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('navigation', { name: 'More' }).getByText(what).click();
};

describe('a class of two teachers', () => {
  it('is shared, seen at once by both, and only looked at by who may not hear', async () => {
    const page = await inClass(/Harbour 2/);
    await more(page, 'Share with a colleague');
    await page.getByLabel('Name of the colleague').fill('Nobody');
    await page.getByRole('button', { name: 'Share', exact: true }).click();
    await page.getByText('There is no teacher called Nobody').waitFor();
    await page.getByLabel('Name of the colleague').fill(KIM.name);
    await page.getByRole('button', { name: 'Share', exact: true }).click();
    await page.getByRole('button', { name: 'Stop sharing with Kim Tide' }).waitFor();

    const { page: other } = await school.visitor();
    await signIn(other);
    await other.getByRole('link', { name: 'Class', exact: true }).click();
    await other.getByRole('link', { name: /shared by Robin Quay/ }).click();
    await other.getByRole('grid', { name: 'Marks' }).waitFor();
    expect(await other.getByRole('button', { name: 'Words' }).count()).toBe(0);
    await other.getByRole('link', { name: 'Hear the class' }).waitFor();

    // Marked by one, seen by the other within moments.
    await other.getByRole('button', { name: 'Marks from paper' }).click();
    await other.getByLabel('What was it').fill('Echo');
    await other.getByLabel('Alma', { exact: true }).fill('8');
    await other.getByRole('button', { name: 'Save the marks' }).click();
    await page.getByRole('button', { name: 'Alma, Echo: 8 of 10' }).waitFor();

    await page.getByLabel('Kim Tide may').selectOption({ label: 'may only look' });
    await other.getByText('shared by Robin Quay to look at').waitFor();
    expect(await other.getByRole('link', { name: 'Hear the class' }).count()).toBe(0);
    await other.getByRole('link', { name: 'Take', exact: true }).click();
    await other.getByText('First make a class').waitFor();
    await other.goBack();
    await page.getByRole('button', { name: 'Stop sharing with Kim Tide' }).click();
    await other.reload();
    await other.getByText('This class is not here').waitFor();
  });

  trial('shows both what two changed at once, and keeps the one that is chosen', async () => {
    const page = await inClass(/Harbour 2/);
    const second = await inClass(/Harbour 2/);
    for (const one of [page, second]) {
      await one.getByRole('link', { name: 'Benno', exact: true }).click();
      await one.getByRole('button', { name: /what is made easier/ }).click();
    }
    await page.getByLabel('First name or code').fill('Ben');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('heading', { name: 'Ben', exact: true }).waitFor();
    // What is typed stays, although the name above changes.
    await second.getByRole('heading', { name: 'Ben', exact: true }).waitFor();
    await second.getByLabel('First name or code').fill('Benny');
    await second.getByRole('button', { name: 'Save' }).click();
    const both = second.getByRole('alert', { name: 'Changed by somebody else' });
    await both.waitFor();
    expect(await both.getByRole('cell').allTextContents()).toEqual(['', 'Ben', 'Benny']);
    await second.getByRole('button', { name: 'Keep mine' }).click();
    await page.getByRole('heading', { name: 'Benny' }).waitFor();
  });

  trial('shows both of a pattern, too', async () => {
    const pages = [await school.guestIn('Patterns'), await school.guestIn('Patterns')] as const;
    for (const one of pages) {
      await one.getByRole('link', { name: /Two gulls/ }).click();
      await one.getByLabel('Rhythm', { exact: true }).waitFor();
    }
    await pages[0].getByLabel('Rhythm', { exact: true }).fill('4/4 h h');
    await pages[0].locator('.save-saved').waitFor();
    await pages[1].getByLabel('Rhythm', { exact: true }).fill('4/4 w');
    await pages[1].getByRole('button', { name: 'Leave what is there' }).click();
    expect(await pages[1].getByLabel('Rhythm', { exact: true }).inputValue()).toBe('4/4 h h');
  });
});

describe('the year of a class', () => {
  it('practises a week: from a need to slips and a calendar', async () => {
    const page = await inClass(/Lighthouse 4/);
    await page.getByRole('link', { name: 'Practice week' }).first().click();
    expect(await page.getByLabel('The whole class').isChecked()).toBe(false);
    await page.getByLabel('First day').fill('2026-09-28');
    await page.getByRole('button', { name: 'One more rhythm' }).click();
    await page.getByText(/Mon \d+ min · Tue/).waitFor();
    await page.getByRole('button', { name: 'Keep this week' }).click();
    await page.getByRole('columnheader', { name: /Mon 28 Sep/ }).waitFor();
    const rows = await page.getByRole('table', { name: 'Done' }).locator('tbody tr').count();
    expect(await page.locator('.slip').count()).toBe(rows);
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'For a calendar' }).click();
    const calendar = readFileSync(await (await saved).path(), 'utf8');
    expect(calendar.match(/DTSTART;VALUE=DATE:202609(28|29|30)/g)).toHaveLength(3);
    expect(calendar).toContain('SUMMARY:Clap: ');
    await page.emulateMedia({ media: 'print' });
    await page.locator('.slip .mini-notes svg').first().waitFor();
    expect(await page.getByRole('table', { name: 'Done' }).isVisible()).toBe(false);
  });

  trial('closes a term that is read later, and moves children up', async () => {
    const page = await inClass(/Harbour 2/);
    const marks = async () => page.locator('.records-grid .mark-chip').count();
    await page.getByRole('grid', { name: 'Marks' }).waitFor();
    const before = await marks();
    expect(before).toBeGreaterThan(20);
    await more(page, 'Terms');
    await page.getByLabel('Name of the term').fill('Autumn');
    await page.getByRole('button', { name: 'Close this term' }).click();
    await page.getByRole('region', { name: 'Terms' }).waitFor({ state: 'detached' });
    expect(await marks()).toBe(0);
    await more(page, 'Terms');
    await page.getByRole('link', { name: 'Autumn' }).click();
    await page.getByRole('heading', { name: 'Autumn' }).waitFor();
    expect(await marks()).toBe(before);
    await page.getByRole('link', { name: 'Harbour 2' }).click();

    await more(page, 'Move children');
    await page.getByLabel('Name of the new class').fill('Harbour 3');
    await page.getByLabel('Alma').uncheck();
    await page.getByRole('button', { name: /Move these 19/ }).click();
    await page.getByRole('heading', { name: 'Harbour 3' }).waitFor();
    await page.getByText('19 children').waitFor();
    await page.getByRole('link', { name: 'Cleo', exact: true }).click();
    await page.locator('.takes-cell tbody tr').first().waitFor();
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Harbour 2/ }).click();
    await page.getByText('1 children').waitFor();
  });

  it('is told to parents in plain sentences', async () => {
    const page = await inClass(/Lighthouse 4/);
    await more(page, 'Reports for parents');
    await page
      .getByText(/has clapped a written rhythm/)
      .nth(5)
      .waitFor();
    await page.goBack();
    await page.getByRole('link', { name: 'Ada', exact: true }).click();
    await page.getByRole('link', { name: 'Report' }).click();
    await page.getByRole('heading', { name: 'Report: Ada' }).waitFor();
    expect(await page.locator('.report').count()).toBe(1);
  });

  trial('goes out as a file and in again, with all its marks', async () => {
    const page = await inClass(/Lighthouse 4/);
    await page.getByRole('grid', { name: 'Marks' }).waitFor();
    const rows = () => page.locator('.records-grid tbody tr').allTextContents();
    const before = await rows();
    await more(page, 'Save as a file');
    const saved = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Save Lighthouse 4' }).click();
    const file = await (await saved).path();
    await page.goto(`${school.url}/classes`);
    await page.getByRole('button', { name: 'Read in a class' }).click();
    const choose = (text: string) =>
      page
        .getByLabel(/A file that was saved/)
        .setInputFiles({ name: 'class.json', mimeType: 'application/json', buffer: Buffer.from(text) });
    const text = readFileSync(file, 'utf8');
    await choose(text.slice(0, 900));
    await page.getByText('This file cannot be read').waitFor();
    await choose(text.replace('"bpm":66', '"bpm":"fast"'));
    await page.getByText('was changed after it was saved').waitFor();
    await choose('{}');
    await page.getByText('There is no class in this file').waitFor();
    await choose(text);
    await page.getByText(/Lighthouse 4: 24 children, \d+ takes/).waitFor();
    await page.getByRole('button', { name: 'Make this class here' }).click();
    await page.getByRole('grid', { name: 'Marks' }).waitFor({ timeout: 60_000 });
    expect(await rows()).toEqual(before);
    await page.goto(`${school.url}/classes`);
    await page
      .getByRole('link', { name: /Lighthouse 4/ })
      .nth(1)
      .waitFor();
  });
});

describe('a school', () => {
  trial('gets an account by its administrator, whose teacher has a first day', async () => {
    const page = await school.guestIn('Class');
    await page.goto(`${school.url}/account`);
    await page.getByRole('link', { name: 'Marrow Lane School' }).click();
    await page.getByLabel('Name of a new teacher').fill('Sal Cove');
    await page.getByRole('button', { name: 'Make the account' }).click();
    const code = (await page.locator('.one-time output').textContent())!;

    const { page: fresh } = await school.visitor();
    await fresh.getByRole('button', { name: 'I was given a code' }).click();
    await fresh.getByLabel('Name').fill('Sal Cove');
    await fresh.getByLabel('Code').fill(code);
    await fresh.getByLabel('New password').fill('seven wet stones');
    await fresh.getByRole('button', { name: /Keep the new password/ }).click();
    await fresh.getByRole('heading', { name: 'The first day' }).waitFor();
    await fresh.getByLabel('What is it called?').fill('Sandpipers');
    await fresh.getByLabel('7 and 8').check();
    await fresh.getByLabel(/First names or codes/).fill('Ines\nOle\nPer');
    await fresh.getByText('3 children: Ines, Ole, Per').waitFor();
    await fresh.getByLabel(/^Ta ti/).check();
    await fresh.getByRole('button', { name: /Hear it.*Ta ti/ }).click();
    await fresh.getByLabel('Stairs').uncheck();
    await fresh.getByRole('button', { name: /hear the first child/ }).click();
    await fresh.getByRole('button', { name: 'Start: Ines' }).waitFor();
    expect(await fresh.getByLabel('Pattern').locator('option').allTextContents()).not.toContain('Stairs');
    await fresh.getByRole('link', { name: 'Patterns', exact: true }).click();
    await fresh.getByRole('heading', { name: 'Patterns' }).waitFor();
    await fresh.keyboard.press('?');
    await fresh.getByRole('dialog').getByRole('link', { name: 'The first day, step by step' }).waitFor();

    // A closed account is out at once.
    await page.getByRole('button', { name: 'Close Sal Cove' }).click();
    await page.getByRole('button', { name: 'Open Sal Cove' }).waitFor();
    await fresh.reload();
    await signIn(fresh, { name: 'Sal Cove', password: 'seven wet stones' });
    await fresh.getByText('This account is closed').waitFor();
  });
});
