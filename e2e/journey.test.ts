import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TEACHER } from '../demo/school.ts';
import { School, moveInTime, tapInTime } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open({ inTime: true });
});

afterEach(() => school.tidy());
afterAll(() => school.close());

describe('from a typed rhythm to a kept mark', () => {
  it('signs in, types, sees, lets a child tap, and finds the mark after a restart', async () => {
    const { page, context } = await school.visitor();
    await page.getByLabel('Name').fill(TEACHER.name);
    await page.getByLabel('Password').fill('wrong');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByText('do not belong together').waitFor();
    await page.getByLabel('Password').fill(TEACHER.password);
    await page.getByRole('button', { name: 'Sign in' }).click();

    await page.getByRole('link', { name: 'Patterns', exact: true }).click();
    await page.getByRole('button', { name: /New pattern/ }).click();
    const field = page.getByLabel('Rhythm', { exact: true });
    await page.getByLabel('Title').fill('Buoy bell');
    await field.fill('4/4 q e e (q) q');
    await page.locator('[data-lane="Numbers"]').getByText('(3)').waitFor();
    await page.locator('.ruler .lane-notes svg').first().waitFor();
    await field.fill('4/4 q e e (q) qx');
    await page.getByText(/Line 1, column 16/).waitFor();
    expect(await page.locator('[data-lane="Numbers"]').getByText('(3)').count()).toBe(1);
    await field.fill('4/4 q e e (q) q q');
    await page.getByText('Measure 1 is 1 beat too long').waitFor();
    await field.fill('4/4 q e e (q) q | h h');
    await page.getByText('2 measures, every one adds up').waitFor();
    await page.locator('.save-saved').waitFor();
    await page.getByRole('button', { name: 'Hear a child clap it' }).click();

    await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
    await page.getByRole('radio', { name: /Mira/ }).check();
    await page.getByRole('button', { name: /Start: Mira/ }).click();
    // The rest of measure 1 is clapped: that is the one thing to fix.
    await tapInTime(page, 72, [1, 2, 2.5, 3, 4, 5, 7], 'touch');
    await page.getByText('Measure 1, beat 3: you clapped on the rest').waitFor();
    expect(await page.locator('.mark-number').textContent()).toBe('3');
    expect(await page.locator('.lane-heard .heard-on-time').count()).toBe(6);
    expect(await page.locator('.lane-heard .heard-extra').count()).toBe(1);

    await school.stopServer();
    await school.startServer();
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('link', { name: 'Mira', exact: true }).click();
    const row = page.locator('.takes-cell tbody tr', { hasText: 'Buoy bell' }).first();
    expect(await row.getByRole('cell').nth(4).textContent()).toBe('3');
    await row.getByLabel('Teacher’s mark for Buoy bell').selectOption('4');
    await page.reload();
    expect(await row.getByLabel('Teacher’s mark for Buoy bell').inputValue()).toBe('4');
    await row.getByRole('link', { name: 'Buoy bell' }).click();
    await page.getByText('computed mark 3, set to 4').waitFor();
    await context.close();
  });

  trial('goes by keyboard alone', async () => {
    const { page, context } = await school.visitor();
    const press = async (...keys: readonly string[]) => {
      for (const key of keys) await page.keyboard.press(key);
    };
    const tabTo = async (name: RegExp) => {
      for (let i = 0; i < 60; i++) {
        await press('Tab');
        const here = await page.evaluate(() => {
          const element = document.activeElement as HTMLElement;
          if (element === document.body) return '';
          const label = (element as HTMLInputElement).labels?.[0]?.textContent;
          return [element.getAttribute('aria-label'), label, element.textContent].join(' ');
        });
        if (name.test(here)) return;
      }
      throw new Error(`Tab never came to ${name}`);
    };
    await tabTo(/Look around/);
    await press('Enter');
    await page.getByRole('region', { name: 'Next lesson' }).waitFor();
    await tabTo(/^ ?\s*Patterns/);
    await press('Enter');
    await page.getByRole('heading', { name: 'Patterns' }).waitFor();
    await tabTo(/New pattern/);
    await press('Enter');
    await tabTo(/^Title/);
    await page.keyboard.type('Keys only');
    await tabTo(/Rhythm/);
    await page.keyboard.type('2/4 q q | e e q');
    await page.locator('.save-saved').waitFor();
    await tabTo(/Hear a child/);
    await press('Enter');
    await page.getByRole('button', { name: /Start/ }).waitFor();
    await tabTo(/^ *Alma|^ Ada/);
    await press('ArrowDown');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await press(' ');
    await tapInTime(page, 72, [1, 2, 3, 3.5, 4], ' ');
    await page.locator('.take-result').waitFor();
    expect(await page.locator('.mark-number').textContent()).toBe('4');
    await page.waitForTimeout(1000);
    await press(' ');
    await page.getByRole('button', { name: /Start/ }).waitFor();
    await context.close();
  });
});

describe('more than claps', () => {
  const begin = async (task: string) => {
    const { page, context } = await school.guest({}, '/take');
    await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
    await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Slow tide' });
    await page.getByLabel('Heard by').selectOption({ label: task });
    await page.getByRole('button', { name: /Start/ }).click();
    return { page, context };
  };
  /** "Slow tide" is 4/4 q q h | w. */
  const HANDS = [1, 2, 3, 5];

  trial('feet on the beat, hands in the rhythm', async () => {
    const { page, context } = await begin('taps and feet');
    await page.getByTestId('feet-pad').waitFor();
    const feet = [1, 2, 3, 4, 5, 6, 7, 8].map((beat) => ({ beat, by: 'f' }));
    await moveInTime(
      page,
      72,
      [...feet, ...HANDS.map((beat) => ({ beat: beat + 0.02, by: 'j' }))].sort((a, b) => a.beat - b.beat),
    );
    await page.getByText('Feet: every step was on the beat. Hands and feet came together.').waitFor();
    expect(await page.locator('.mark-number').textContent()).toBe('4');
    await page.getByRole('link', { name: /Correct the claps/ }).click();
    await page.getByText('Feet: every step was on the beat').waitFor();
    await context.close();
  });

  trial('long notes held to their end', async () => {
    const { page, context } = await begin('taps, held');
    const ends = [1.5, 2.5, 4.8, 6];
    await moveInTime(
      page,
      72,
      HANDS.flatMap((beat, i) => [
        { beat, by: ' ' },
        { beat: ends[i]!, by: ' ', up: true },
      ]),
    );
    await page.getByText('Long notes: 1 of 2 was held for its time. Measure 2, beat 1: let go too early').waitFor();
    expect(await page.locator('.mark-number').textContent()).toBe('4');
    await context.close();
  });
});
