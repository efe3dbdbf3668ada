import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { buildJudge, buildTestedServer } from '../build/buildServer.ts';
import { startMariadb } from '../commands/mariadb.ts';
import { seedDemo } from '../commands/seed.ts';

declare module 'vitest' {
  interface ProvidedContext {
    /** URL of a database server for tests; the last part, the name, is to be replaced. */
    databaseUrl: string;
    /** In it the demo school, to be copied; only for browser tests. */
    demoDatabase: string;
    /** Address of the module with the built server; only for browser tests. */
    testedServer: string;
  }
}

const DEMO = 'clapboard_demo';
/** What is in it is gone with the run: in memory, where there is such a folder. */
const FOLDER = existsSync('/dev/shm') ? '/dev/shm' : '.data';

/** One database server for all test files of a project; each file takes a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = join(FOLDER, `clapboard-test-${process.pid}-${project.name}`);
  process.env['JUDGE_WORKER'] = await buildJudge(`${folder}-judge`);
  const database = await startMariadb(folder, { forgetful: true });
  project.provide('databaseUrl', await database.url('clapboard_test'));
  if (project.name === 'pages' || project.name === 'trials') {
    // Made once: judging all its takes for each file of tests would take longer than many of them.
    await seedDemo(await database.url(DEMO));
    project.provide('demoDatabase', DEMO);
    project.provide('testedServer', await buildTestedServer(`.cache/tested-server-${project.name}`));
  }
  return async () => {
    await database.stop();
    for (const used of [folder, `${folder}-judge`]) rmSync(used, { recursive: true, force: true });
  };
}
