import { type ChildProcess, execFileSync, fork } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { MUTANTS, SURVIVORS } from './mutants/list.ts';
import type { Told, WorkOn } from './mutantLane.ts';

/**
 * Breaks one line after the other in copies of the project, and names the breakages that no test notices.
 * `npm run mutants -- web` tries those whose file contains that word, `-- web/pages,core/ear` those of two.
 */
const only = (process.argv[2] ?? '').split(',');

/** A breakage that goes round for ever has been noticed by whoever waits; milliseconds. */
const PATIENCE_MS = 150_000;

function copyOfProject(): string {
  const copy = mkdtempSync(join(tmpdir(), 'clapboard-mutants-'));
  const files = execFileSync('git', ['ls-files', '-z', '--cached', '--others', '--exclude-standard'], {
    encoding: 'utf8',
    maxBuffer: 2 ** 26,
  });
  for (const file of files.split('\0').filter(Boolean)) {
    mkdirSync(join(copy, dirname(file)), { recursive: true });
    cpSync(file, join(copy, file));
  }
  symlinkSync(resolve('node_modules'), join(copy, 'node_modules'));
  return copy;
}

const jobs: WorkOn[] = MUTANTS.flatMap(({ project, tests, mutants }) => {
  const wanted = mutants.filter(([file]) => only.some((word) => file.includes(word)));
  return wanted.length === 0 ? [] : [{ project, tests, mutants: wanted }];
});
const survivors: string[] = [];
const troubles: string[] = [];
let tried = 0;

function end(child: ChildProcess): void {
  try {
    // With its databases and workers.
    process.kill(-child.pid!, 'SIGKILL');
  } catch {
    // It is gone.
  }
}

/** Works through groups of breakages in a copy of its own, until none is left. */
async function lane(): Promise<void> {
  const copy = copyOfProject();
  for (let job = jobs.shift(); job; job = jobs.shift()) {
    const left = await oneGroup(copy, job);
    // What stood still was noticed; the rest of its group goes on in a new process.
    if (left.length > 0) jobs.unshift({ ...job, mutants: left });
  }
  rmSync(copy, { recursive: true, force: true });
}

/** @returns what was not tried, because one before it stood still */
function oneGroup(copy: string, job: WorkOn): Promise<WorkOn['mutants']> {
  return new Promise((done) => {
    const env = { ...process.env, PASSWORD_COST: '4' };
    const child = fork(resolve('scripts/test/mutantLane.ts'), { cwd: copy, detached: true, silent: true, env });
    let at = 0;
    let ready = false;
    const late = () => {
      end(child);
      if (!ready) troubles.push(`${job.tests.join(' ')}: the tests do not end without any breakage`);
      else said(job.mutants[at]!, false);
      done(ready ? job.mutants.slice(at + 1) : []);
    };
    let timer = setTimeout(late, PATIENCE_MS * 2);
    child.on('message', (told: Told) => {
      clearTimeout(timer);
      timer = setTimeout(late, PATIENCE_MS);
      if ('survived' in told) said(job.mutants[at++]!, told.survived);
      else if (told.ready) ready = true;
      else troubles.push(`${job.tests.join(' ')}: ${told.trouble}`);
    });
    child.on('exit', () => {
      clearTimeout(timer);
      end(child);
      if (ready && at < job.mutants.length)
        troubles.push(`${job.tests.join(' ')}: broke off at ${job.mutants[at]![1]}`);
      done([]);
    });
    child.send(job);
  });
}

function said([file, find, replace]: WorkOn['mutants'][number], survived: boolean): void {
  tried++;
  console.log(`${survived ? 'SURVIVED' : 'noticed '}  ${file}: ${find.replaceAll('\n', ' ')}`);
  if (survived) survivors.push(`${file}: ${find} → ${replace}`);
}

await Promise.all(Array.from({ length: Math.max(1, availableParallelism()) }, lane));
const excused = survivors.filter((one) => Object.hasOwn(SURVIVORS, one));
console.log(`\n${tried} breakages, ${survivors.length} noticed by nothing, ${excused.length} of these for a reason`);
for (const survivor of survivors) console.log(`  ${survivor}${SURVIVORS[survivor] ? `: ${SURVIVORS[survivor]}` : ''}`);
for (const trouble of troubles) console.log(`  ${trouble}`);
process.exit(survivors.length === excused.length && troubles.length === 0 ? 0 : 1);
