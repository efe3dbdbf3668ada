import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, lookAround } from './browser.test-helper.ts';
import { EVERYTHING } from '../scripts/test/trial.test-helper.ts';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

let school: School;

beforeAll(async () => {
  school = await School.open({ heard: true });
});

afterAll(() => school.close());

/** All findings of the accessibility checker on the page as it stands. */
async function findings(page: Page): Promise<string[]> {
  return page.evaluate(async (source) => {
    // The checker is test equipment: it is put in past the content policy, as a debugger would.
    const scope = window as unknown as {
      axe?: {
        run(options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>;
      };
    };
    // oxlint-disable-next-line no-eval
    if (!scope.axe) (0, eval)(source);
    const { violations } = await scope.axe!.run({ resultTypes: ['violations'] });
    return violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html.slice(0, 160)}`);
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

/** What shows that a part of the ear is there. */
const EAR_PARTS = {
  Echo: '.beat-row',
  Choose: '.candidate .lane-notes svg',
  'Write it': '.strip-line',
  Cards: '.rhythm-card .lane-notes svg',
  Signs: '.question',
  'Draw it': '.draw-board',
} as const;

function partOfEar(name: keyof typeof EAR_PARTS): readonly [string, (page: Page) => Promise<void>] {
  return [
    `ear: ${name}`,
    async (page) => {
      await page.getByRole('link', { name: 'Ear', exact: true }).click();
      await page.getByRole('link', { name, exact: true }).click();
      await page.locator(EAR_PARTS[name]).first().waitFor();
    },
  ];
}

const VIEWS: readonly (readonly [string, (page: Page) => Promise<void>])[] = [
  [
    'today',
    async (page) => {
      await page.getByRole('link', { name: 'Today', exact: true }).click();
      await page.getByRole('region', { name: 'Next lesson' }).waitFor();
    },
  ],
  [
    'the account',
    async (page) => {
      await page.getByRole('link', { name: 'Robin Quay' }).click();
      await page.getByText('You are signed in').waitFor();
    },
  ],
  [
    'words of counting',
    async (page) => {
      await page.getByRole('link', { name: 'Words of counting' }).click();
      await page.getByRole('button', { name: 'Say the words' }).waitFor();
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
    'patterns put into order',
    async (page) => {
      await page.getByRole('button', { name: 'Arrange' }).click();
      await page.locator('.arrange-head').first().waitFor();
    },
  ],
  [
    'patterns to be taken out',
    async (page) => {
      await page.getByRole('button', { name: 'Take out' }).click();
      await page.getByRole('button', { name: /Save \d+ patterns/ }).waitFor();
    },
  ],
  [
    'files that are brought in',
    async (page) => {
      const name = 'march.txt';
      const buffer = Buffer.from(`4/4 ${'q q h | '.repeat(17)}w\n\n4/4 q q`);
      await page.getByLabel('Files to bring in').setInputFiles({ name, mimeType: 'text/plain', buffer });
      await page.locator('.offer .lane-notes svg').first().waitFor();
    },
  ],
  [
    'a pattern',
    async (page) => {
      await page.getByRole('button', { name: 'Back' }).click();
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
    'make',
    async (page) => {
      await page.getByRole('link', { name: 'Make', exact: true }).click();
      await page.getByText(/not firm in it yet|hardly heard yet|did so lately|this comes next/).waitFor();
      await page.keyboard.press('n');
      await page.locator('.made-card').nth(2).waitFor();
    },
  ],
  [
    'make: all of them',
    async (page) => {
      await page.getByRole('link', { name: 'All of them', exact: true }).click();
      await page.locator('.fill-list .made-card').first().waitFor();
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
  ...(['Echo', 'Choose', 'Write it', 'Cards', 'Signs', 'Draw it'] as const).map(partOfEar),
  [
    'candidates ruled out, and what the class has met',
    async (page) => {
      await page.getByRole('link', { name: 'Choose', exact: true }).click();
      await page.locator('.candidate .lane-notes svg').nth(3).waitFor();
      await page.getByRole('button', { name: /^A:/ }).click();
      await page.getByRole('button', { name: /Open all/ }).click();
      await page.locator('.candidate.out').nth(2).waitFor();
      await page.getByRole('button', { name: /From .* elements/ }).click();
      await page.getByText('What the class has met', { exact: true }).waitFor();
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
    'plan: lessons',
    async (page) => {
      await page.getByRole('link', { name: 'Plan', exact: true }).click();
      await page.locator('.plan-day').first().waitFor();
    },
  ],
  [
    'plan: the term',
    async (page) => {
      await page.getByRole('link', { name: 'Term', exact: true }).click();
      await page.locator('.term-picture tbody tr').first().waitFor();
    },
  ],
  [
    'a lesson',
    async (page) => {
      await page.getByRole('link', { name: 'Lessons', exact: true }).click();
      await page.locator('.plan-lesson').first().click();
      await page.locator('.block-card').first().waitFor();
    },
  ],
  [
    'sheets',
    async (page) => {
      await page.getByRole('link', { name: 'Sheets', exact: true }).click();
      await page.getByRole('button', { name: 'Add a part' }).click();
      await page.getByRole('button', { name: /^Other beats/ }).click();
      await page.getByRole('button', { name: 'From what is usual at this level' }).first().click();
      await page
        .getByRole('img', { name: /^Page 1 of/ })
        .locator('canvas')
        .waitFor();
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
    'marks of a class in patterns',
    async (page) => {
      await page.getByRole('link', { name: /Lighthouse 4/ }).click();
      await page.getByRole('grid', { name: 'Marks' }).waitFor();
    },
  ],
  [
    'many children at once',
    async (page) => {
      await page.getByRole('button', { name: 'Many at once' }).click();
      await page.getByText('No new names yet').waitFor();
    },
  ],
  [
    'marks from paper',
    async (page) => {
      await page.getByRole('button', { name: 'Marks from paper' }).click();
      await page.getByLabel('Out of').waitFor();
    },
  ],
  [
    'elements of a class',
    async (page) => {
      await page.getByRole('button', { name: 'Cancel' }).click();
      await page.getByLabel('Elements').check();
      await page.getByRole('grid', { name: 'Elements' }).waitFor();
    },
  ],
  [
    'an element',
    async (page) => {
      await page.getByRole('link', { name: 'Who has quarter', exact: true }).click();
      await page.getByText('Patterns that practise it').waitFor();
    },
  ],
  [
    'a child',
    async (page) => {
      await page.getByRole('link', { name: 'Ada', exact: true }).click();
      await page.getByRole('columnheader', { name: 'Computed' }).waitFor();
      await page.getByRole('button', { name: /what is made easier/ }).click();
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
      await page.getByRole('button', { name: 'Marks', exact: true }).click();
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
  ...(
    [
      ['sharing', 'Share with a colleague', 'Name of the colleague'],
      ['terms', 'Terms', 'Name of the term'],
      ['moving children', 'Move children', 'Name of the new class'],
    ] as const
  ).map(([name, button, field]): readonly [string, (page: Page) => Promise<void>] => [
    name,
    async (page) => {
      await page.getByRole('button', { name: 'More' }).click();
      await page.getByRole('button', { name: button }).click();
      await page.getByLabel(field).waitFor();
    },
  ]),
  [
    'a practice week to be made',
    async (page) => {
      await page.getByRole('link', { name: 'Practice', exact: true }).click();
      await page.getByRole('button', { name: 'New practice week' }).click();
      await page.getByLabel('Times a day').waitFor();
    },
  ],
  [
    'a practice week',
    async (page) => {
      await page.getByRole('button', { name: 'Keep this week' }).click();
      await page.getByRole('table', { name: 'Done' }).waitFor();
    },
  ],
  [
    'reports',
    async (page) => {
      await page.getByRole('link', { name: 'Lighthouse 4' }).click();
      await page.getByRole('link', { name: 'Lighthouse 4' }).click();
      await page.getByRole('button', { name: 'More' }).click();
      await page.getByRole('link', { name: 'Reports for parents' }).click();
      await page
        .getByText(/has clapped a written rhythm/)
        .first()
        .waitFor();
    },
  ],
  [
    'how together a class is',
    async (page) => {
      await page.goto(page.url().replace('/reports', '/together'));
      await page.locator('.weeks-heard .band-note').first().waitFor();
    },
  ],
  [
    'the first day',
    async (page) => {
      await page.goto(new URL('/first-day', page.url()).href);
      await page.locator('.starters li').first().waitFor();
    },
  ],
  [
    'a school',
    async (page) => {
      await page.goto(new URL('/school', page.url()).href);
      await page.getByText('administrator, you').waitFor();
    },
  ],
  [
    'what parents ask',
    async (page) => {
      await page.goto(new URL('/school/answers', page.url()).href);
      await page.getByText('How long is it kept?').waitFor();
    },
  ],
  [
    'the shelf of a school',
    async (page) => {
      await page.goto(new URL('/shelf?lay=pattern', page.url()).href);
      await page.getByRole('button', { name: 'Look at “Three ropes”' }).click();
      await page.getByRole('button', { name: 'Take a copy' }).waitFor();
    },
  ],
  [
    'help',
    async (page) => {
      await page.getByRole('button', { name: 'Help' }).click();
      await page.getByRole('dialog').waitFor();
    },
  ],
  [
    'a line-up before it starts',
    async (page) => {
      await page.goto(new URL('/take/line-up', page.url()).href);
      await page.getByText(/children, about/).waitFor();
    },
  ],
  [
    'whose turn it is',
    async (page) => {
      await page.keyboard.press('Space');
      await page.locator('.whose-turn').waitFor();
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

const NARROW = [
  'sign-in',
  'values: Questions',
  'a pattern',
  'take',
  'a child',
  'marks of a class in patterns',
  'whose turn it is',
  'a practice week',
  'the first day',
  'a take that runs',
];

/** The checker is slow: it looks at the two layouts there are; the other sizes of a layout are only measured. */
const HEIGHT = 800;
const WIDE = 1280;
const PHONE = 390;
/** What a page of 1280 pixels has that is enlarged four times. */
const ENLARGED = 320;
const WIDTHS = EVERYTHING ? [1920, 1024, PHONE, ENLARGED, WIDE] : [PHONE, ENLARGED, WIDE];

/** How much there is to scroll sideways, when what follows the width has followed: after two frames, a chart later. */
const widthOver = async () => {
  const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
  const over = () => document.documentElement.scrollWidth - innerWidth;
  await frame();
  await frame();
  const late = performance.now() + 1500;
  while (over() > 0 && performance.now() < late) await frame();
  return over();
};

/** What a lesson goes through, and what a class is kept by: looked at each time, the others by `npm run trials`. */
const MAIN = [
  'today',
  'patterns',
  'a pattern',
  'make',
  'lead',
  'ear: Choose',
  'take',
  'plan: the term',
  'a lesson',
  'sheets',
  'how together a class is',
  'marks of a class in patterns',
  'a child',
  'a take that runs',
];

/** One visit goes from view to view, and each is looked at by itself. */
describe('every view, by itself', () => {
  const blocked: string[] = [];
  let page: Page;
  let look: (name: string) => Promise<void>;

  beforeAll(async () => {
    // Watched, the checker would run for minutes.
    const viewport = { width: WIDE, height: HEIGHT };
    const visitor = await school.visitor({ viewport, bypassCSP: false }, false);
    page = visitor.page;
    page.on('console', (message) => {
      const text = message.text();
      if (/Content Security Policy/.test(text) && !/unsafe-eval/.test(text)) blocked.push(text);
    });
    const cdp = await visitor.context.newCDPSession(page);
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    look = async (name) => {
      await cdp.send('Page.setBypassCSP', { enabled: true });
      const problems: string[] = [];
      for (const width of WIDTHS) {
        await page.setViewportSize({ width, height: HEIGHT });
        const sideways = await page.evaluate(widthOver);
        if (sideways > 0) problems.push(`${sideways} pixels too wide at ${width}`);
        // On a phone what a child has in its hands, and what is laid out otherwise there.
        if (width !== WIDE && !(EVERYTHING && width === PHONE && NARROW.includes(name))) continue;
        // Colours have come to rest.
        await page.waitForTimeout(200);
        problems.push(...(await findings(page)).map((found) => `${found} at ${width}`));
      }
      expect(problems).toEqual([]);
      expect(blocked.splice(0)).toEqual([]);
    };
  });

  afterAll(() => page.context().close());

  it('sign-in', async () => {
    await look('sign-in');
    await lookAround(page);
  });

  it.each(VIEWS)('%s', async (name, open) => {
    // Each leads to the next.
    await open(page);
    if (EVERYTHING || MAIN.includes(name)) await look(name);
  });
});

describe('in a dark and in a bright room', () => {
  afterEach(() => school.tidy());

  it('everything is read as well: the day, notes, a run, a result, the marks', async () => {
    const { page } = await school.guest({ bypassCSP: true }, '/today');
    for (const room of EVERYTHING ? ['dark room', 'bright room'] : ['dark room']) {
      await page.getByRole('button', { name: /^Colours/ }).click();
      await page.getByRole('button', { name: `Colours: ${room}` }).waitFor();
      const seen: Record<string, string[]> = {};
      const look = async (name: string) => {
        await page.waitForTimeout(200);
        seen[name] = await findings(page);
      };
      await page.getByRole('link', { name: 'Today', exact: true }).click();
      await page.getByRole('region', { name: 'Next lesson' }).waitFor();
      await look('today');
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByRole('link', { name: /Leaning mast/ }).click();
      const stem = page.locator('.lane-notes .vf-stem path').first();
      await stem.waitFor({ state: 'attached' });
      await look('a pattern');
      // What the engraver draws follows too.
      expect(await stem.evaluate((line) => getComputedStyle(line).stroke)).toBe(
        await page.evaluate(() => getComputedStyle(document.body).color),
      );
      await page.getByRole('link', { name: 'Take', exact: true }).click();
      await page.getByRole('button', { name: 'Hear the practice child' }).click();
      await page.locator('.take-result .ruler').first().waitFor();
      await look('a result');
      await page.getByRole('link', { name: 'Class', exact: true }).click();
      await page.getByRole('link', { name: /Harbour 2/ }).click();
      await page.getByRole('grid', { name: 'Marks' }).waitFor();
      await look('marks');
      expect(seen).toEqual({ today: [], 'a pattern': [], 'a result': [], marks: [] });
    }
    // The next room is the plain one, or one further.
    const colours = page.getByRole('button', { name: /^Colours/ });
    await colours.click();
    if (!EVERYTHING) await colours.click();
    expect(await page.evaluate(() => document.documentElement.dataset['room'])).toBeUndefined();
    // Where the system has colours of its own, what is drawn has the colour of its letters.
    await page.emulateMedia({ forcedColors: 'active', colorScheme: 'dark' });
    await page.getByRole('link', { name: 'Patterns', exact: true }).click();
    await page.getByRole('link', { name: /Leaning mast/ }).click();
    const stem = page.locator('.lane-notes .vf-stem path').first();
    await stem.waitFor({ state: 'attached' });
    expect(await stem.evaluate((line) => getComputedStyle(line).stroke)).toBe(
      await page.evaluate(() => getComputedStyle(document.querySelector('h1, h2, label')!).color),
    );
  });
});

describe('every view', () => {
  afterEach(() => school.tidy());

  it('the board goes from pattern to pattern, larger and smaller, lanes on and off, by its keys', async () => {
    const { page, context } = await school.guest();
    await page.getByRole('link', { name: /Walking to the quay/ }).click();
    await page.getByRole('button', { name: 'Board' }).click();
    const title = page.locator('.board h1');
    await title.filter({ hasText: 'Walking to the quay' }).waitFor();
    await page.keyboard.press('ArrowRight');
    await title.filter({ hasText: 'Two gulls' }).waitFor();
    await page.keyboard.press('ArrowLeft');
    await title.filter({ hasText: 'Walking to the quay' }).waitFor();
    const notes = page.locator('.board .lane-notes').first();
    await notes.locator('svg').waitFor();
    const before = (await notes.boundingBox())!.height;
    const becomes = (larger: boolean) =>
      page.waitForFunction(
        ([was, more]) => {
          const { height } = document.querySelector('.board .lane-notes')!.getBoundingClientRect();
          return more ? height > was - 1 : height < was - 1;
        },
        [before, larger] as const,
      );
    await page.keyboard.press('-');
    await becomes(false);
    await page.keyboard.press('+');
    await becomes(true);
    await page.keyboard.press('s');
    await page.locator('.board .lane-strips').first().waitFor({ state: 'detached' });
    await page.keyboard.press('c');
    await page.locator('.board .token').first().waitFor({ state: 'detached' });
    await page.keyboard.press('Escape');
    await page.getByLabel('Rhythm', { exact: true }).waitFor();
    await context.close();
  });

  it('on a phone the start and the pad are under the thumb, and a running take has nothing else', async () => {
    const { page, context } = await school.guest({ viewport: { width: 390, height: 844 }, hasTouch: true });
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
