import { writeFileSync } from 'node:fs';
import { relative } from 'node:path';
import type { Reporter, SerializedError, TestModule } from 'vitest/node';

/** Names the file into which a run of the tests writes what came of it; without it only words are printed. */
export const REPORT_AT = 'TEST_REPORT';

/** What came of one run of the tests. */
export interface TestReport {
  readonly passed: number;
  readonly failed: number;
  /** How long each file took, its imports and set-up included. */
  readonly files: readonly { readonly file: string; readonly seconds: number }[];
}

/**
 * Tests that may pass at the second try, by what their file begins with, and why. Anywhere else a test that needs two
 * has failed: what passes sometimes hides what breaks sometimes.
 */
export const MAY_BE_TRIED_AGAIN: Readonly<Record<string, string>> = {
  'e2e/listen': 'without a sound card the browser makes its sound clock itself, late on a busy machine',
  'e2e/lineUpHeard': 'without a sound card the browser makes its sound clock itself, late on a busy machine',
  'e2e/': 'several browsers share two processors with all other tests: a page may be later than its test waits',
};

const excuseOf = (file: string): string | undefined =>
  Object.entries(MAY_BE_TRIED_AGAIN).find(([begins]) => file.startsWith(begins))?.[1];

const secondsOf = (module: TestModule): number => {
  const { environmentSetupDuration, prepareDuration, collectDuration, setupDuration, duration } = module.diagnostic();
  return (environmentSetupDuration + prepareDuration + collectDuration + setupDuration + duration) / 1000;
};

/** Counts tests, times files, and counts as failed what passed only when it was tried again. */
export default class Report implements Reporter {
  onTestRunEnd(modules: readonly TestModule[], errors: readonly SerializedError[]): void {
    let [passed, failed] = [0, errors.length];
    for (const module of modules) {
      const file = relative('.', module.moduleId);
      // A file that cannot be loaded fails without a test of its own.
      failed += module.errors().length;
      for (const test of module.children.allTests()) {
        const { state } = test.result();
        const late = test.diagnostic()?.flaky === true;
        const excused = excuseOf(file);
        if (late)
          console.log(`passed at the second try: ${file} > ${test.fullName} (${excused ?? 'that is a failure'})`);
        if (state === 'failed' || (late && excused === undefined)) failed++;
        else if (state === 'passed') passed++;
      }
    }
    const files = modules.map((module) => ({ file: relative('.', module.moduleId), seconds: secondsOf(module) }));
    const at = process.env[REPORT_AT];
    if (at) writeFileSync(at, JSON.stringify({ passed, failed, files } satisfies TestReport));
  }
}
