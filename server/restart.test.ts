import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type LocalDatabase, startMariadb } from '../scripts/commands/mariadb.ts';
import { Visitor, serverOn, serverWithTeachers, takesIn } from './testServer.test-helper.ts';
import type { RunningServer } from './start.ts';

const folder = mkdtempSync(join(tmpdir(), 'clapboard-restart-'));
let database: LocalDatabase;
let server: RunningServer;
/** The database is given up as soon as it is for teachers. */
const AS_USUAL = { limits: undefined };

beforeAll(async () => {
  database = await startMariadb(folder);
  server = await serverWithTeachers(await database.url(), AS_USUAL);
});

afterAll(async () => {
  await server.stop();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
});

describe('the database goes and comes back', () => {
  it('answers 503 meanwhile, and loses nothing that was acknowledged', async () => {
    const ann = new Visitor(server.url);
    await ann.signIn('Ann');
    const [room, child] = [uuid(), uuid()];
    await ann.ask('PUT', `/api/classes/${room}`, { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null });
    await ann.ask('PUT', `/api/classes/${room}/children/${child}`, { name: 'Ada' });
    const take = (takenAt: number) => ({
      childId: child,
      patternId: null,
      title: 'First',
      patternText: '4/4 q q q q',
      bpm: 60,
      onsets: [0, 1, 2, 3],
      takenAt,
    });
    const kept = uuid();
    expect((await ann.ask('PUT', `/api/takes/${kept}`, take(1))).status).toBe(200);

    await database.kill();
    const lost = await ann.ask('PUT', `/api/takes/${uuid()}`, take(2));
    expect(lost.status).toBe(503);
    expect(lost.body).toMatchObject({
      error: { code: 'database-away', message: expect.stringContaining('kept on this device') as unknown },
    });
    expect((await ann.ask('GET', '/healthz')).status).toBe(503);

    await server.stop();
    database = await startMariadb(folder);
    server = await serverOn(await database.url(), AS_USUAL);
    const again = new Visitor(server.url);
    await again.signIn('Ann');
    expect((await takesIn(again, room)).map(({ id }) => id)).toEqual([kept]);
  });

  it('frozen it is given up, also on connections that were open, and recovers by itself', async () => {
    const ann = new Visitor(server.url);
    await ann.signIn('Ann');
    expect((await ann.ask('GET', '/api/classes')).status).toBe(200);
    process.kill(database.pid()!, 'SIGSTOP');
    const during = await Promise.all([
      ...Array.from({ length: 25 }, () => ann.ask('GET', '/api/classes')),
      ann.signIn('Ann'),
      ann.ask('GET', '/healthz'),
    ]);
    process.kill(database.pid()!, 'SIGCONT');
    expect([...new Set(during.map(({ status }) => status))]).toEqual([503]);
    for (let i = 0; i < 50 && (await ann.ask('GET', '/healthz')).status !== 200; i++) await wait(100);
    expect((await ann.ask('GET', '/api/classes')).status).toBe(200);
  });

  it('killed it is started again, at the same address, by the program that uses it', async () => {
    const ann = new Visitor(server.url);
    await ann.signIn('Ann');
    const before = database.pid()!;
    process.kill(before, 'SIGKILL');
    for (let i = 0; i < 200 && [before, undefined].includes(database.pid()); i++) await wait(100);
    for (let i = 0; i < 100 && (await ann.ask('GET', '/healthz')).status !== 200; i++) await wait(100);
    expect((await ann.ask('GET', '/api/classes')).status).toBe(200);
    expect(database.pid()).not.toBe(before);
  });

  it('two that start at once on an empty folder use one database, and the last to stop stops it', async () => {
    const empty = mkdtempSync(join(tmpdir(), 'clapboard-two-'));
    const two = await Promise.all([startMariadb(empty), startMariadb(empty)]);
    expect(await two[0].url()).toBe(await two[1].url());
    await two[0].stop();
    expect(two[1].pid()).toBeGreaterThan(0);
    expect(await two[1].url('another')).toContain('/another');
    await two[1].stop();
    expect(two[1].pid()).toBeUndefined();
    rmSync(empty, { recursive: true, force: true });
  });

  it('is joined by another program, which leaves it running', async () => {
    const second = await startMariadb(folder);
    expect(await second.url()).toBe(await database.url());
    await second.stop();
    expect(database.pid()).toBeGreaterThan(0);
  });
});
