import { rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { startMariadb } from './mariadb.ts';
import { seedDemo } from './seed.ts';

declare module 'vitest' {
  interface ProvidedContext {
    /** URL of a database server for tests; the last part, the name, is to be replaced. */
    databaseUrl: string;
    /** In it the demo school, to be copied; only for browser tests. */
    demoDatabase: string;
  }
}

const DEMO = 'clapboard_demo';

/** One database server for all test files of a project; each file takes a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = `.data/test-${process.pid}-${project.name}`;
  const database = await startMariadb(folder, { forgetful: true });
  project.provide('databaseUrl', await database.url('clapboard_test'));
  if (project.name === 'pages' || project.name === 'played') {
    // Made once: judging all its takes for each file of tests would take longer than many of them.
    await seedDemo(await database.url(DEMO));
    project.provide('demoDatabase', DEMO);
  }
  return async () => {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
