import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';

const SOURCES = ['core', 'contract', 'web', 'package-lock.json'];
const MARK = 'dist/built-from';
/** Where the pages are, as they ship, and apart from them the maps from their code to the sources. */
export const PAGES = 'dist/web';
export const MAPS = 'dist/maps';

function fingerprint(): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    if (!existsSync(path)) return;
    if (path.includes('.') && !path.startsWith('.')) hash.update(path).update(readFileSync(path));
    else for (const name of readdirSync(path).sort()) visit(join(path, name));
  };
  SOURCES.forEach(visit);
  return hash.digest('hex');
}

/** Builds the pages, unless they were built from just these sources. */
export async function buildPages(): Promise<void> {
  const now = fingerprint();
  if (existsSync(join(PAGES, 'index.html')) && existsSync(MARK) && readFileSync(MARK, 'utf8') === now) return;
  // A process of its own: a build inside the tests would be one for development.
  const env = { ...process.env, NODE_ENV: 'production' };
  const command = ['build', '--config', 'web/vite.config.ts', '--logLevel', 'warn'];
  await promisify(execFile)('node_modules/.bin/vite', command, { env });
  rmSync(MAPS, { recursive: true, force: true });
  mkdirSync(MAPS, { recursive: true });
  const built = join(PAGES, 'assets');
  for (const name of readdirSync(built).filter((file) => file.endsWith('.map')))
    renameSync(join(built, name), join(MAPS, name));
  writeFileSync(MARK, now);
}
