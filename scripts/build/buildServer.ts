import { type ChildProcess, fork } from 'node:child_process';
import { cpSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { createInterface } from 'node:readline';
import { pathToFileURL } from 'node:url';
import { type BuildOptions, build } from 'esbuild';

export const BUILT_SERVER = 'dist/server';

const JUDGE = { 'judge.worker': 'server/judging/judge.worker.ts' } as const;
const HASH = { 'hash.worker': 'server/door/hash.worker.ts' } as const;
const SHIPPED = {
  main: 'server/main.ts',
  start: 'scripts/commands/start.ts',
  teacher: 'scripts/commands/addTeacher.ts',
  school: 'scripts/commands/addSchool.ts',
  backup: 'scripts/commands/runBackup.ts',
  ...JUDGE,
  ...HASH,
} as const;

/**
 * The server as plain JavaScript with its migrations beside it: it needs Node and the packages under `dependencies`,
 * nothing else. `main.js` is the server alone, `start.js` brings a database of its own where none is named;
 * `teacher.js`, `school.js` and `backup.js` are for whoever runs it.
 */
export async function buildServer(folder = BUILT_SERVER, entryPoints: Record<string, string> = SHIPPED): Promise<void> {
  // Beside it first: a server that runs from there reads its threads from these files whenever it starts one.
  const fresh = `${folder}.${process.pid}`;
  await bundle(fresh, entryPoints, { splitting: true, external: installedPackages() });
  cpSync('server/migrations', `${fresh}/migrations`, { recursive: true });
  cpSync(fresh, folder, { recursive: true });
  const made = new Set(readdirSync(fresh));
  for (const name of readdirSync(folder)) if (!made.has(name)) rmSync(join(folder, name), { recursive: true });
  rmSync(fresh, { recursive: true });
}

/** What a machine that only runs the server installs; of every other package the part that is used is built in. */
function installedPackages(): string[] {
  const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as { dependencies: Record<string, string> };
  return Object.keys(dependencies);
}

/**
 * The server for browser tests, which run it in their own process: read from its sources it would take each of them
 * longer than many a test.
 * @param folder  within the project, for it needs its packages
 * @returns the address of the module that has all of it
 */
export async function buildTestedServer(folder: string): Promise<string> {
  await buildServer(folder, { tested: 'scripts/test/testedServer.ts', ...JUDGE, ...HASH });
  return pathToFileURL(resolve(folder, 'tested.js')).href;
}

/** Only the thread that judges, for tests: from its sources each of many servers would need seconds to read it. */
export async function buildJudge(folder: string): Promise<string> {
  await bundle(folder, JUDGE);
  return resolve(folder, 'judge.worker.js');
}

async function bundle(outdir: string, entryPoints: Record<string, string>, more: BuildOptions = {}): Promise<void> {
  await build({
    entryPoints,
    outdir,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
    ...more,
  });
}

/** Starts a built server as a process of its own; rejects with what it said when it ends instead. */
export async function startBuilt(
  env: NodeJS.ProcessEnv,
  folder = BUILT_SERVER,
): Promise<{ server: ChildProcess; url: string }> {
  const server = fork(`${folder}/main.js`, { execArgv: [], env: { ...env, LOG_LEVEL: 'info' }, silent: true });
  let said = '';
  server.stderr!.on('data', (data: Buffer) => (said += data.toString()));
  for await (const line of createInterface({ input: server.stdout! })) {
    const { url } = JSON.parse(line) as { url?: string };
    if (!url) continue;
    // Its further words are not needed, but must not fill the pipe.
    server.stdout!.resume();
    return { server, url };
  }
  throw new Error(`the server did not start: ${said}`);
}
