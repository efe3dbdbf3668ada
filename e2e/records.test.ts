import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';

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
  it('is made, filled, renamed and removed, and all of it is there after a reload', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('button', { name: /New class/ }).click();
    await page.getByLabel('Name', { exact: true }).fill('Terns 3');
    await page.getByRole('button', { name: 'Make the class' }).click();
    await page.getByRole('heading', { name: 'Terns 3' }).waitFor();
    const name = page.getByLabel(/first name/i).first();
    for (const child of ['Una', 'Piet']) {
      await name.fill(child);
      await name.press('Enter');
      await page.getByRole('button', { name: child, exact: true }).waitFor();
    }
    const renamed = answer(page, 'Pieter');
    await page.getByRole('button', { name: 'Rename Piet' }).click();
    expect(await renamed).toContain('First name');
    await page.getByRole('button', { name: 'Pieter', exact: true }).waitFor();
    await page.reload();
    await page.getByRole('button', { name: 'Una', exact: true }).waitFor();

    const removed = answer(page);
    await page.getByRole('button', { name: 'Remove Una' }).click();
    expect(await removed).toBe('Remove Una and all their takes?');
    await page.getByRole('button', { name: 'Una', exact: true }).waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Change' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Terns 4');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('heading', { name: 'Terns 4' }).waitFor();
    const gone = answer(page);
    await page.getByRole('button', { name: 'Remove', exact: true }).click();
    await gone;
    await page.getByRole('link', { name: /Lighthouse 4/ }).waitFor();
    expect(await page.getByRole('link', { name: /Terns/ }).count()).toBe(0);
    await page.reload();
    await page.getByRole('link', { name: /Lighthouse 4/ }).waitFor();
    expect(await page.getByRole('link', { name: /Terns/ }).count()).toBe(0);
  });

  it('shows the teacher’s mark as the one that counts', async () => {
    const page = await school.guestIn('Class');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('button', { name: 'Edda', exact: true }).click();
    const row = page.locator('table.marks > tbody > tr', { hasText: 'Edda' }).first();
    const average = async () => Number(await row.getByRole('cell').nth(1).textContent());
    const before = await average();
    const first = page.locator('.takes-cell tbody tr').first();
    await first.getByRole('combobox').selectOption('0');
    await row.locator('.mark-chip sup').waitFor({ state: 'attached' });
    expect(await row.locator('.last-mark').textContent()).toBe('0');
    expect(await average()).toBeLessThan(before);
    expect(await first.getByRole('cell').nth(4).textContent()).toBe('4');
    await first.getByRole('combobox').selectOption({ label: 'as computed' });
    await row.locator('.mark-chip sup').waitFor({ state: 'detached' });
    expect(await average()).toBe(before);
  });
});

describe('a pattern', () => {
  it('is removed for good, and only when asked twice', async () => {
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
