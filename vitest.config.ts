import { defineConfig } from 'vitest/config';
import { validatorsPlugin } from './web/validatorsPlugin.ts';

/** Tests with databases, app servers and balancers of their own. */
const MACHINES = [
  'scripts/commands/cluster/cluster.test.ts',
  'scripts/commands/backup.test.ts',
  'server/built.test.ts',
];

/** What computes for long: to count the lines it runs, which others run as well, would take as long again. */
const COMPUTING = [
  'core/exercises/chooseRhythm.test.ts',
  'core/listening/playedClicks.test.ts',
  'core/making/making.test.ts',
  'scripts/bench/benchRecords.test.ts',
  'web/ui/ownMoves.test.tsx',
];

/** Nothing here leaves a trace in a module, and loading each of them once takes half the time. */
const shared = { isolate: false, setupFiles: ['scripts/test/cases.ts'] };

/** Ten times what the longest test takes: a machine may be busy, and a test that hangs ends all the same. */
const PATIENCE = { testTimeout: 300_000, hookTimeout: 300_000 } as const;

const computed = {
  ...shared,
  ...PATIENCE,
  // On two processors it would be one.
  maxWorkers: 2,
} as const;

const inBrowser = {
  ...shared,
  ...PATIENCE,
  globalSetup: ['scripts/test/testDatabase.ts', 'scripts/test/testPages.ts'],
  maxWorkers: 3,
  // Tried again to tell what is broken from what is late: testReport.ts names it, and says where it may be.
  retry: 1,
};

export default defineConfig({
  plugins: [validatorsPlugin()],
  test: {
    projects: [
      {
        extends: true,
        test: {
          ...computed,
          name: 'units',
          include: ['{core,contract,cli,drawing,web,demo,scripts}/**/*.test.{ts,tsx}'],
          exclude: [...MACHINES, ...COMPUTING],
        },
      },
      { extends: true, test: { ...computed, name: 'computing', include: COMPUTING } },
      {
        extends: true,
        test: {
          ...shared,
          ...PATIENCE,
          name: 'server',
          include: ['server/**/*.test.ts'],
          exclude: MACHINES,
          globalSetup: 'scripts/test/testDatabase.ts',
        },
      },
      {
        extends: true,
        test: {
          ...PATIENCE,
          name: 'machines',
          include: MACHINES,
          globalSetup: 'scripts/test/testDatabase.ts',
          // Each of them is several machines already.
          fileParallelism: false,
        },
      },
      { extends: true, test: { ...inBrowser, name: 'pages', include: ['e2e/**/*.test.ts'] } },
      // Every test of the browser, also what the one before leaves out: `npm run trials`.
      { extends: true, test: { ...inBrowser, name: 'trials', include: ['e2e/**/*.{test,trial}.ts'] } },
    ],
  },
});
