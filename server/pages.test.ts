import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RunningServer } from './start.ts';
import { freshDatabase, serverOn } from './testServer.test-helper.ts';

const pages = mkdtempSync(join(tmpdir(), 'clapboard-pages-'));
let server: RunningServer;

beforeAll(async () => {
  mkdirSync(join(pages, 'assets'));
  writeFileSync(join(pages, 'index.html'), '<p>the page</p>');
  writeFileSync(join(pages, 'assets', 'app-1a2b.js'), 'go()');
  server = await serverOn(await freshDatabase(), { pages });
});
afterAll(async () => {
  await server.stop();
  rmSync(pages, { recursive: true, force: true });
});

describe('the pages', () => {
  it.each([
    ['/assets/app-1a2b.js', 200, 'go()', /immutable/],
    ['/assets/app-0000.js', 404, 'nothing at this address', /^(?!.*immutable)/],
    ['/assets/../../package.json', 200, 'the page', /no-cache/],
    ['/assets/%2e%2e%2f%2e%2e%2fpackage.json', 403, 'nothing at this address', /^(?!.*immutable)/],
    ['/assets/%00', 400, 'nothing at this address', /^(?!.*immutable)/],
    ['/classes/somewhere/deep', 200, 'the page', /no-cache/],
    ['/api/nothing', 401, 'signed out', /no-store/],
  ])('%s is answered with %i and “%s”', async (path, status, words, caching) => {
    const response = await fetch(server.url + path);
    expect([response.status, await response.text()]).toEqual([status, expect.stringContaining(words)]);
    expect(response.headers.get('cache-control') ?? '').toMatch(caching);
  });
});
