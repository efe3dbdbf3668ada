import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page } from 'playwright-core';
import { School, lookAround } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;
let page: Page;

beforeAll(async () => {
  school = await School.open();
  ({ page } = await school.visitor());
  await lookAround(page);
});

afterAll(() => school.close());

const part = async (name: string) => {
  await page.getByRole('link', { name: 'Values', exact: true }).click();
  await page.getByRole('link', { name, exact: true }).click();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
};

describe('the values view', () => {
  it('folds a sheet and lights up how many are in a longer value', async () => {
    await part('Fold');
    for (let fold = 0; fold < 3; fold++) await page.keyboard.press(' ');
    await page.getByText('1 whole = 2 halves = 4 quarters = 8 eighths').waitFor();
    await page.getByRole('button', { name: 'half', exact: true }).click();
    await page.getByText('4 eighths in a half').waitFor();
    expect(await page.locator('.sheet-part.lit').count()).toBe(4);
    await page.getByLabel('Names').selectOption('crotchets');
    await page.getByText('4 quavers in a minim').waitFor();
    await page.getByLabel('Names').selectOption('quarters');
  });

  it('lays strips by key and by hand, and saves them as a pattern', async () => {
    await part('Strips');
    await page.getByText('4 beats left to fill').waitFor();
    for (const key of ['q', '.', 'e', 'h']) await page.keyboard.press(key);
    await page.getByText('The line is full').waitFor();
    await page.keyboard.press('s');
    await page.getByText('there is not so much room left').waitFor();
    await page.keyboard.press('x');
    await page.keyboard.press('r');
    expect(
      await page
        .locator('.strip-line .laid')
        .evaluateAll((strips) => strips.map((strip) => strip.getAttribute('aria-label'))),
    ).toEqual(['1: dotted quarter', '2: eighth', '3: quarter rest', '4: quarter']);
    await page.keyboard.press('Backspace');
    const tray = (await page.getByRole('button', { name: /Lay a quarter/ }).boundingBox())!;
    const line = (await page.locator('.strip-line').boundingBox())!;
    await page.mouse.move(tray.x + 20, tray.y + 20);
    await page.mouse.down();
    await page.mouse.move(line.x + 60, line.y + 40, { steps: 8 });
    await page.mouse.move(line.x + 4, line.y + 40, { steps: 4 });
    await page.mouse.up();
    await page.getByText('The line is full').waitFor();
    await page.getByLabel('Length of the line').selectOption({ label: '9/8, 1 measure' });
    await page.getByText('1/2 beat left to fill').waitFor();
    await page.getByLabel('Length of the line').selectOption({ label: '4 beats' });
    await page.getByText('The line is full').waitFor();
    expect(await page.locator('.strip-line .laid').first().getAttribute('aria-label')).toBe('1: quarter');
    await page.getByRole('button', { name: 'Save as a pattern' }).click();
    await expect.poll(() => page.getByLabel('Rhythm', { exact: true }).inputValue()).toBe('4/4 q q. e q');
  });

  it('balances two sides and completes the lighter one', async () => {
    await part('Sums');
    await page.getByText('Not equal: the left is longer by 1/2 beat').waitFor();
    await page.getByText('with the eighth 1 + 1/2 = 1 1/2 beats').waitFor();
    await page.getByRole('button', { name: 'Complete it: eighth (1/2)' }).click();
    await page.getByText('Both sides are as long').waitFor();
    await page.keyboard.press('ArrowLeft');
    await page.getByRole('button', { name: 'Add a dotted quarter rest' }).click();
    await page.getByText('longer by 1 1/2 beats').waitFor();
  });

  it('asks on the balance, and shows by the strips whether it was right', async () => {
    await part('Sums');
    await page.getByText('Not equal: the left is longer by 1/2 beat').waitFor();
    const kinds = new Set<string>();
    for (let tries = 0; kinds.size < 2 && tries < 20; tries++) {
      await page.keyboard.press('q');
      await page.locator('.hidden-answer').waitFor();
      const prompt = await page.locator('.big-line').innerText();
      kinds.add(prompt.startsWith('True or false: ') ? 'true-false' : 'balance');
      expect(await page.locator('.pan-total').allTextContents()).toEqual(['?', '?']);
      await page.keyboard.press('a');
      await page.locator('.reveal .steps').waitFor();
      const isTrue = (await page.locator('.big-line').innerText()).startsWith('Both sides are as long');
      // A value that was asked for is laid down by then.
      expect(isTrue).toBe(
        prompt.startsWith('True or false: ')
          ? await page.locator('.option.right', { hasText: 'true' }).isVisible()
          : true,
      );
    }
    expect([...kinds].sort()).toEqual(['balance', 'true-false']);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Add a quarter', exact: true }).waitFor();
  });

  trial('moves every number with the beat value', async () => {
    await part('What gets the beat');
    await page.getByLabel('What gets the beat').selectOption('e');
    expect(await page.locator('.beat-table strong').allTextContents()).toEqual([
      '8',
      '4',
      '2',
      '1',
      '1/2',
      '12',
      '6',
      '3',
      '1 1/2',
      '3/4',
    ]);
    await page.getByLabel('What gets the beat').selectOption('q');
    await page.locator('[data-lane="The eighth counts"]').getByText('1-2-3', { exact: true }).waitFor();
  });

  it('asks ten questions and keeps a tally of why', async () => {
    await part('Questions');
    await page.getByLabel('Number of the set').fill('7');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    for (let i = 0; i < 10; i++) {
      await page.keyboard.press('a');
      await page.locator('.reveal .steps').waitFor();
      await page.keyboard.press(' ');
    }
    await page.getByText(/\d+ of 10 right/).waitFor();
    const right = Number.parseInt(await page.getByText(/\d+ of 10 right/).innerText(), 10);
    const wrong = (await page.locator('.tally strong').allTextContents()).reduce(
      (sum, text) => sum + Number.parseInt(text, 10),
      0,
    );
    expect(right + wrong).toBe(10);
  });

  trial('every question fits a telephone, however many signs it shows', async () => {
    const { page: small, context } = await school.guest({ viewport: { width: 390, height: 844 } });
    await small.getByRole('link', { name: 'Values', exact: true }).click();
    await small.getByRole('link', { name: 'Questions', exact: true }).click();
    const boxes = small.locator('.question-settings input[type="checkbox"]');
    await boxes.first().waitFor();
    for (const box of await boxes.all()) await box.check();
    const tooWide: string[] = [];
    let most = 0;
    for (let set = 1; set <= 6; set++) {
      await small.getByLabel('Number of the set').fill(String(set));
      await small.evaluate(() => (document.activeElement as HTMLElement).blur());
      for (let asked = 1; asked <= 10; asked++) {
        const { over, signs, prompt } = await small.evaluate(() => ({
          over:
            Math.max(
              document.documentElement.scrollWidth,
              ...[...document.querySelectorAll('.question *')].map((part) => part.getBoundingClientRect().right),
            ) - innerWidth,
          signs: document.querySelectorAll('.shown-signs .note-sign').length,
          prompt: document.querySelector('.question h2')!.textContent,
        }));
        most = Math.max(most, signs);
        if (over > 0) tooWide.push(`${set}.${asked} ${prompt}: ${over}`);
        await small.keyboard.press('a');
        await small.getByRole('button', { name: /^(Next|How it went)/ }).click();
      }
    }
    expect(tooWide).toEqual([]);
    expect(most).toBeGreaterThan(5);
    await context.close();
  });
});

describe('on the pattern page', () => {
  it('reads what is typed as it is said, and writes it', async () => {
    await page.goto(`${school.url}/patterns`);
    await page.getByRole('button', { name: /New pattern/ }).click();
    await page.getByLabel('Rhythm', { exact: true }).fill('1 3');
    await page.getByRole('button', { name: '4/4 q (q) q (q)' }).waitFor();
    await page.getByRole('button', { name: 'Write it: 4/4 h h' }).click();
    expect(await page.getByLabel('Rhythm', { exact: true }).inputValue()).toBe('4/4 h h');
    await page.locator('.save-saved').waitFor();
  });

  trial('lays the ruler out for paper before it prints, and for the window again after', async () => {
    await page.goto(`${school.url}/patterns`);
    await page.getByRole('link', { name: /Harbour waltz/ }).click();
    await page.locator('.ruler .lane-notes svg').first().waitFor();
    const widest = () =>
      page
        .locator('.ruler .lane-notes svg')
        .evaluateAll((drawn) => Math.max(...drawn.map((svg) => svg.getBoundingClientRect().width)));
    expect(await widest()).toBeGreaterThan(900);
    await page.evaluate(() => dispatchEvent(new Event('beforeprint')));
    expect(await widest()).toBeLessThan(700);
    await page.evaluate(() => dispatchEvent(new Event('afterprint')));
    await expect.poll(widest).toBeGreaterThan(900);
  });

  it('explains a note, shows hands and feet, and the class’s own words', async () => {
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Harbour 2/ }).click();
    await page.getByRole('button', { name: 'Words' }).click();
    await page.getByLabel('Word for dotted quarter').fill('');
    await page.getByText('a syllable is missing').waitFor();
    expect(await page.getByRole('button', { name: 'Save the words' }).isDisabled()).toBe(true);
    await page.getByLabel('Word for dotted quarter').fill('ta');
    await page.getByText(/“ta” is said for two places/).waitFor();
    await page.getByLabel('Word for dotted quarter').fill('tum');
    await page.locator('.words-form .example', { hasText: 'tum' }).waitFor();
    await page.getByRole('button', { name: 'Save the words' }).click();
    await page.locator('.words-form').waitFor({ state: 'detached' });
    await page.goto(`${school.url}/patterns`);
    await page.getByRole('link', { name: /Leaning mast/ }).click();
    await page.getByLabel('Hands').check();
    await page.getByLabel('Feet').check();
    await page.locator('[data-lane="Ta ti"]').getByText('tum').first().waitFor();
    await page.locator('[data-lane="Steps"]').getByText('L').first().waitFor();
    await page.getByRole('button', { name: 'Explain measure 1, sign 1' }).click();
    await page.getByText('dotted quarter = 1 + 1/2 = 1 1/2 beats').waitFor();
    await page.getByText('Hands: clap, then keep the hands together and push them forward.').waitFor();
    await page.keyboard.press('ArrowRight');
    await page.getByText('eighth, measure 1').waitFor();
  });
});

describe('in the other tradition', () => {
  trial('the class is spoken to of crotchets, wherever values have names', async () => {
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByLabel('Values are called').selectOption('crotchets');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page.getByLabel('Values are called').waitFor({ state: 'detached' });
    await page.locator('.records-grid tbody th a').first().click();
    await page.getByRole('list', { name: 'What is known' }).getByText('crotchet', { exact: true }).waitFor();
    await page.goBack();
    await page.getByRole('button', { name: 'Words' }).click();
    await page.getByLabel('School').selectOption('ta');
    await page.getByLabel('Word for dotted crotchet').waitFor();
    await page.getByRole('button', { name: 'Cancel' }).click();
    await page.getByRole('link', { name: 'Take', exact: true }).click();
    await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
    await part('Fold');
    await page.getByRole('button', { name: /Fold in halves/ }).click();
    await page.getByText('1 semibreve = 2 minims').waitFor();
    await part('Questions');
    expect(await page.locator('.question-settings').innerText()).toContain('quavers');
    expect((await page.locator('.question, .question-settings').allInnerTexts()).join(' ')).not.toMatch(
      /\b(quarters?|eighths?|sixteenths?)\b/,
    );
  });

  trial('a word for a cell must have a syllable for each note', async () => {
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('button', { name: 'Words' }).click();
    await page.getByLabel('School').selectOption('words');
    await page.locator('.more-words summary').click();
    await page.getByLabel('Word for two quavers', { exact: true }).fill('crab');
    await page.getByText('“crab” has 1 syllable for 2 notes').waitFor();
    expect(await page.getByRole('button', { name: 'Save the words' }).isDisabled()).toBe(true);
    await page.getByLabel('Word for two quavers', { exact: true }).fill('pud-dle');
    await page.locator('.words-form .example', { hasText: 'pud dle' }).first().waitFor();
    await page.getByRole('button', { name: 'Save the words' }).click();
    await page.locator('.words-form').waitFor({ state: 'detached' });
  });
});
