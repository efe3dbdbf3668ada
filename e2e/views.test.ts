import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, lookAround } from './browser.test-helper.ts';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

let school: School;

beforeAll(async () => {
  school = await School.open();
});

afterEach(() => school.tidy());
afterAll(() => school.close());

/** Serious findings of the accessibility checker on the page as it stands. */
async function findings(page: Page): Promise<string[]> {
  return page.evaluate(async (source) => {
    // The checker is test equipment: it is put in past the content policy, as a debugger would.
    const scope = window as unknown as {
      axe?: { run(): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }> };
    };
    if (!scope.axe) (0, eval)(source);
    const { violations } = await scope.axe!.run();
    return violations
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .map(({ id, nodes }) => `${id}: ${nodes[0]!.html.slice(0, 160)}`);
  }, AXE);
}

const partOfValues = (title: string): readonly [string, (page: Page) => Promise<void>] => [
  `values: ${title}`,
  async (page) => {
    await page.getByRole('link', { name: 'Values', exact: true }).click();
    await page.getByRole('link', { name: title, exact: true }).click();
    await page.locator('.big-line').first().waitFor();
  },
];

const VIEWS: readonly (readonly [string, (page: Page) => Promise<void>])[] = [
  [
    'the account',
    async (page) => {
      await page.getByRole('link', { name: 'Robin Quay' }).click();
      await page.getByText('You are signed in').waitFor();
    },
  ],
  ...['Fold', 'Strips', 'Sums', 'What gets the beat', 'Questions'].map(partOfValues),
  [
    'patterns',
    async (page) => {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByRole('heading', { name: 'Patterns' }).waitFor();
    },
  ],
  [
    'a pattern',
    async (page) => {
      await page.getByRole('link', { name: /Round the lighthouse/ }).click();
      await page.locator('.ruler .lane-notes svg').first().waitFor();
    },
  ],
  [
    'the board',
    async (page) => {
      await page.getByRole('button', { name: 'Board' }).click();
      await page.locator('.board .lane-notes svg').first().waitFor();
    },
  ],
  [
    'lead',
    async (page) => {
      await page.getByRole('link', { name: 'Lead', exact: true }).click();
      await page.getByRole('button', { name: /Start/ }).waitFor();
    },
  ],
  [
    'a run',
    async (page) => {
      await page.getByRole('button', { name: /Start/ }).click();
      await page.locator('.lead-stage .lane-notes svg').first().waitFor();
    },
  ],
  [
    'take',
    async (page) => {
      await page.getByRole('link', { name: 'Take', exact: true }).click();
      await page.getByRole('button', { name: /Start/ }).waitFor();
    },
  ],
  [
    'classes',
    async (page) => {
      await page.getByRole('link', { name: 'Class', exact: true }).click();
      await page.getByRole('link', { name: /Lighthouse 4/ }).waitFor();
    },
  ],
  [
    'a class',
    async (page) => {
      await page.getByRole('link', { name: /Lighthouse 4/ }).click();
      await page.getByRole('button', { name: 'Ada', exact: true }).click();
      await page.getByRole('columnheader', { name: 'Computed' }).waitFor();
    },
  ],
  [
    'a take of the past',
    async (page) => {
      await page.locator('.takes-cell a').first().click();
      await page.locator('.take-result').waitFor();
    },
  ],
  [
    'words of a class',
    async (page) => {
      await page.getByRole('link', { name: 'Back to the class' }).click();
      await page.getByRole('button', { name: 'Words' }).click();
      await page.getByRole('button', { name: 'Cancel' }).waitFor();
    },
  ],
  [
    'marks of a class',
    async (page) => {
      await page.getByRole('button', { name: 'Cancel' }).click();
      await page.getByRole('button', { name: 'Marks' }).click();
      await page.getByLabel('On time within').waitFor();
    },
  ],
  [
    'a class to be changed',
    async (page) => {
      await page.getByRole('button', { name: 'Cancel' }).click();
      await page.getByRole('button', { name: 'Change' }).click();
      await page.getByLabel('Values are called').waitFor();
    },
  ],
  [
    'calibration',
    async (page) => {
      await page.getByRole('link', { name: 'Take', exact: true }).click();
      await page.getByRole('button', { name: 'Calibrate this device' }).click();
      await page.locator('.calibration, .card-paper').first().waitFor();
    },
  ],
  [
    'microphone',
    async (page) => {
      await page.reload();
      await page.getByLabel('Heard by').selectOption({ label: 'microphone' });
      await page.getByRole('button', { name: /Start/ }).waitFor();
    },
  ],
  [
    'a take that runs',
    async (page) => {
      await page.getByLabel('Heard by').selectOption({ label: 'taps' });
      await page.getByRole('button', { name: /Start/ }).click();
      await page.locator('.pad[data-beat-one]').waitFor();
    },
  ],
];

describe('every view', () => {
  for (const size of [
    { width: 1920, height: 1080, checked: false },
    { width: 1280, height: 800, checked: true },
    { width: 1024, height: 768, checked: false },
    { width: 390, height: 844, checked: true },
  ]) {
    // The checker is slow: it looks at the two layouts there are, a wide and a narrow one.
    it(`at ${size.width}: no serious finding, nothing to scroll sideways, nothing the policy forbids`, async () => {
      const { width, height } = size;
      const { page, context } = await school.visitor(
        { viewport: { width, height }, bypassCSP: false },
        // Watched, the checker would run for minutes.
        !size.checked,
      );
      const blocked: string[] = [];
      page.on(
        'console',
        (message) =>
          /Content Security Policy/.test(message.text()) &&
          !/unsafe-eval/.test(message.text()) &&
          blocked.push(message.text()),
      );
      const cdp = await context.newCDPSession(page);
      await page.getByRole('button', { name: /Look around/ }).waitFor();
      const problems: Record<string, unknown> = {};
      const look = async (name: string) => {
        await page.waitForTimeout(150);
        const sideways = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
        if (size.checked) await cdp.send('Page.setBypassCSP', { enabled: true });
        const found = size.checked ? await findings(page).catch((error: Error) => [error.message]) : [];
        if (found.length > 0 || sideways > 0) problems[name] = { found, sideways };
      };
      await look('sign-in');
      await lookAround(page);
      for (const [name, open] of VIEWS) {
        await open(page);
        await look(name);
      }
      expect(problems).toEqual({});
      expect(blocked).toEqual([]);
      await context.close();
    });
  }

  it('the board goes from pattern to pattern, larger and smaller, lanes on and off, by its keys', async () => {
    const { page, context } = await school.visitor();
    await lookAround(page);
    await page.getByRole('link', { name: /Walking to the quay/ }).click();
    await page.getByRole('button', { name: 'Board' }).click();
    const title = page.locator('.board h1');
    await title.filter({ hasText: 'Walking to the quay' }).waitFor();
    await page.keyboard.press('ArrowRight');
    await title.filter({ hasText: 'Two gulls' }).waitFor();
    await page.keyboard.press('ArrowLeft');
    await title.filter({ hasText: 'Walking to the quay' }).waitFor();
    const height = () =>
      page
        .locator('.board .lane-notes')
        .first()
        .evaluate(({ clientHeight }) => clientHeight);
    const before = await height();
    await page.keyboard.press('-');
    await page.waitForFunction((was) => document.querySelector('.board .lane-notes')!.clientHeight < was, before);
    await page.keyboard.press('+');
    await page.waitForFunction((was) => document.querySelector('.board .lane-notes')!.clientHeight === was, before);
    await page.keyboard.press('s');
    await page.locator('.board .lane-strips').first().waitFor({ state: 'detached' });
    await page.keyboard.press('c');
    await page.locator('.board .token').first().waitFor({ state: 'detached' });
    await page.keyboard.press('Escape');
    await page.getByLabel('Rhythm', { exact: true }).waitFor();
    await context.close();
  });

  it('on a phone the start and the pad are under the thumb, and a running take has nothing else', async () => {
    const { page, context } = await school.visitor({ viewport: { width: 390, height: 844 }, hasTouch: true });
    await lookAround(page);
    await page.getByRole('link', { name: 'Take', exact: true }).click();
    const start = page.getByRole('button', { name: /Start/ });
    const lower = async (what: typeof start) => (await what.boundingBox())!.y;
    await start.waitFor();
    expect(await lower(start)).toBeGreaterThan(600);
    await start.tap();
    await page.locator('.pad').waitFor();
    const box = (await page.locator('.pad').boundingBox())!;
    expect(box.y + box.height / 2).toBeGreaterThan(844 / 2);
    expect(box.y + box.height).toBeLessThan(844);
    expect(await page.locator('.shell-bar').isVisible()).toBe(false);
    await context.close();
  });

  it('loads no notation code or font before notes are shown', async () => {
    const { page, context } = await school.visitor();
    const loaded = () =>
      page.evaluate(() => performance.getEntriesByType('resource').map(({ name }) => name.split('/').pop()!));
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    const names = await loaded();
    expect(names.filter((name) => /engrave|harbour/.test(name))).toEqual([]);
    await lookAround(page);
    await page.getByRole('link', { name: /Slow tide/ }).click();
    await page.locator('.ruler .lane-notes svg').first().waitFor();
    expect((await loaded()).filter((name) => /engrave|harbour/.test(name)).length).toBe(2);
    await context.close();
  });
});
