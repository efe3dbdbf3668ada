import { once } from 'node:events';
import { rmSync } from 'node:fs';
import { TEACHER } from '../../demo/school.ts';
import { buildPages } from '../build/buildPages.ts';
import { buildServer, startBuilt } from '../build/buildServer.ts';
import { startMariadb } from './mariadb.ts';
import { seedDemo } from './seed.ts';

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
    const { server, url } = await startBuilt({
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: '0',
      DEMO_TEACHER: TEACHER.name,
    });
    try {
      await work(url);
    } finally {
      server.kill('SIGTERM');
      await once(server, 'exit');
    }
  } finally {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
