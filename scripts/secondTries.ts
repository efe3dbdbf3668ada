import { relative } from 'node:path';
import type { Reporter, TestModule } from 'vitest/node';

/** Names the tests that passed only when they were tried again: on a busy machine a page may be late. */
export default class SecondTries implements Reporter {
  onTestRunEnd(modules: readonly TestModule[]): void {
    for (const module of modules)
      for (const test of module.children.allTests())
        if (test.diagnostic()?.flaky)
          console.log(`passed at the second try: ${relative('.', module.moduleId)} > ${test.fullName}`);
  }
}
