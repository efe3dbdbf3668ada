import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { configFrom } from './config.ts';
import { mayRead } from './metrics.ts';
import type { RunningServer } from './start.ts';
import { freshDatabase, serverOn } from './testServer.test-helper.ts';

const TOKEN = 'gulls over the harbour';

describe('metrics', () => {
  let server: RunningServer;
  beforeAll(async () => {
    server = await serverOn(await freshDatabase(), { metrics: { token: TOKEN, from: [] } });
  });
  afterAll(() => server.stop());
  const read = (authorization?: string) =>
    fetch(`${server.url}/metrics`, { headers: authorization === undefined ? {} : { authorization } });

  it('count answers by their routes, never by addresses with ids in them', async () => {
    const id = '6f0c3b64-0000-4000-8000-000000000001';
    for (const path of ['/livez', '/healthz', `/api/classes/${id}`, '/nothing/here']) await fetch(server.url + path);
    const response = await read(`Bearer ${TOKEN}`);
    expect(response.status).toBe(200);
    expect(response.headers.get('content-type')).toContain('text/plain');
    const text = await response.text();
    expect(text).toMatch(/clapboard_request_seconds_count\{method="GET",route="\/healthz",status="200"\} 1/);
    expect(text).toMatch(/clapboard_request_seconds_count\{method="GET",route="[^"]*",status="401"\} 1/);
    for (const name of ['takes_stored_total', 'database_connections', 'database_waiting', 'collisions', 'process_cpu'])
      expect(text).toContain(`clapboard_${name}`);
    expect(text).not.toContain(id);
  });

  it.each([undefined, '', 'Bearer', `Bearer ${TOKEN}s`, TOKEN, 'Basic x'])('are nowhere for “%s”', async (word) => {
    const response = await read(word);
    expect(response.status).toBe(404);
    expect(await response.text()).not.toContain('clapboard_');
  });
});

describe('who may read metrics', () => {
  it.each([
    ['10.1.2.3', ['10.0.0.0/8'], true],
    ['11.1.2.3', ['10.0.0.0/8'], false],
    ['127.0.0.1', ['127.0.0.1'], true],
    ['::ffff:127.0.0.1', ['127.0.0.1'], true],
    ['127.0.0.2', ['127.0.0.1', '::1'], false],
    ['fd00::5', ['fd00::/8'], true],
    ['10.1.2.3', ['fd00::/8'], false],
    ['', ['0.0.0.0/0'], false],
    ['10.1.2.3', [], false],
  ])('%s, where %j may: %s', (address, from, may) => {
    expect(mayRead({ token: undefined, from }, undefined, address)).toBe(may);
  });

  it('a token that is not set opens nothing', () => {
    expect(mayRead({ token: undefined, from: [] }, 'Bearer undefined', '10.0.0.1')).toBe(false);
  });

  it('comes from the environment, and what makes no sense is named', () => {
    const DATABASE_URL = 'mysql://a:b@localhost/c';
    expect(configFrom({ DATABASE_URL, PAGES: '' }).metrics).toEqual({ token: undefined, from: [] });
    expect(
      configFrom({ DATABASE_URL, PAGES: '', METRICS_TOKEN: 'x', METRICS_FROM: '10.0.0.0/8, ::1' }).metrics,
    ).toEqual({
      token: 'x',
      from: ['10.0.0.0/8', '::1'],
    });
    for (const wrong of ['harbour', '10.0.0.0/40'])
      expect(() => configFrom({ DATABASE_URL, PAGES: '', METRICS_FROM: wrong })).toThrow(`not “${wrong}”`);
  });
});
