import { readFileSync } from 'node:fs';
import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AT_REST_MS, PICTURES, PICTURES_FOLDER, PICTURE_SIZE } from '../scripts/test/pictures.ts';
import { School } from './browser.test-helper.ts';

/** Part of the pixels that may be others: type is drawn a little otherwise on another machine. */
const TOLERANCE = 0.015;
/** Up to here the pictures show no dates, and nothing that moves. */
const LAST = 'lead-plan';

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterAll(() => school.close());

describe('the pictures in the README', () => {
  it('are what the app looks like', async () => {
    const { page, context } = await school.visitor({ viewport: PICTURE_SIZE });
    const compared = PICTURES.slice(0, PICTURES.findIndex(([name]) => name === LAST) + 1);
    const others: [string, number][] = [];
    for (const [name, open] of compared) {
      await open(page);
      await page.waitForTimeout(AT_REST_MS);
      const now = PNG.sync.read(await page.screenshot());
      const kept = PNG.sync.read(readFileSync(`${PICTURES_FOLDER}/${name}.png`));
      expect([name, now.width, now.height]).toEqual([name, kept.width, kept.height]);
      const { width, height } = now;
      const differing = pixelmatch(now.data, kept.data, undefined, width, height, { threshold: 0.2 });
      if (differing > TOLERANCE * width * height) others.push([name, differing / (width * height)]);
    }
    expect(others).toEqual([]);
    await context.close();
  });
});
