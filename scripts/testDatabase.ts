import { rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { startMariadb } from './mariadb.ts';

declare module 'vitest' {
  interface ProvidedContext {
    /** URL of a database server for tests; the last part, the name, is to be replaced. */
    databaseUrl: string;
  }
}

/** One database server for all test files of a project; each file takes a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = `.data/test-${process.pid}-${project.name}`;
  const database = await startMariadb(folder);
  project.provide('databaseUrl', await database.url('clapboard_test'));
  return async () => {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
