import { existsSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
import type { Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PAGES } from '../scripts/build/buildPages.ts';
import { School } from './browser.test-helper.ts';

const KB = 1024;

let school: School;

beforeAll(async () => {
  school = await School.open();
});
afterAll(() => school.close());

const gains = new Map<string, number>();

/** How much smaller a file of the pages is where they are packed as small as can be, as they ship: bytes. */
function smallerAsShipped(path: string): number {
  const gain = gains.get(path) ?? gainOf(path);
  gains.set(path, gain);
  return gain;
}

function gainOf(path: string): number {
  const [file, packed] = [join(PAGES, path), join(PAGES, `${path === '/' ? 'index.html' : path}.br`)];
  if (!existsSync(packed)) return 0;
  const smallest = brotliCompressSync(readFileSync(path === '/' ? join(PAGES, 'index.html') : file), {
    params: { [constants.BROTLI_PARAM_QUALITY]: 11 },
  });
  return statSync(packed).size - smallest.length;
}

/** Counts what comes over the wire, as it comes where it ships: packed, with its headers. */
async function counting(page: Page) {
  const wire = await page.context().newCDPSession(page);
  await wire.send('Network.enable');
  const asked = new Map<string, string>();
  const files: { url: string; bytes: number }[] = [];
  wire.on('Network.requestWillBeSent', ({ requestId, request }) => void asked.set(requestId, request.url));
  wire.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const url = asked.get(requestId);
    if (!url) return;
    const { pathname } = new URL(url);
    files.push({ url: pathname, bytes: encodedDataLength - smallerAsShipped(pathname) });
  });
  /** What came since it was asked last. */
  return async () => {
    await page.waitForLoadState('networkidle');
    const since = files.splice(0);
    return { kB: since.reduce((sum, { bytes }) => sum + bytes, 0) / KB, urls: since.map(({ url }) => url) };
  };
}

describe('on the wire', () => {
  it('the door costs at most 125 kB, the day 140, a pattern with notes 220, and charts come when shown', async () => {
    const { page, context } = await school.visitor();
    // The page came before anyone counted: once more, with nothing kept.
    const received = await counting(page);
    const wire = await context.newCDPSession(page);
    await wire.send('Network.enable');
    await wire.send('Network.clearBrowserCache');
    await received();
    await page.reload();
    await page.getByRole('button', { name: /Look around/ }).waitFor();
    const door = await received();
    expect(door.urls).toContain('/');
    expect(door.kB).toBeGreaterThan(30);
    expect(door.kB).toBeLessThanOrEqual(125);

    await page.getByRole('button', { name: /Look around/ }).click();
    await page.getByRole('region', { name: 'Next lesson' }).waitFor();
    const today = await received();
    expect(today.kB).toBeGreaterThan(30);
    expect(today.kB).toBeLessThanOrEqual(140);
    await page.getByRole('link', { name: 'Patterns', exact: true }).click();
    await page.getByRole('link', { name: /Round the lighthouse/ }).click();
    await page.locator('.ruler .lane-notes svg').first().waitFor();
    const pattern = await received();
    expect(pattern.kB).toBeGreaterThan(30);
    expect(pattern.kB).toBeLessThanOrEqual(220);

    await page.getByRole('link', { name: 'Take', exact: true }).click();
    await page.getByRole('button', { name: /Start/ }).waitFor();
    const take = await received();
    expect([...door.urls, ...today.urls, ...pattern.urls, ...take.urls].filter((url) => /Chart/.test(url))).toEqual([]);
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('link', { name: 'Ada', exact: true }).click();
    await page.locator('.takes-cell a').first().click();
    await page.getByText('How the mark came about').click();
    await page.locator('.tempo-chart svg').first().waitFor();
    expect((await received()).urls.filter((url) => /TempoChart/.test(url))).toHaveLength(1);
    console.log(
      `door ${door.kB.toFixed(0)} kB, today ${today.kB.toFixed(0)} more, pattern ${pattern.kB.toFixed(0)} more`,
    );
  });

  it('a child’s own device costs at most 120 kB before the first tap', async () => {
    const { page, context } = await school.newcomer();
    await page.goto(`${school.url}/join`);
    await page.getByRole('heading', { name: 'Tap the pictures on the board' }).waitFor();
    const received = await counting(page);
    const wire = await context.newCDPSession(page);
    await wire.send('Network.enable');
    await wire.send('Network.clearBrowserCache');
    await received();
    await page.reload();
    await page.getByRole('button', { name: 'anchor' }).waitFor();
    const { kB, urls } = await received();
    expect(urls).toContain('/join');
    expect(kB).toBeGreaterThan(30);
    expect(kB).toBeLessThanOrEqual(120);
    console.log(`a child's page ${kB.toFixed(0)} kB`);
  });

  it('sends texts packed, and says so', async () => {
    const page = await fetch(school.url, { headers: { 'Accept-Encoding': 'br' } });
    expect(page.headers.get('content-encoding')).toBe('br');
    expect(page.headers.get('content-type')).toMatch(/text\/html/);
    expect(page.headers.get('cache-control')).toBe('no-cache');
    const script = /src="(\/assets\/[^"]+\.js)"/.exec(await page.text())![1]!;
    for (const [accepts, sent] of [
      ['br, gzip', 'br'],
      ['gzip', 'gzip'],
      ['identity', null],
    ] as const) {
      const { headers } = await fetch(school.url + script, { headers: { 'Accept-Encoding': accepts } });
      expect(headers.get('content-encoding')).toBe(sent);
      expect(headers.get('content-type')).toMatch(/javascript/);
      expect(headers.get('cache-control')).toContain('immutable');
    }
    expect((await fetch(`${school.url}/assets/none.js`)).status).toBe(404);
    const view = await fetch(`${school.url}/classes`, { headers: { 'Accept-Encoding': 'gzip' } });
    expect([view.status, view.headers.get('content-encoding')]).toEqual([200, 'gzip']);
  });
});
