import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

/** Answers the next question of the browser itself. */
function answer(page: Page, text?: string): Promise<string> {
  return new Promise((asked) =>
    page.once('dialog', (dialog) => {
      void dialog.accept(text).then(() => asked(dialog.message()));
    }),
  );
}

describe('a class', () => {
  it('is made, filled, renamed, removed and taken out of the bin', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('button', { name: /New class/ }).click();
    await page.getByLabel('Name', { exact: true }).fill('Terns 3');
    await page.getByRole('button', { name: 'Make the class' }).click();
    await page.getByRole('heading', { name: 'Terns 3' }).waitFor();
    const name = page.getByLabel(/first name/i).first();
    for (const child of ['Una', 'Piet']) {
      await name.fill(child);
      await name.press('Enter');
      await page.getByRole('link', { name: child, exact: true }).waitFor();
    }
    await page.getByRole('link', { name: 'Piet', exact: true }).click();
    await page.getByRole('button', { name: /what is made easier/ }).click();
    await page.getByLabel('First name or code').fill('Pieter');
    await page.getByLabel('Tempo').selectOption({ label: 'half the tempo' });
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('heading', { name: 'Pieter' }).waitFor();
    await page.getByRole('link', { name: 'Terns 3' }).click();
    await page.getByRole('link', { name: 'Hear the class' }).click();
    await page.getByLabel('Tempo').fill('80');
    await page.getByRole('listitem').filter({ hasText: 'Pieter' }).getByText('· 40').waitFor();
    await page.goBack();
    await page.reload();
    await page.getByRole('link', { name: 'Una', exact: true }).click();
    const removed = answer(page);
    await page.getByRole('button', { name: 'Remove' }).click();
    expect(await removed).toContain('Put Una into the bin');
    await page.getByRole('link', { name: 'Pieter', exact: true }).waitFor();
    await page.getByRole('link', { name: 'Una', exact: true }).waitFor({ state: 'detached' });

    await page.getByRole('button', { name: 'Change' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Terns 4');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('heading', { name: 'Terns 4' }).waitFor();
    const gone = answer(page);
    await page.getByRole('button', { name: 'More' }).click();
    await page.getByRole('button', { name: 'Remove the class' }).click();
    await gone;
    await page.getByRole('button', { name: 'Take Terns 4 out again' }).waitFor();
    expect(await page.getByRole('link', { name: /Terns/ }).count()).toBe(0);
    await page.reload();
    await page.getByRole('button', { name: 'Take Terns 4 out again' }).click();
    await page.getByRole('link', { name: /Terns 4/ }).waitFor();
    await page.getByRole('button', { name: 'Take Una out again' }).click();
    await page.getByRole('button', { name: /out again/ }).waitFor({ state: 'detached' });
    await page.getByRole('link', { name: /Terns 4/ }).click();
    await page.getByRole('link', { name: 'Una', exact: true }).waitFor();
  });

  trial('takes a list as a spreadsheet writes it, and leaves out who is there already', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('button', { name: 'Many at once' }).click();
    const text = 'Klasse;Vorname;Nachname\r\n4;Zoé;Kai\r\n4;Ada;Mole\r\n4;Jürg;Quay\r\n4;zoé;Pier\r\n';
    const buffer = Buffer.from(text, 'latin1');
    await page.getByLabel('or a file').setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer });
    await page.getByText('3 children:').waitFor();
    await page.getByText('Taken from the column “Vorname”').waitFor();
    await page.getByText('there already: Ada.').waitFor();
    // Two of one name are two children.
    await page.getByText('different children: zoé.').waitFor();
    await page.getByRole('button', { name: 'Add these 3' }).click();
    for (const name of ['Zoé', 'zoé']) await page.getByRole('link', { name, exact: true }).waitFor();
    await page.getByRole('link', { name: 'Jürg', exact: true }).waitFor();
  });

  trial('shows marks that are walked through by keys, sorted, found, and opened to their take', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    const names = page.locator('.records-grid tbody th');
    expect(await names.first().textContent()).toBe('Ada');
    await page.getByRole('button', { name: 'Mean' }).click();
    const means = await page.locator('.records-grid .mean').allTextContents();
    const sorted = [...means].sort((a, b) => Number(b) - Number(a));
    expect([sorted, [...sorted].reverse()]).toContainEqual(means);
    await page.getByLabel('Find a child').fill('ed');
    expect(await names.allTextContents()).toEqual(['Edda']);
    await page.getByLabel('Find a child').fill('');
    await page.getByRole('link', { name: 'Ada', exact: true }).focus();
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowDown');
    const cell = await page.evaluate(() => document.activeElement?.getAttribute('aria-label'));
    expect(cell).toMatch(/: (mark|not heard)/);
    await page.keyboard.press('Enter');
    await page.locator('.take-result').waitFor();
    await page.getByRole('heading', { name: cell!.split(',')[0]! }).waitFor();
  });

  trial('shows the teacher’s mark as the one that counts', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    const mean = async () =>
      Number(await page.locator('.records-grid tr', { hasText: 'Edda' }).locator('.mean').textContent());
    const before = await mean();
    await page.getByLabel('Of several takes').selectOption({ label: 'last take counts' });
    await page.getByRole('link', { name: 'Edda', exact: true }).click();
    const first = page.locator('.takes-cell tbody tr').first();
    const title = await first.getByRole('link').textContent();
    const computed = await first.getByRole('cell').nth(4).textContent();
    await first.getByRole('combobox').selectOption('0');
    await page.getByRole('link', { name: 'Lighthouse 4' }).click();
    await page.getByRole('button', { name: `Edda, ${title}: mark 0` }).waitFor();
    // The mean follows when the server has it.
    await expect.poll(mean, { timeout: 60_000 }).toBeLessThan(before);
    await page.getByRole('link', { name: 'Edda', exact: true }).click();
    expect(await first.getByRole('cell').nth(4).textContent()).toBe(computed);
    await first.getByRole('combobox').selectOption({ label: 'as computed' });
    await page.getByRole('link', { name: 'Lighthouse 4' }).click();
    await page.getByRole('button', { name: `Edda, ${title}: mark ${computed}` }).waitFor();
  });

  trial('takes marks from paper down the list, and gives all of them as a table', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('button', { name: 'Marks from paper' }).click();
    await page.getByLabel('What was it').fill('=Quiz 1');
    await page.getByLabel('Ada', { exact: true }).fill('7,5');
    await page.getByLabel('Ada', { exact: true }).press('Enter');
    await page.keyboard.type('11');
    await page.getByText('Bram: a number from 0 to 10').waitFor();
    await page.getByLabel('Bram', { exact: true }).fill('9');
    await page.getByRole('button', { name: 'Save the marks' }).click();
    await page.getByRole('button', { name: 'Ada, =Quiz 1: 7.5 of 10' }).waitFor();
    await page.getByLabel('Separator').selectOption({ label: 'semicolons' });
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'As a table with' }).click();
    const lines = readFileSync(await (await saved).path(), 'utf8').split('\r\n');
    expect(lines[0]).toMatch(/^\uFEFFChild;Mean;'=Quiz 1;/);
    expect(lines[1]).toMatch(/^Ada;\d,\d\d;7,5;\d/);
    await page.getByRole('button', { name: 'Change =Quiz 1' }).click();
    const asked = answer(page);
    await page.getByRole('button', { name: 'Delete this column' }).click();
    await asked;
    await page.getByRole('button', { name: 'Change =Quiz 1' }).waitFor({ state: 'detached' });
  });

  trial('says what comes next, who has an element, and what a child misread', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    const need = page.getByRole('region', { name: 'Next' }).getByRole('listitem').first();
    const many = Number((await need.locator('strong').textContent())!.split(' ')[0]);
    await need.getByRole('link', { name: /Hear/ }).click();
    await page.getByText(`${many} children, about`).waitFor();
    await page.goBack();
    await need.locator('a').first().click();
    await page.getByText(/of \d+ children heard in it are firm/).waitFor();
    await page.getByRole('heading', { name: 'Patterns that practise it' }).waitFor();
    await page.locator('.element-children a').first().click();
    await page.getByText(/^Next in /).waitFor();
    await page.locator('.marks-chart svg').first().waitFor();
  });
});

describe('a pattern', () => {
  trial('is removed for good, and only when asked twice', async () => {
    const page = await school.guestIn('Patterns');
    await page.getByRole('link', { name: /Slow tide/ }).click();
    page.once('dialog', (dialog) => void dialog.dismiss());
    await page.getByRole('button', { name: 'Remove' }).click();
    await page.getByLabel('Rhythm', { exact: true }).waitFor();
    const asked = answer(page);
    await page.getByRole('button', { name: 'Remove' }).click();
    expect(await asked).toContain('Slow tide');
    await page.getByRole('heading', { name: 'Patterns' }).waitFor();
    await page.reload();
    await page.getByRole('link', { name: /Round the lighthouse/ }).waitFor();
    expect(await page.getByRole('link', { name: /Slow tide/ }).count()).toBe(0);
  });
});
