import { execFileSync, spawn } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { MUTANTS } from './mutants.list.ts';

/**
 * Breaks one line after the other in a copy of the project, and names the breakages that no test notices.
 * `npm run mutants -- web` tries those whose file contains that word.
 */
const only = process.argv[2] ?? '';
const copy = mkdtempSync(join(tmpdir(), 'clapboard-mutants-'));

function makeCopy(): void {
  const files = execFileSync('git', ['ls-files', '-z', '--cached', '--others', '--exclude-standard'], {
    encoding: 'utf8',
    maxBuffer: 2 ** 26,
  });
  for (const file of files.split('\0').filter(Boolean)) {
    mkdirSync(join(copy, dirname(file)), { recursive: true });
    cpSync(file, join(copy, file));
  }
  symlinkSync(resolve('node_modules'), join(copy, 'node_modules'));
}

/** Do the tests pass in the copy as it stands? */
function passes(project: string, tests: readonly string[]): Promise<boolean> {
  return new Promise((done) => {
    const args = ['run', '--project', project, '--bail', '1', '--reporter', 'dot', ...tests];
    const child = spawn(join(copy, 'node_modules/.bin/vitest'), args, { cwd: copy, stdio: 'ignore' });
    child.on('close', (code) => done(code === 0));
  });
}

makeCopy();
let tried = 0;
const survivors: string[] = [];
try {
  for (const { project, tests, mutants } of MUTANTS) {
    const wanted = mutants.filter(([file]) => file.includes(only));
    if (wanted.length === 0) continue;
    if (!(await passes(project, tests))) throw new Error(`${tests.join(' ')}: these tests fail without any breakage`);
    for (const [file, find, replace] of wanted) {
      const path = join(copy, file);
      const whole = readFileSync(path, 'utf8');
      writeFileSync(
        path,
        whole.replace(find, () => replace),
      );
      tried++;
      const survived = await passes(project, tests);
      writeFileSync(path, whole);
      console.log(`${survived ? 'SURVIVED' : 'noticed '}  ${file}: ${find.replaceAll('\n', ' ')}`);
      if (survived) survivors.push(`${file}: ${find} → ${replace}`);
    }
  }
} finally {
  rmSync(copy, { recursive: true, force: true });
}
console.log(`\n${tried} breakages, ${survivors.length} noticed by nothing`);
for (const survivor of survivors) console.log(`  ${survivor}`);
process.exit(survivors.length === 0 ? 0 : 1);
