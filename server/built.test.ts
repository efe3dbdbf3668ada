import { once } from 'node:events';
import { readFileSync, readdirSync } from 'node:fs';
import { builtinModules } from 'node:module';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { BUILT_SERVER, buildServer, startBuilt } from '../scripts/buildServer.ts';
import { lessonWithKills } from '../scripts/kills.ts';
import { freshDatabase } from './testServer.test-helper.ts';

beforeAll(() => buildServer());

const alone = (databaseUrl: string) =>
  startBuilt({ PATH: process.env['PATH'], DATABASE_URL: databaseUrl, PORT: '0', PAGES: '' });

describe('the built server', () => {
  it('two started at once on an empty database both come up, and stop in good order', async () => {
    const databaseUrl = await freshDatabase();
    const both = await Promise.all([alone(databaseUrl), alone(databaseUrl)]);
    for (const { server, url } of both) {
      expect(await (await fetch(`${url}/healthz`)).json()).toEqual({ ok: true });
      expect((await fetch(`${url}/api/patterns`)).status).toBe(401);
      server.kill('SIGTERM');
      expect((await once(server, 'exit'))[0]).toBe(0);
    }
  });

  it('needs no package that is only for development', () => {
    const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as {
      dependencies: Record<string, string>;
    };
    const files = readdirSync(BUILT_SERVER).filter((name) => name.endsWith('.js'));
    const needed = files
      .flatMap((name) => [
        ...readFileSync(join(BUILT_SERVER, name), 'utf8').matchAll(/\b(?:from|import) ?"([^".,\s][^"\s]*)"/g),
      ])
      .map(([, name]) =>
        name!
          .split('/')
          .slice(0, name!.startsWith('@') ? 2 : 1)
          .join('/'),
      )
      .filter((name) => !name.startsWith('node:') && !builtinModules.includes(name));
    expect(needed).toContain('express');
    expect([...new Set(needed)].filter((name) => !(name in dependencies))).toEqual([]);
  });

  it('says in a sentence what it lacks', async () => {
    await expect(alone('')).rejects.toThrow('DATABASE_URL is missing');
  });

  it('loses no take it has acknowledged, however it or its database is killed', async () => {
    const { kills, acknowledged, lost, wrongRecords } = await lessonWithKills(2, 1884, 15);
    expect(kills).toEqual({ server: 1, database: 1 });
    expect(acknowledged).toBeGreaterThanOrEqual(15);
    expect([lost, wrongRecords]).toEqual([0, 0]);
    // As slow as the machine is: what is asked is that nothing is lost.
  });
});
