import { mkdirSync } from 'node:fs';
import { type Page, chromium } from 'playwright-core';
import { launchOptions } from './browser.ts';
import { withDemoServer } from './demoServer.ts';

/** One picture per main view, from the demo data. */
const PICTURES: readonly (readonly [string, (page: Page) => Promise<void>])[] = [
  ['sign-in', async (page) => page.getByRole('button', { name: /Look around/ }).waitFor()],
  [
    'patterns',
    async (page) => {
      await page.getByRole('button', { name: /Look around/ }).click();
      await page.getByRole('link', { name: /Slow tide/ }).waitFor();
    },
  ],
  [
    'fold',
    async (page) => {
      await page.goto(new URL('/values/fold', page.url()).href);
      for (let fold = 0; fold < 3; fold++) await page.getByRole('button', { name: /Fold in halves/ }).click();
      await page.getByRole('button', { name: 'half', exact: true }).click();
    },
  ],
  [
    'strips',
    async (page) => {
      await page.getByRole('link', { name: 'Strips' }).click();
      for (const key of ['q', '.', 'e', 'q', 'e']) await page.keyboard.press(key);
    },
  ],
  ['sums', async (page) => page.getByRole('link', { name: 'Sums' }).click()],
  ['beat', async (page) => page.getByRole('link', { name: 'What gets the beat' }).click()],
  [
    'question',
    async (page) => {
      await page.getByRole('link', { name: 'Questions' }).click();
      await page.getByLabel('Number of the set').fill('18');
      await page.getByRole('button', { name: /^B/ }).click();
    },
  ],
  [
    'spoken',
    async (page) => {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByRole('button', { name: /New pattern/ }).click();
      await page.getByLabel('Rhythm', { exact: true }).fill('1 3');
      await page.getByRole('button', { name: /Write it/ }).waitFor();
      await page.locator('.lane-notes svg').first().waitFor();
    },
  ],
  [
    'pattern',
    async (page) => {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByRole('link', { name: /Leaning mast/ }).click();
      await page.getByLabel('Hands').check();
      await page.getByLabel('Feet').check();
      await page.locator('.lane-notes svg').first().waitFor();
    },
  ],
  [
    'lead-plan',
    async (page) => {
      await page.goto(new URL('/lead', page.url()).href);
      await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Leaning mast' });
      await page.locator('.lane-notes svg').first().waitFor();
    },
  ],
  [
    'lead',
    async (page) => {
      await page.getByLabel('Plan', { exact: true }).selectOption({ label: 'Two lines: clap above, step below' });
      await page.getByRole('button', { name: /Start/ }).click();
      await page.locator('.lead-stage .lane-notes svg').first().waitFor();
      await page.locator('.cue-text').filter({ hasText: /^ti$/ }).waitFor();
    },
  ],
  [
    'take',
    async (page) => {
      await page.goto(new URL('/take', page.url()).href);
      await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Leaning mast' });
      await page.locator('.lane-notes svg').first().waitFor();
    },
  ],
  [
    'classes',
    async (page) => {
      await page.getByRole('link', { name: 'Class', exact: true }).click();
      await page.getByRole('link', { name: /Lighthouse 4/ }).click();
      await page.getByRole('button', { name: 'Finn', exact: true }).click();
      await page.getByRole('columnheader', { name: 'Computed' }).waitFor();
    },
  ],
  [
    'result',
    async (page) => {
      await page.getByRole('button', { name: 'Hamid', exact: true }).click();
      await page.locator('.takes-cell a').nth(1).click();
      await page.locator('.take-result .lane-notes svg').first().waitFor();
    },
  ],
];

await withDemoServer(async (url) => {
  const browser = await chromium.launch(launchOptions());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(url);
  mkdirSync('docs/screenshots', { recursive: true });
  for (const [name, open] of PICTURES) {
    await open(page);
    await page.waitForTimeout(500);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    console.log(`docs/screenshots/${name}.png`);
  }
  await browser.close();
});
