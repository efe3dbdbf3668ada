import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { BUILT_SERVER } from '../../build/buildServer.ts';
import type { Lesson } from '../../bench/lesson.ts';
import type { Cluster } from './cluster.ts';

/** What a later version brings: first a column that nobody needs yet, then without it again. */
const EXPAND = 'ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `motto` varchar(40);';
const CONTRACT = '-- contract\nALTER TABLE `classes` DROP COLUMN IF EXISTS `motto`;';

interface Journal {
  readonly entries: { idx: number; when: number; tag: string; version: string; breakpoints: boolean }[];
}

/** The built server as a later version, with further migrations. @returns its folder */
function laterVersion(name: string, steps: readonly string[]): string {
  const folder = `${BUILT_SERVER}-${name}`;
  rmSync(folder, { recursive: true, force: true });
  cpSync(BUILT_SERVER, folder, { recursive: true });
  const file = join(folder, 'migrations/meta/_journal.json');
  const journal = JSON.parse(readFileSync(file, 'utf8')) as Journal;
  for (const [i, step] of steps.entries()) {
    const last = journal.entries.at(-1)!;
    const tag = `${String(last.idx + 1).padStart(4, '0')}_${name}_${i}`;
    journal.entries.push({ ...last, idx: last.idx + 1, when: last.when + 1, tag });
    writeFileSync(join(folder, 'migrations', `${tag}.sql`), step);
  }
  writeFileSync(file, JSON.stringify(journal));
  return folder;
}

/** So long old and new serve side by side. */
const TOGETHER_MS = 1_500;

/**
 * Two later versions take the place of the one that runs, an app server at a time, while a lesson goes on. The first
 * adds to the tables, the second takes away what nobody uses any more.
 * @returns how many takes were stored while two versions served
 */
export async function rollingUpgrade(cluster: Cluster, lesson: Lesson): Promise<number> {
  const versions = [laterVersion('expanded', [EXPAND]), laterVersion('contracted', [EXPAND, CONTRACT])];
  let together = 0;
  try {
    for (const version of versions)
      for (const app of cluster.apps) {
        await app.stop();
        await app.start(version);
        const before = lesson.acknowledged();
        await wait(TOGETHER_MS);
        together += lesson.acknowledged() - before;
      }
  } finally {
    for (const version of versions) rmSync(version, { recursive: true, force: true });
  }
  return together;
}
