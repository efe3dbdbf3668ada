import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildServer } from '../scripts/build/buildServer.ts';
import { Visitor, freshDatabase, serverOn } from './testServer.test-helper.ts';

let databaseUrl: string;
/** As it ships: its sources would take longer to read than all it does. Within the project, for its packages. */
let built: string;

beforeAll(async () => {
  built = mkdtempSync('.cache/administrator-');
  await buildServer(built, { teacher: 'scripts/commands/addTeacher.ts' });
  databaseUrl = await freshDatabase();
});
afterAll(() => rmSync(built, { recursive: true }));

/** What `npm run teacher` runs, as an administrator types it. */
function teacher(args: readonly string[], password = ''): { status: number | null; out: string; error: string } {
  const env = { ...process.env, DATABASE_URL: databaseUrl, CLAPBOARD_PASSWORD: password };
  const run = spawnSync(process.execPath, [`${built}/teacher.js`, ...args], { env, encoding: 'utf8' });
  return { status: run.status, out: run.stdout, error: run.stderr };
}

describe('the administrator', () => {
  it('adds a teacher, who can sign in', async () => {
    expect(teacher(['Dana Reef'], 'kelp and coral')).toMatchObject({ status: 0, out: 'Dana Reef can sign in now.\n' });
    const server = await serverOn(databaseUrl);
    expect((await new Visitor(server.url).signIn('Dana Reef', 'kelp and coral')).status).toBe(200);
    await server.stop();
  });
  it.each([
    [[], 'kelp and coral', 'usage'],
    [['Eva'], 'short', 'usage'],
    [['Eva'], 'password123', 'Choose another password'],
    [['Dana Reef'], 'kelp and coral', 'already'],
    [['--reset', 'Nobody'], '', 'no teacher called Nobody'],
  ])('is told what is wrong with %j and the password “%s”: %s', (args, password, word) => {
    const { status, out, error } = teacher(args, password);
    expect([status, out, error]).toEqual([2, '', expect.stringContaining(word)]);
  });
  it('hands out a code, once', async () => {
    const { status, out } = teacher(['--reset', 'Dana Reef']);
    const code = /^[a-z2-9]{5}(-[a-z2-9]{5}){3}/.exec(out)?.[0];
    expect([status, code]).toEqual([0, expect.any(String)]);
    const server = await serverOn(databaseUrl);
    const visitor = new Visitor(server.url);
    const reset = () =>
      visitor.ask('POST', '/api/session/reset', { name: 'Dana Reef', code, password: 'sand and shell' });
    expect([(await reset()).status, (await reset()).status]).toEqual([200, 401]);
    await server.stop();
  });
});
