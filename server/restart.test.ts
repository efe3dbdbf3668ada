import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ClassDetail } from '../contract/schoolClass.ts';
import { type LocalDatabase, startMariadb } from '../scripts/mariadb.ts';
import { Visitor, serverWithTeachers } from './testServer.test-helper.ts';
import { type RunningServer, startServer } from './start.ts';

const folder = mkdtempSync(join(tmpdir(), 'clapboard-restart-'));
let database: LocalDatabase;
let server: RunningServer;

beforeAll(async () => {
  database = await startMariadb(folder);
  server = await serverWithTeachers(await database.url());
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
    server = await startServer({
      databaseUrl: await database.url(),
      host: '127.0.0.1',
      port: 0,
      demoTeacher: undefined,
      pages: undefined,
      proxies: 0,
      logLevel: 'silent',
    });
    const again = new Visitor(server.url);
    await again.signIn('Ann');
    const { body } = await again.ask('GET', `/api/classes/${room}`);
    expect((body as ClassDetail).takes.map(({ id }) => id)).toEqual([kept]);
  });

  it('is taken over when the program that started it was killed', async () => {
    const second = await startMariadb(folder);
    expect(await second.url()).toBe(await database.url());
  });
});
