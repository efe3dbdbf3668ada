import { cpSync, rmSync } from 'node:fs';
import { build } from 'esbuild';

export const BUILT_SERVER = 'dist/server';

/**
 * The server as plain JavaScript with its migrations beside it: it needs Node and the packages under `dependencies`,
 * nothing else. `main.js` is the server alone, `start.js` brings a database of its own where none is named.
 */
export async function buildServer(): Promise<void> {
  rmSync(BUILT_SERVER, { recursive: true, force: true });
  await build({
    entryPoints: { main: 'server/main.ts', start: 'scripts/start.ts' },
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
