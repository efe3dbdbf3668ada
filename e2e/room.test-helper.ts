import type { BrowserContext, Page } from 'playwright-core';
import type { School } from './browser.test-helper.ts';

const UPRIGHT = { width: 390, height: 844 };

/** A child's device in front of the pictures, as it comes to the address on the board. */
export async function deviceAt(school: School, options = {}): Promise<{ page: Page; context: BrowserContext }> {
  const { page, context } = await school.newcomer({ viewport: UPRIGHT, hasTouch: true, ...options });
  await context.addInitScript(fourYearsOld);
  await page.goto(`${school.url}/join`);
  await page.getByRole('heading', { name: 'Tap the pictures on the board' }).waitFor();
  return { page, context };
}

/** A browser that does not know what came in the last four years. */
function fourYearsOld(): void {
  for (const name of ['with', 'toSorted', 'toSpliced', 'toReversed']) Reflect.deleteProperty(Array.prototype, name);
  for (const name of ['groupBy', 'fromAsync']) {
    Reflect.deleteProperty(Object, name);
    Reflect.deleteProperty(Array, name);
  }
  Reflect.deleteProperty(Promise, 'withResolvers');
  Reflect.deleteProperty(AbortSignal, 'any');
}

export async function tapPictures(page: Page, pictures: readonly string[]): Promise<void> {
  for (const one of pictures) await page.getByRole('button', { name: one, exact: true }).click();
  await page.getByRole('heading', { name: /Who are you|Your code/ }).waitFor();
}

/** A device that sits in the room under a name. */
export async function deviceOf(school: School, pictures: readonly string[], name: string, options = {}) {
  const device = await deviceAt(school, options);
  await tapPictures(device.page, pictures);
  await device.page.getByRole('button', { name, exact: true }).click();
  await device.page.locator('.room-head', { hasText: name }).waitFor();
  return device;
}

/** The board of a room that is open for a class of the demo. */
export async function boardOf(
  school: School,
  className: string,
  search = '',
): Promise<{ page: Page; pictures: string[] }> {
  const { page } = await school.guest({}, '/classes');
  const classes = (await (await page.request.get(`${school.url}/api/classes`)).json()) as {
    id: string;
    name: string;
  }[];
  const { id } = classes.find(({ name }) => name === className)!;
  const rooms = `${school.url}/api/classes/${id}/rooms`;
  // One that another test left open.
  for (const left of (await (await page.request.get(rooms)).json()) as { id: string }[])
    await page.request.delete(`${rooms}/${left.id}`);
  await page.goto(`${school.url}/room/${id}${search}`);
  await page.getByRole('button', { name: /Open the room/ }).waitFor();
  await page.keyboard.press('Space');
  await page.getByRole('list', { name: 'Pictures' }).waitFor();
  return { page, pictures: await picturesOn(page) };
}

export function picturesOn(board: Page): Promise<string[]> {
  return board.getByRole('list', { name: 'Pictures' }).locator('li span').allTextContents();
}

/**
 * Taps like a child who hears the click: at each time in beats, 1 being the first beat. All is made inside the page and
 * carries the time at which it was due, so that a busy machine moves none.
 */
export async function drumInTime(page: Page, bpm: number, beats: readonly number[]): Promise<void> {
  await page.locator('[data-beat-one]').waitFor();
  await page.evaluate(
    async (times) => {
      for (const time of times) {
        const drum = document.querySelector<HTMLElement>('[data-beat-one]')!;
        const due = Number(drum.dataset['beatOne']) + time;
        while (performance.now() < due) await new Promise((resolve) => setTimeout(resolve, 10));
        const event = new PointerEvent('pointerdown', { bubbles: true, cancelable: true });
        Object.defineProperty(event, 'timeStamp', { value: due });
        drum.dispatchEvent(event);
      }
    },
    beats.map((beat) => ((beat - 1) * 60_000) / bpm),
  );
}

/** When beat 1 is heard on this device, in milliseconds since 1970 on the clock of the machine that all are on. */
export async function beatOneOf(page: Page): Promise<number> {
  await page.locator('[data-beat-one]').waitFor();
  return page.evaluate(
    () => performance.timeOrigin + Number(document.querySelector<HTMLElement>('[data-beat-one]')!.dataset['beatOne']),
  );
}

/** A network that takes so long each way, and a little more by chance. */
export async function slowNetwork(page: Page, ms: number, jitter: number): Promise<void> {
  const wait = () => new Promise((resolve) => setTimeout(resolve, ms + Math.random() * jitter));
  await page.route('**/api/room/clock', async (route) => {
    await wait();
    // A page that is closed meanwhile waits for no answer.
    const response = await route.fetch().catch(() => undefined);
    await wait();
    if (response) await route.fulfill({ response }).catch(() => undefined);
  });
}
