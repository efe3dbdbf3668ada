import { type ChildProcess, fork } from 'node:child_process';
import { once } from 'node:events';
import { rmSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { TEACHER } from '../demo/school.ts';
import { buildPages } from './buildPages.ts';
import { BUILT_SERVER, buildServer } from './buildServer.ts';
import { startMariadb } from './mariadb.ts';
import { seedDemo } from './seed.ts';

/** The address a server says it listens on; its further words are not needed. */
async function urlOf(server: ChildProcess): Promise<string> {
  for await (const line of createInterface({ input: server.stdout! })) {
    const { url } = JSON.parse(line) as { url?: string };
    if (!url) continue;
    server.stdout!.resume();
    return url;
  }
  throw new Error('the server did not start');
}

/**
 * Runs some work against the demo school on a database of its own, which is gone afterwards. The server is a process of
 * its own, as in a school.
 */
export async function withDemoServer(work: (url: string) => Promise<void>): Promise<void> {
  const folder = `.data/demo-${process.pid}`;
  const [database] = await Promise.all([startMariadb(folder), buildPages(), buildServer()]);
  try {
    const databaseUrl = await database.url();
    await seedDemo(databaseUrl);
    const server = fork(`${BUILT_SERVER}/main.js`, {
      execArgv: [],
      env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0', DEMO_TEACHER: TEACHER.name, LOG_LEVEL: 'info' },
      silent: true,
    });
    try {
      await work(await urlOf(server));
    } finally {
      server.kill('SIGTERM');
      await once(server, 'exit');
    }
  } finally {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
