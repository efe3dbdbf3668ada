import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { promisify } from 'node:util';
import { writeLicences } from './licences.ts';

/** All that the pages are made of: the rooms their code comes from, and the packages in it. */
export const SOURCES: readonly string[] = [
  'core',
  'contract',
  'drawing',
  'web',
  'scripts/build/licences.ts',
  'package-lock.json',
  'tsconfig.json',
];
const MARK = 'dist/built-from';
/** Where the pages are, as they ship, and apart from them the maps from their code to the sources. */
export const PAGES = 'dist/web';
export const MAPS = 'dist/maps';

/** A word for all sources together, another one when any of them is another. @param root  of the project */
export function fingerprint(root = '.'): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    if (!statSync(path).isDirectory()) return void hash.update(relative(root, path)).update(readFileSync(path));
    for (const name of readdirSync(path).sort()) visit(join(path, name));
  };
  for (const source of SOURCES) visit(join(root, source));
  return hash.digest('hex');
}

/** Stands in the mark of pages whose files are not packed as small as they can be. */
const LIGHTLY = ' lightly packed';

/**
 * Builds the pages, unless they were built from just these sources.
 * @param lightly  their files may be some hundredths larger: to pack them as small as can be takes as long as all else
 */
export async function buildPages({ lightly = false } = {}): Promise<void> {
  const now = fingerprint();
  const enough = lightly ? [now, now + LIGHTLY] : [now];
  if (existsSync(join(PAGES, 'index.html')) && existsSync(MARK) && enough.includes(readFileSync(MARK, 'utf8'))) return;
  // A process of its own: a build inside the tests would be one for development.
  const env = { ...process.env, NODE_ENV: 'production', ...(lightly ? { LIGHTLY_PACKED: 'yes' } : {}) };
  const command = ['build', '--config', 'web/vite.config.ts', '--logLevel', 'warn'];
  await promisify(execFile)('node_modules/.bin/vite', command, { env });
  rmSync(MAPS, { recursive: true, force: true });
  mkdirSync(MAPS, { recursive: true });
  const built = join(PAGES, 'assets');
  for (const name of readdirSync(built).filter((file) => file.endsWith('.map')))
    renameSync(join(built, name), join(MAPS, name));
  writeLicences(PAGES, MAPS);
  writeFileSync(MARK, lightly ? now + LIGHTLY : now);
}
