import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { MAPS, PAGES } from '../build/buildPages.ts';
import { FLOORS, KEPT_IN, type Lines, addStatements, addVisits, percentRun } from './coverage.ts';
import { type Count, type Running, Stages } from './testStages.ts';

/** Each check counts as one test; their words are shown when they fail. */
const CHECKS: readonly (readonly [string, string, readonly string[]])[] = [
  // Each room by the types its own tsconfig.json allows: the core has neither browser nor Node.
  ['types and style', 'oxlint', []],
  ['styles', 'stylelint', ['web/**/*.scss']],
  ['format', 'oxfmt', ['--check']],
  ['nothing unused', 'knip', []],
  [
    'structure',
    'depcruise',
    [
      '--config',
      '.dependency-cruiser.cjs',
      'core',
      'contract',
      'drawing',
      'server',
      'web',
      'cli',
      'demo',
      'e2e',
      'scripts',
    ],
  ],
];

/** What was run, a folder for each run of the tests and one for all pages in the browser. */
const RUN = 'coverage';
const RUN_IN_PAGES = join(RUN, 'browser');

/** Tests whose lines are counted, beside those that run in the browser. */
const MEASURED = ['units', 'server'] as const;

/** Signing in is tried hundreds of times. */
const ENV = { PASSWORD_COST: '4' };

/** Whether the lines that are run are counted, and must be enough: to count them takes a quarter longer. */
const COUNTED = process.argv.includes('lines');

/** Switches for a report of what was run; the first names all files, so that those never loaded count too. */
function measured(project: (typeof MEASURED)[number]): string[] {
  if (!COUNTED) return [];
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
    for (const project of MEASURED)
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

const stages = new Stages();
const checks = async () => {
  for (const [name, command, args] of CHECKS) await stages.check(name, command, args, { yields: true });
};

/** All that needs neither server nor browser. */
const units = async (running: Running) => {
  if (!COUNTED) return stages.tests(['units', 'computing'], [], running);
  await stages.tests('units', measured('units'), running);
  await stages.tests('computing', [], running);
};

if (process.argv.includes('fast')) await Promise.all([checks(), units({ env: ENV })]);
else {
  rmSync(RUN, { recursive: true, force: true });
  const env = { ...ENV, ...(COUNTED ? { [KEPT_IN]: RUN_IN_PAGES } : {}) };
  // In the browser and between machines much of the time is waited: what only computes goes on beside them, and yields.
  const waiting = [
    stages.tests('pages', [], { env }),
    stages.tests('server', measured('server'), { env }),
    stages.tests('machines', [], { env }),
  ];
  await Promise.all([...waiting, units({ env, yields: true }), checks()]);
  if (COUNTED) await stages.stage('lines run', floors);
}
const { passed, failed } = stages.summary();
process.exit(failed === 0 && passed > 0 ? 0 : 1);
