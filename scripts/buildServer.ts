import { type ChildProcess, fork } from 'node:child_process';
import { cpSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { createInterface } from 'node:readline';
import { build } from 'esbuild';

export const BUILT_SERVER = 'dist/server';

/**
 * The server as plain JavaScript with its migrations beside it: it needs Node and the packages under `dependencies`,
 * nothing else. `main.js` is the server alone, `start.js` brings a database of its own where none is named.
 */
export async function buildServer(): Promise<void> {
  rmSync(BUILT_SERVER, { recursive: true, force: true });
  await build({
    entryPoints: {
      main: 'server/main.ts',
      start: 'scripts/start.ts',
      'judge.worker': 'server/judging/judge.worker.ts',
    },
    outdir: BUILT_SERVER,
    bundle: true,
    splitting: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
  });
  cpSync('server/migrations', `${BUILT_SERVER}/migrations`, { recursive: true });
}

/** Only the thread that judges, for tests: from its sources each of many servers would need seconds to read it. */
export async function buildJudge(folder: string): Promise<string> {
  await build({
    entryPoints: ['server/judging/judge.worker.ts'],
    outdir: folder,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
  });
  return resolve(folder, 'judge.worker.js');
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
