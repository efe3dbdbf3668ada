import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Each check counts as one test; their words are shown when they fail. */
const CHECKS: readonly (readonly [string, string, readonly string[]])[] = [
  ['types', 'tsc', ['--noEmit']],
  ['types of the core, without browser and Node', 'tsc', ['--noEmit', '-p', 'core']],
  ['style', 'eslint', ['.', '--max-warnings=0']],
  ['format', 'prettier', ['--check', '--log-level', 'warn', '.']],
  ['nothing unused', 'knip', []],
  [
    'structure',
    'depcruise',
    ['--config', '.dependency-cruiser.cjs', 'core', 'contract', 'server', 'web', 'cli', 'demo'],
  ],
];

interface Count {
  passed: number;
  failed: number;
}

function run(command: string, args: readonly string[], show: boolean): Promise<{ code: number; output: string }> {
  return new Promise((resolve) => {
    const child = spawn(join('node_modules/.bin', command), args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    const take = (data: Buffer) => {
      output += data.toString();
      if (show) process.stdout.write(data);
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
    child.on('close', (code) => resolve({ code: code ?? 1, output }));
    child.on('error', (error) => resolve({ code: 1, output: error.message }));
  });
}

async function checks(): Promise<Count> {
  const count = { passed: 0, failed: 0 };
  for (const [name, command, args] of CHECKS) {
    const { code, output } = await run(command, args, false);
    count[code === 0 ? 'passed' : 'failed']++;
    console.log(`${code === 0 ? 'passed' : 'FAILED'}  ${name}`);
    if (code !== 0) console.log(output);
  }
  return count;
}

async function tests(project: string): Promise<Count> {
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-tests-'));
  const file = join(folder, 'result.json');
  const { code } = await run(
    'vitest',
    ['run', '--project', project, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
    true,
  );
  let count: Count = { passed: 0, failed: 1 };
  try {
    const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(file, 'utf8')) as {
      numPassedTests: number;
      numFailedTests: number;
    };
    // A file that cannot be loaded, or an error outside any test, fails the run without failing a test.
    count = { passed: numPassedTests, failed: code !== 0 && numFailedTests === 0 ? 1 : numFailedTests };
  } catch {
    console.log(`${project}: the tests did not run to their end`);
  }
  rmSync(folder, { recursive: true, force: true });
  return count;
}

const total: Count = { passed: 0, failed: 0 };
const add = ({ passed, failed }: Count) => {
  total.passed += passed;
  total.failed += failed;
};
// Those that are played in time come last, with the machine to themselves.
const fast = process.argv.includes('fast');
const together = fast ? [checks(), tests('units')] : [checks(), tests('units'), tests('server'), tests('pages')];
for (const count of await Promise.all(together)) add(count);
if (!fast) add(await tests('played'));
console.log(`${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1);
