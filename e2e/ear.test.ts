import type { Locator, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { type Point, strokesOf } from '../core/ear/strokes.ts';
import { parseRhythm } from '../core/rhythm/text.ts';
import { soundKey } from '../core/rhythm/soundings.ts';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;
beforeAll(async () => {
  // A made-up microphone: it beeps.
  school = await School.open({ args: ['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'] });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const at = async (path: string, options = {}) => (await school.guest(options, path)).page;

/** The texts of the four candidates, as the screen reader has them. */
const candidates = (page: Page) =>
  page
    .locator('.candidate')
    .evaluateAll((buttons) => buttons.map((button) => button.getAttribute('aria-label')!.slice(3).replace(/,.*/, '')));

function soundOf(text: string): string {
  const read = parseRhythm(text);
  if (!read.ok) throw new Error(text);
  return soundKey(read.pattern);
}

/** On a busy machine the page may still move under the finger: then it is tapped again, as anybody would. */
async function tapUntil(button: Locator, there: Locator) {
  for (let tries = 0; tries < 8 && !(await there.isVisible()); tries++) {
    await button.tap({ timeout: 3_000 }).catch(() => undefined);
    await there.waitFor({ timeout: 3_000 }).catch(() => undefined);
  }
  await there.waitFor();
}

/** A page for a class of the demo. */
async function forClass(path: string, name: string, options = {}) {
  const page = await at(path, options);
  await page.getByLabel('Class').selectOption({ label: name });
  return page;
}

describe('choose', () => {
  it('is answered by key, opened beat by beat until one is left, and the hands of the class are counted', async () => {
    const page = await at('/ear/choose');
    await page.locator('.candidate .lane-notes svg').nth(3).waitFor();
    const texts = await candidates(page);
    expect(new Set(texts.map(soundOf)).size).toBe(4);
    await page.keyboard.press(' ');
    await page.getByText('2 times left to hear it').waitFor();
    await page.keyboard.press('b');
    await page.getByText('Your answer.').waitFor();
    for (let beat = 0; beat < 4 && !(await page.getByText(/^It is [A-D]\.$/).isVisible()); beat++)
      await page.keyboard.press(' ');
    const found = (await page.locator('.big-line').textContent())!;
    expect(await page.locator('.candidate.out').count()).toBe(3);
    expect(await page.locator('.candidate.right').getAttribute('aria-label')).toMatch(`${found.at(-2)}: `);
    // Each that stepped back says why, in claps.
    for (const why of await page.locator('.candidate-why').allTextContents())
      expect(why.trim() === '' || /eat \d: .*clap|^Your answer\.\s*$/.test(why), why).toBe(true);
    await page.keyboard.press(' ');
    await page.getByText('2 of 10 ·').waitFor();
    await page.keyboard.press('h');
    for (const [letter, hands] of Object.entries({ A: '3', B: '12', C: '0', D: '6' }))
      await page.getByLabel(`Hands for ${letter}`).fill(hands);
    await page.keyboard.press('Enter');
    await page.getByText('12 hands.').waitFor();
    await page.getByRole('button', { name: /Open all/ }).click();
    await page.getByText(/^It is [A-D]\.$/).waitFor();
  });

  trial('ten in a row end with a tally that is kept for the class, by touch', async () => {
    const page = await forClass('/ear/choose', 'Lighthouse 4', { hasTouch: true });
    for (let i = 0; i < 10; i++) {
      await page.getByText(`${i + 1} of 10 ·`).waitFor();
      const next = page.getByRole('button', { name: /Next/ });
      await tapUntil(page.locator('.candidate').first(), page.locator('.opened-ruler .lane-notes svg').first());
      // The ruler that is opened pushes down what is below it.
      await tapUntil(page.getByRole('button', { name: /Open all/ }), next);
      await next.tap();
    }
    const headline = (await page.locator('.ear-score .big-line').textContent())!;
    expect(headline).toMatch(/^\d+ of 10 right$/);
    await page.getByRole('button', { name: 'Keep it' }).tap();
    await page.getByText('Kept for Lighthouse 4').waitFor();
    await page.locator('.last-times').waitFor();
    expect(await page.locator('.last-times').textContent()).toContain(headline.replace(' right', ''));
  });
});

describe('echo', () => {
  it('is heard, clapped back over the beat, then counted one by one; the microphone says how it was', async () => {
    const page = await forClass('/ear/echo', 'Harbour 2');
    await page.getByText(/^Step 1 of \d+: 1 measure$/).waitFor();
    await page.locator('.ear-tempo input').fill('132');
    await page.getByRole('button', { name: 'Listen by microphone' }).click();
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press(' ');
    await page.getByText('Your turn').waitFor();
    await page.locator('.echo-heard').waitFor();
    expect(await page.locator('.echo-heard').textContent()).toMatch(/clapped|No claps were heard/);
    const counted = page.getByRole('group', { name: /of \d+ are open/ });
    const pieces = Number(/of (\d+)/.exec((await counted.getAttribute('aria-label'))!)![1]);
    expect(await page.locator('.opened-ruler .cover').count()).toBe(pieces);
    await page.keyboard.press(' ');
    await expect.poll(() => page.locator('.opened-ruler .cover').count()).toBe(pieces - 1);
    await page.keyboard.press('Enter');
    await page.locator('.opened-ruler .lane-notes svg').waitFor();
    // The teacher decides, whatever was heard.
    await page.keyboard.press('g');
    await page.getByText(/^Step 2 of/).waitFor();
    await page.getByText('1 of 1 went well').waitFor();
  });
});

describe('write it', () => {
  it('compares measure by measure; what sounds the same is right', async () => {
    const page = await at('/ear/write');
    await page.getByLabel('What is heard').selectOption({ label: 'Slow tide' });
    await page.getByText('Listen, then write it').waitFor();
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    for (const key of ['q', 'q', 'q', 'q', 'h']) await page.keyboard.press(key);
    await page.keyboard.press('Enter');
    await page.getByText('Measure 1: wrong from beat 4: 3 of 4 beats right').waitFor();
    await page.getByText('Measure 1, beat 4: listen once more').waitFor();
    // The last quarter of measure 1 becomes a rest, the half of measure 2 stays a half: it sounds the same.
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('r');
    await page.keyboard.press('Enter');
    await page.getByText('Right: it sounds the same, written otherwise', { exact: true }).waitFor();
    await page.getByText('what differs is how long the notes last').waitFor();
    await page.getByRole('button', { name: /In syllables/ }).click();
    await page.locator('.ear-syllables').waitFor();
  });

  trial('has in its tray what the class has met, and more when it is opened up', async () => {
    const page = await forClass('/ear/write', 'Lighthouse 4');
    await page.getByRole('button', { name: /From .* elements/ }).click();
    const ids = await page.locator('.ear-elements input:checked').evaluateAll((boxes) => boxes.map(({ id }) => id));
    for (const id of ids) if (id !== 'met-quarter' && id !== 'met-half') await page.locator(`#${id}`).uncheck();
    await page.getByRole('button', { name: 'From 2 elements' }).click();
    expect(await page.locator('.tray .laid').count()).toBe(2);
    expect(await page.getByRole('button', { name: /^Rest/ }).count()).toBe(0);
    await page.getByRole('button', { name: 'Open up the tray' }).click();
    expect(await page.locator('.tray .laid').count()).toBe(5);
    await page.getByRole('button', { name: /From .* elements/ }).click();
    await page.getByRole('button', { name: 'As the records of the class say' }).click();
    await page.getByRole('button', { name: /From (1\d|[3-9]) elements/ }).waitFor();
  });
});

describe('signs', () => {
  it('ten questions of every way to answer; the score becomes a mark of a child', async () => {
    const page = await forClass('/ear/signs', 'Lighthouse 4');
    for (let i = 0; i < 10; i++) {
      await page.getByText(`${i + 1} of 10 ·`).waitFor();
      const staff = page.locator('.staff-button');
      const options = page.locator('.option');
      if ((await staff.count()) === 8) {
        await page.keyboard.press('1');
        await page.keyboard.press('Enter');
      } else if ((await staff.count()) > 0) for (const key of ['a', 'b', 'c', 'd']) await page.keyboard.press(key);
      else await options.first().click();
      await page.getByRole('button', { name: /Next|How it went/ }).waitFor();
      await page.evaluate(() => (document.activeElement as HTMLElement).blur());
      await page.keyboard.press(' ');
    }
    const headline = (await page.locator('.question .big-line').textContent())!;
    const [, right] = /^(\d+) of 10 right$/.exec(headline)!;
    await page.getByLabel('Keep the score').selectOption({ label: 'as a mark of Ada' });
    await page.getByRole('button', { name: 'Keep it' }).click();
    await page.getByText('Kept for Ada').waitFor();
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByText('Ear: Signs').first().waitFor();
    expect(await page.getByRole('row', { name: /^Ada/ }).textContent()).toContain(right);
  });

  trial('against the clock a question that takes too long is over', async () => {
    const page = await at('/ear/signs');
    await page.clock.install();
    await page.getByLabel('Time').selectOption({ label: '6 seconds each' });
    await page.getByText('6 seconds left').waitFor();
    for (let second = 0; second < 6; second++) await page.clock.runFor(1000);
    await page.getByRole('button', { name: /Next/ }).waitFor();
    await page.getByText('1 of 10 · 0 right').waitFor();
  });
});

/** Draws on the board with the mouse; points in staff spaces. */
async function draw(page: Page, points: readonly Point[]) {
  const box = (await page.locator('.draw-board').boundingBox())!;
  const place = ({ x, y }: Point) =>
    [box.x + ((x + 5) / 12) * box.width, box.y + ((6.3 - y) / 8.7) * box.height] as const;
  await page.mouse.move(...place(points[0]!));
  await page.mouse.down();
  for (const point of points.filter((_, i) => i % 3 === 0 || i === points.length - 1))
    await page.mouse.move(...place(point));
  await page.mouse.up();
}

describe('draw it', () => {
  it('says where a stroke went wrong, and goes on when it is right', async () => {
    const page = await at('/ear/draw');
    await page.getByRole('button', { name: 'Half note' }).click();
    await page.getByText('An open head').waitFor();
    const [head, stem] = strokesOf('half').map(({ points }) => points);
    await draw(page, stem!);
    await page.locator('.draw-fault').waitFor();
    await draw(page, head!);
    await page.getByText('The stem: straight up, on the right').waitFor();
    await draw(page, [...stem!].reverse());
    await page.getByText('The other way').waitFor();
    await draw(page, stem!);
    await page.getByText('Half note: well drawn').waitFor();
  });

  trial('with keys: the arrows move the pen', async () => {
    const page = await at('/ear/draw');
    await page.getByRole('button', { name: 'Eighth rest' }).click();
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('Enter');
    const down = ['ArrowDown', 'ArrowDown', ...Array<string>(4).fill('ArrowRight')];
    const across = [
      ...Array<string>(4).fill('ArrowRight'),
      ...Array<string>(4).fill('ArrowRight'),
      'ArrowUp',
      'ArrowUp',
    ];
    for (const key of [...down, ...across, 'ArrowUp', 'ArrowUp']) await page.keyboard.press(key);
    await page.keyboard.press('Enter');
    await page.getByText('The slanting stem').waitFor();
  });
});

describe('cards', () => {
  it('are moved by key and by hand, changed, and led as a pattern at once', async () => {
    const page = await at('/ear/cards');
    await page.getByLabel('Pattern').selectOption({ label: 'Slow tide' });
    await page.locator('.rhythm-card .lane-notes svg').nth(1).waitFor();
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    const row = () =>
      page
        .locator('.rhythm-card')
        .evaluateAll((cards) => cards.map((card) => card.getAttribute('aria-label')!.replace(/^Card \d: /, '')));
    expect(await row()).toEqual(['q q h, 4 beats', 'w, 4 beats']);
    await page.keyboard.press('b');
    expect(await row()).toEqual(['h q q, 4 beats', 'w, 4 beats']);
    await page.keyboard.press('Shift+ArrowRight');
    expect(await row()).toEqual(['w, 4 beats', 'h q q, 4 beats']);
    const [first, second] = await Promise.all([0, 1].map((i) => page.locator('.rhythm-card').nth(i).boundingBox()));
    await page.mouse.move(second!.x + 40, second!.y + 40);
    await page.mouse.down();
    await page.mouse.move(second!.x - 60, second!.y + 42, { steps: 6 });
    await page.mouse.move(first!.x + 60, first!.y + 40, { steps: 6 });
    await page.mouse.up();
    await expect.poll(row).toEqual(['h q q, 4 beats', 'w, 4 beats']);
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('t');
    expect((await row())[0]).toBe('turned over, 4 beats');
    await page.keyboard.press('z');
    await page.keyboard.press('c');
    expect(await row()).not.toEqual(['h q q, 4 beats', 'w, 4 beats']);
    await page.keyboard.press('z');
    // What is turned over stays so while it is led, until it is opened there.
    await page.keyboard.press('t');
    await page.keyboard.press('l');
    await page.getByRole('button', { name: /Start/ }).waitFor();
    expect(await page.locator('#lead-pattern option:checked').textContent()).toBe('Cards of Slow tide');
    const covers = page.getByLabel(/is covered/);
    await covers.waitFor();
    await page.keyboard.press('Space');
    await page.locator('.lead-stage').waitFor();
    expect(await covers.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')))).toEqual([
      'Measure 1 is covered',
    ]);
    await page.keyboard.press('u');
    await covers.waitFor({ state: 'detached' });
  });
});

describe('a pattern', () => {
  trial('is written another way, and has words over a stretch that are seen when it is led', async () => {
    const page = await at('/patterns');
    await page.getByRole('link', { name: /Wait for the ferry/ }).click();
    await page.getByRole('button', { name: 'Another way to write it' }).click();
    await page.getByText('what differs is how long the notes last').waitFor();
    expect(await page.locator('.other-way-list li').count()).toBeGreaterThan(2);
    await page.getByRole('button', { name: 'Words over a stretch' }).click();
    await page.getByLabel('Words', { exact: true }).fill('watch the rest');
    await page.getByLabel('From beat').fill('9');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText('Measure 1 has the beats 1 to 4.').waitFor();
    await page.getByLabel('From beat').fill('4');
    await page.getByLabel('To beat').fill('4');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText('measure 1, beat 4').waitFor();
    await page.locator('.ruler .bracket-words', { hasText: 'watch the rest' }).waitFor();
    await page.getByRole('button', { name: 'Lead the class' }).click();
    await page.locator('.bracket-words', { hasText: 'watch the rest' }).waitFor();
    await page.getByLabel('Plan', { exact: true }).selectOption({ label: 'Look first, then clap it alone' });
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press(' ');
    await page.getByText('Look at it in silence').waitFor();
    await page.locator('.lead-stage .bracket-words', { hasText: 'watch the rest' }).waitFor();
    // Only the line is on the board.
    expect(await page.locator('.lead-stage .token').count()).toBe(0);
    await page.keyboard.press('Escape');
  });
});
