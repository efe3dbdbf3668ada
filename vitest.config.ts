import { defineConfig } from 'vitest/config';
import { validatorsPlugin } from './web/validatorsPlugin.ts';

/** Browser tests in which nothing is played in time. */
const PAGES = [
  'doors',
  'drawn',
  'ear',
  'files',
  'held',
  'make',
  'offline',
  'pictures',
  'plan',
  'records',
  'sheets',
  'shelf',
  'together',
  'values',
  'views',
  'wire',
].map((name) => `e2e/${name}.test.ts`);

/** Tests with databases, app servers and balancers of their own. */
const MACHINES = ['scripts/cluster/cluster.test.ts', 'scripts/backup.test.ts'];

/** Nothing here leaves a trace in a module, and loading each of them once takes half the time. */
const shared = { isolate: false } as const;

const inBrowser = {
  ...shared,
  globalSetup: ['scripts/testDatabase.ts', 'scripts/testPages.ts'],
  testTimeout: 180_000,
  hookTimeout: 180_000,
  maxWorkers: 3,
  // A page may be late on a busy machine: what passes at the second try is named, what is broken fails twice.
  retry: 1,
};

export default defineConfig({
  plugins: [validatorsPlugin()],
  test: {
    projects: [
      {
        extends: true,
        test: {
          name: 'units',
          include: ['{core,contract,cli,drawing,web,demo,scripts}/**/*.test.{ts,tsx}'],
          exclude: MACHINES,
          testTimeout: 30_000,
          // On two processors it would be one.
          maxWorkers: 2,
          ...shared,
        },
      },
      {
        extends: true,
        test: {
          ...shared,
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: 'scripts/testDatabase.ts',
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'machines',
          include: MACHINES,
          retry: 1,
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
      // What is drawn, said and sent: nothing in it depends on how fast the machine is.
      { extends: true, test: { ...inBrowser, name: 'pages', include: PAGES } },
      // What is played and heard in time: alone on the machine, for its sound clock is made by the machine itself.
      {
        extends: true,
        test: {
          ...inBrowser,
          name: 'played',
          include: ['e2e/**/*.test.ts'],
          exclude: PAGES,
          maxWorkers: 3,
        },
      },
    ],
  },
});
