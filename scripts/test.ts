import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { constants, setPriority, tmpdir } from 'node:os';
import { join } from 'node:path';
import { MAPS, PAGES } from './buildPages.ts';
import { FLOORS, KEPT_IN, type Lines, addVisits, addStatements, percentRun } from './coverage.ts';

/** Each check counts as one test; their words are shown when they fail. */
const CHECKS: readonly (readonly [string, string, readonly string[]])[] = [
  ['types', 'tsc', ['--noEmit']],
  ['types of the core, without browser and Node', 'tsc', ['--noEmit', '-p', 'core']],
  ['style', 'eslint', ['.', '--max-warnings=0']],
  ['styles', 'stylelint', ['web/**/*.scss']],
  ['format', 'prettier', ['--check', '--log-level', 'warn', '.']],
  ['nothing unused', 'knip', []],
  [
    'structure',
    'depcruise',
    ['--config', '.dependency-cruiser.cjs', 'core', 'contract', 'drawing', 'server', 'web', 'cli', 'demo'],
  ],
];

const fast = process.argv.includes('fast');

/** What was run, a folder for each run of the tests and one for all pages in the browser. */
const RUN = 'coverage';
const RUN_IN_PAGES = join(RUN, 'browser');

/** What yields the machine to everything else. */
const LAST = constants.priority.PRIORITY_LOW;

interface Count {
  passed: number;
  failed: number;
}

/**
 * @param show  prints what it says
 * @param yields  lets everything else go first
 */
function run(
  command: string,
  args: readonly string[],
  show: boolean,
  yields: boolean,
): Promise<{ code: number; output: string }> {
  return new Promise((resolve) => {
    const child = spawn(join('node_modules/.bin', command), args, {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NO_COLOR: '1', [KEPT_IN]: fast ? '' : RUN_IN_PAGES },
    });
    if (yields && child.pid !== undefined) setPriority(child.pid, LAST);
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
    const { code, output } = await run(command, args, false, true);
    count[code === 0 ? 'passed' : 'failed']++;
    console.log(`${code === 0 ? 'passed' : 'FAILED'}  ${name}`);
    if (code !== 0) console.log(output);
  }
  return count;
}

/** Switches for a report of what was run; the first names all files, so that those never loaded count too. */
function measured(project: string): string[] {
  const rooms = `{${Object.keys(FLOORS).join(',')}}/**/*.{ts,tsx}`;
  return [
    '--coverage.enabled',
    '--coverage.provider=v8',
    '--coverage.reportOnFailure',
    '--coverage.reporter=json',
    `--coverage.reportsDirectory=${join(RUN, project)}`,
    ...(project === 'units' ? [`--coverage.include=${rooms}`, '--coverage.exclude=**/*.{test,test-helper}.*'] : []),
  ];
}

/** Whether of each room as many lines were run, by all tests together, as must be. */
function floors(): Count {
  const count = { passed: 0, failed: 0 };
  const lines: Lines = new Map();
  try {
    for (const project of ['units', 'server', 'pages', 'played'])
      addStatements(lines, readFileSync(join(RUN, project, 'coverage-final.json'), 'utf8'));
    addVisits(lines, RUN_IN_PAGES, join(PAGES, 'assets'), MAPS);
  } catch (error) {
    console.log(`What was run cannot be read: ${(error as Error).message}`);
  }
  for (const [room, floor] of Object.entries(FLOORS)) {
    const percent = percentRun(lines, room);
    const enough = percent >= floor;
    count[enough ? 'passed' : 'failed']++;
    console.log(`${enough ? 'passed' : 'FAILED'}  lines of ${room} run: ${percent.toFixed(1)} %, at least ${floor}`);
  }
  return count;
}

async function tests(project: string, yields = false): Promise<Count> {
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-tests-'));
  const file = join(folder, 'result.json');
  const { code } = await run(
    'vitest',
    [
      'run',
      ...[
        '--project',
        project,
        '--reporter=dot',
        '--reporter=./scripts/secondTries.ts',
        '--reporter=json',
        `--outputFile.json=${file}`,
      ],
      ...(fast || project === 'machines' ? [] : measured(project)),
    ],
    true,
    yields,
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

rmSync(RUN, { recursive: true, force: true });
const total: Count = { passed: 0, failed: 0 };
const add = ({ passed, failed }: Count) => {
  total.passed += passed;
  total.failed += failed;
};
// Those that are played in time wait most of theirs: what only computes goes on beside them, and yields to them.
const checked = checks();
if (fast) add(await tests('units'));
else {
  for (const count of await Promise.all([tests('server'), tests('pages')])) add(count);
  const inTime = tests('played').then(async (played) => [played, await tests('machines')]);
  const [units, ...others] = await Promise.all([tests('units', true), inTime]);
  for (const count of [units, ...others.flat()]) add(count);
}
add(await checked);
if (!fast) add(floors());
console.log(`${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1);
