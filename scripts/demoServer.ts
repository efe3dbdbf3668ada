import { rmSync } from 'node:fs';
import { TEACHER } from '../demo/school.ts';
import { startServer } from '../server/start.ts';
import { buildPages } from './buildPages.ts';
import { startMariadb } from './mariadb.ts';
import { seedDemo } from './seed.ts';

/** Runs some work against the demo school on a database of its own, which is gone afterwards. */
export async function withDemoServer(work: (url: string) => Promise<void>): Promise<void> {
  const folder = `.data/demo-${process.pid}`;
  const [database] = await Promise.all([startMariadb(folder), buildPages()]);
  try {
    const databaseUrl = await database.url();
    await seedDemo(databaseUrl);
    const server = await startServer({ databaseUrl, host: '127.0.0.1', port: 0, demoTeacher: TEACHER.name, pages: 'dist/web', proxies: 0, logLevel: 'silent' });
    await work(server.url);
    await server.stop();
  } finally {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
