import { defineConfig } from 'vitest/config';
import { validatorsPlugin } from './web/validatorsPlugin.ts';

export default defineConfig({
  plugins: [validatorsPlugin()],
  test: {
    projects: [
      {
        extends: true,
        test: { name: 'units', include: ['{core,contract,cli,web,demo,scripts}/**/*.test.{ts,tsx}'], testTimeout: 30_000 },
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: 'scripts/testDatabase.ts',
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
      // Once more when one fails: without a sound device the browser's sound clock stumbles on a busy machine.
      {
        extends: true,
        test: {
          name: 'browser',
          retry: 1,
          include: ['e2e/**/*.test.ts'],
          globalSetup: ['scripts/testDatabase.ts', 'scripts/testPages.ts'],
          testTimeout: 180_000,
          hookTimeout: 180_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
