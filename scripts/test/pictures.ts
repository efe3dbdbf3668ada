import { type APIRequestContext, type Page, request } from 'playwright-core';

export const PICTURES_FOLDER = 'docs/screenshots';
export const PICTURE_SIZE = { width: 1280, height: 800 };
/** What is still moving when a view is there comes to rest. */
export const AT_REST_MS = 500;

/** One picture per main view, from the demo data: its name, and the way to it from the one before. */
/** A tune as it might come from a site of songs. */
const TUNE = `X:1
T:Low tide
M:4/4
L:1/8
Q:1/4=96
K:D
P:A
|:d2|A2BA F2A2|BcdB A2FA|GBAG FAdf|edcd e2:|
P:B
|:g2|f2df a2fd|g2eg b2ge|(3fga fd ecAc|d2f2 d2:|
`;

/** A device of a child that has come into a room. */
async function joinAs(page: Page, pictures: readonly string[], name: string): Promise<void> {
  const device: APIRequestContext = await request.newContext({ baseURL: new URL(page.url()).origin });
  const door = await device.post('/api/room/enter', { data: { pictures } });
  const { names } = (await door.json()) as { names: { id: string; name: string }[] };
  await device.post('/api/room/seat', { data: { childId: names.find((one) => one.name === name)!.id } });
}

export const PICTURES: readonly (readonly [name: string, open: (page: Page) => Promise<void>])[] = [
  [
    'today',
    async (page) => {
      await page.getByRole('button', { name: /Look around/ }).click();
      await page.getByRole('button', { name: /^Prepare it/ }).click();
      await page.getByRole('button', { name: /^Prepare the next lesson/ }).click();
      await page.locator('.block-card').first().waitFor();
      await page.getByRole('link', { name: 'Today', exact: true }).click();
      await page.locator('.today-next .lesson-blocks').waitFor();
    },
  ],
  [
    'patterns',
    async (page) => {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByRole('link', { name: /Slow tide/ }).waitFor();
    },
  ],
  [
    'pattern',
    async (page) => {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByRole('link', { name: /Leaning mast/ }).click();
      await page.getByLabel('Hands').check();
      await page.getByLabel('Feet').check();
      await page.locator('.ruler .lane-notes svg').first().waitFor();
    },
  ],
  [
    'parts',
    async (page) => {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByRole('link', { name: /Harbour machine/ }).click();
      await page.getByRole('button', { name: 'Lead the class' }).click();
      await page.getByLabel('Parts', { exact: true }).selectOption({ label: 'All parts together at once' });
      await page.getByRole('button', { name: /Start/ }).click();
      await page.locator('.part-strikes').nth(2).waitFor();
    },
  ],
  [
    'bring-in',
    async (page) => {
      await page.getByRole('link', { name: 'Patterns', exact: true }).click();
      await page.getByLabel('Files to bring in').setInputFiles({
        name: 'low tide.abc',
        mimeType: 'text/plain',
        buffer: Buffer.from(TUNE),
      });
      await page.locator('.offer .lane-notes svg').nth(1).waitFor();
    },
  ],
  [
    'shelf',
    async (page) => {
      await page.goto(new URL('/shelf', page.url()).href);
      await page.getByRole('button', { name: 'Look at “Three ropes”' }).click();
      await page.locator('.shelf-rhythm svg').nth(2).waitFor();
    },
  ],
  [
    'make',
    async (page) => {
      await page.getByRole('link', { name: 'Make', exact: true }).click();
      await page.getByText(/not firm in it yet|hardly heard yet|did so lately|this comes next/).waitFor();
      await page.getByRole('radio', { name: '2' }).check();
      await page.getByLabel('To practise').selectOption({ label: 'a rest given no time' });
      await page.getByRole('button', { name: /^Make twelve/ }).click();
      await page.locator('.made-card').nth(3).waitFor();
    },
  ],
  [
    'lead',
    async (page) => {
      await page.getByRole('link', { name: 'Lead', exact: true }).click();
      await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Two gulls' });
      await page.getByLabel('Plan', { exact: true }).selectOption({ label: 'Two lines: clap above, step below' });
      await page.getByRole('button', { name: /Start/ }).click();
      await page.locator('.lead-stage .lane-notes svg').first().waitFor();
      await page
        .locator('.cue-text')
        .filter({ hasText: /^(ti|&)$/ })
        .waitFor();
    },
  ],
  [
    'choose',
    async (page) => {
      await page.goto(new URL('/ear/choose', page.url()).href);
      await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
      await page.getByLabel('What is heard').selectOption({ label: 'Rocking pier' });
      await page.locator('.candidate .lane-notes svg').nth(3).waitFor();
      await page.getByRole('button', { name: /^B:/ }).click();
      for (let beat = 0; beat < 4; beat++) await page.getByRole('button', { name: /Open/ }).first().click();
    },
  ],
  [
    'take',
    async (page) => {
      await page.goto(new URL('/take', page.url()).href);
      await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Leaning mast' });
      await page.locator('.ruler .lane-notes svg').first().waitFor();
    },
  ],
  [
    'together',
    async (page) => {
      await page.getByRole('link', { name: 'Class', exact: true }).click();
      await page.getByRole('link', { name: /Lighthouse 4/ }).click();
      await page.getByRole('link', { name: 'Together', exact: true }).click();
      await page.locator('.weeks-heard .band-note').first().waitFor();
    },
  ],
  [
    'classes',
    async (page) => {
      await page.getByRole('link', { name: 'Class', exact: true }).click();
      await page.getByRole('link', { name: /Lighthouse 4/ }).click();
      await page.getByRole('grid', { name: 'Marks' }).waitFor();
    },
  ],
  [
    'child',
    async (page) => {
      await page.getByRole('link', { name: 'Hamid', exact: true }).click();
      await page.getByRole('columnheader', { name: 'Computed' }).waitFor();
      await page.locator('.marks-chart svg').first().waitFor();
    },
  ],
  [
    'result',
    async (page) => {
      await page.locator('.takes-cell a').nth(1).click();
      await page.locator('.take-result .lane-notes svg').first().waitFor();
    },
  ],
  [
    'turn',
    async (page) => {
      await page.goto(new URL('/take/line-up', page.url()).href);
      await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Leaning mast' });
      await page.getByText(/children, about/).waitFor();
      await page.getByRole('button', { name: /^Start/ }).click();
      await page.getByRole('heading', { name: 'Ada' }).waitFor();
      for (const key of ['3', '4', 'x']) {
        await page.keyboard.press(key);
        await page.waitForTimeout(AT_REST_MS);
      }
    },
  ],
  [
    'lesson',
    async (page) => {
      await page.getByRole('link', { name: 'Plan', exact: true }).click();
      await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
      await page.getByRole('button', { name: 'Prepare it' }).last().click();
      await page.locator('.block-card').nth(3).waitFor();
      await page.locator('.lesson-kept', { hasText: 'Kept' }).waitFor();
    },
  ],
  [
    'term',
    async (page) => {
      await page.getByRole('link', { name: 'Plan', exact: true }).click();
      await page.getByRole('link', { name: 'Term', exact: true }).click();
      await page.locator('.sign-heard').first().waitFor();
    },
  ],
  [
    'sheets',
    async (page) => {
      await page.goto(new URL('/sheets', page.url()).href);
      await page.getByLabel('For').selectOption({ label: 'Lighthouse 4' });
      await page.getByLabel('Seed').fill('4821');
      await page.getByLabel('Level').selectOption('3');
      await page.getByLabel('Questions').fill('4');
      await page.getByRole('button', { name: 'Add a part' }).click();
      await page.getByRole('button', { name: /^Other beats/ }).click();
      await page.getByRole('button', { name: 'Add a part' }).click();
      await page.getByLabel('Title of the sheet').fill('Week 7: counts and beats');
      await page.getByText('16 points in all').waitFor();
      await page
        .getByRole('img', { name: /^Page 1 of/ })
        .locator('canvas')
        .waitFor();
      await page.evaluate(() => scrollTo(0, 0));
    },
  ],
  [
    'room',
    async (page) => {
      await page.getByRole('link', { name: 'Class', exact: true }).click();
      await page.getByRole('link', { name: /Lighthouse 4/ }).click();
      await page.getByRole('link', { name: 'Own devices' }).click();
      await page.getByRole('button', { name: /Open the room/ }).click();
      await page.getByRole('list', { name: 'Pictures' }).waitFor();
      const pictures = await page.getByRole('list', { name: 'Pictures' }).locator('li span').allTextContents();
      for (const name of ['Ada', 'Bram', 'Celia']) await joinAs(page, pictures, name);
      await page.locator('.room-in', { hasText: '3 of' }).waitFor();
    },
  ],
];
