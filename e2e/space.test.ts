import type { Page } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;
let page: Page;

beforeAll(async () => {
  school = await School.open({ heard: true });
  page = (await school.guest()).page;
});
afterAll(() => school.close());

/** Goes there as the menu does: the page is not loaded anew. */
async function go(path: string): Promise<void> {
  await page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);
}

/** Where children wait for it. */
const ALWAYS: readonly string[] = ['/lead', '/take', '/take/line-up'];
/** Of the controls of a view so many. */
const MOST = 8;

/** The red button that space presses, where one is shown. */
const MAIN = 'main button:enabled:has(kbd:text-is("space")):visible';
/** What is clicked: buttons and choices; fields in which one types keep space for themselves. */
const CONTROLS = 'main :is(button, input[type="radio"]):enabled:visible';
/** What leads out of the view, plays for long or opens a window of the system. */
const LEFT_OUT = /microphone|Bring in|file|Print|Delete|Leave it|Calibrate|Full screen|Save as|space|^None$/i;

/** What came of space: whether anybody took it, and what it pressed that had been clicked before. */
async function spacePressed(): Promise<{ taken: boolean; pressed: string[] }> {
  await page.evaluate(() => {
    const told = { pressed: [] as string[] };
    const keys: KeyboardEvent[] = [];
    const onKey = (event: KeyboardEvent) => void keys.push(event);
    const onClick = (event: MouseEvent) => {
      if (event.isTrusted && event.detail === 0) told.pressed.push((event.target as HTMLElement).innerText);
    };
    window.addEventListener('keydown', onKey);
    window.addEventListener('click', onClick, true);
    Object.assign(window, {
      untold: () => {
        window.removeEventListener('keydown', onKey);
        window.removeEventListener('click', onClick, true);
        return { ...told, taken: keys.some(({ defaultPrevented }) => defaultPrevented) };
      },
    });
  });
  await page.keyboard.press(' ');
  return page.evaluate(() => (window as unknown as { untold(): { taken: boolean; pressed: string[] } }).untold());
}

for (const [path, ready] of [
  ['/values/strips', 'button'],
  ['/values/sums', '.balance'],
  ['/values/questions', '.question'],
  ['/lead', 'button'],
  ['/ear/echo', '.beat-row'],
  ['/ear/choose', '.candidate'],
  ['/ear/write', 'button'],
  ['/ear/cards', '.rhythm-card'],
  ['/ear/signs', '.question'],
  ['/take', '.child-choice'],
  ['/take/line-up', '.line-table'],
] as const)
  (ALWAYS.includes(path) ? it : trial)(
    `in ${path} space does what the red button says, whatever was clicked`,
    async () => {
      await go(path);
      await page.locator(`main ${ready}`).first().waitFor();
      // Signs found or matched on the staff are answered by several presses: here a press is an answer.
      if (path === '/ear/signs') await page.getByLabel('Ask').selectOption('sign-name');
      const names = await page
        .locator(CONTROLS)
        .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? (one as HTMLElement).innerText));
      const tried: string[] = [];
      for (const [i, name] of names.entries()) {
        // Of many alike a few will do.
        if (LEFT_OUT.test(name) || i > MOST) continue;
        const control = page.locator(CONTROLS).nth(i);
        if (new URL(page.url()).pathname !== path || !(await control.isVisible())) {
          await go('/account');
          await page.locator('main h1:text-is("Robin Quay")').waitFor();
          await go(path);
          await page.locator(`main ${ready}`).first().waitFor();
        }
        if (!(await control.isVisible())) continue;
        await control.click({ force: true });
        if (new URL(page.url()).pathname !== path || (await page.locator(MAIN).count()) === 0) continue;
        tried.push(name);
        expect([name, await spacePressed()]).toEqual([name, { taken: true, pressed: [] }]);
      }
      expect(tried.length).toBeGreaterThan(0);
    },
  );
