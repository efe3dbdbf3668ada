import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { type TestSpecification, type Vitest, createVitest } from 'vitest/node';
import type { MutantGroup } from './mutants/group.ts';

/** Breakages of one group, to be tried in the copy of the project in which this process runs. */
export type WorkOn = Pick<MutantGroup, 'project' | 'tests' | 'mutants'>;

/** Told when the tests pass as they are, then once for each breakage. */
export type Told =
  | { readonly ready: true }
  | { readonly ready: false; readonly trouble: string }
  | { readonly survived: boolean };

const tell = (told: Told) => process.send!(told);

async function open({ project, tests }: WorkOn): Promise<{ vitest: Vitest; asked: TestSpecification[] }> {
  // What computes for long is a project of its own, beside the units.
  const projects = project === 'units' ? ['units', 'computing'] : [project];
  const options = { project: projects, watch: false, bail: 1, reporters: [{}], coverage: { enabled: false } };
  const vitest = await createVitest('test', options);
  const asked = await vitest.globTestSpecifications([...tests]);
  return { vitest, asked };
}

async function pass(vitest: Vitest, asked: readonly TestSpecification[]): Promise<boolean> {
  const { testModules, unhandledErrors } = await vitest.runTestSpecifications([...asked]);
  return unhandledErrors.length === 0 && testModules.length > 0 && testModules.every((module) => module.ok());
}

/** One after the other, with the tests kept at hand: only what is broken is read again. */
async function work(job: WorkOn): Promise<void> {
  let { vitest, asked } = await open(job);
  if (!(await pass(vitest, asked)))
    return void tell({ ready: false, trouble: 'these tests fail without any breakage' });
  tell({ ready: true });
  for (const [file, find, replace] of job.mutants) {
    const path = resolve(file);
    const whole = readFileSync(path, 'utf8');
    writeFileSync(
      path,
      whole.replace(find, () => replace),
    );
    // What runs in threads is built before the tests.
    const builtBefore = file.endsWith('.worker.ts');
    const readAgain = async () => {
      if (!builtBefore) return vitest.invalidateFile(path);
      await vitest.close();
      ({ vitest, asked } = await open(job));
    };
    await readAgain();
    const survived = await pass(vitest, asked);
    writeFileSync(path, whole);
    await readAgain();
    tell({ survived });
  }
  await vitest.close();
}

process.once('message', (job: WorkOn) => {
  work(job)
    .catch((error: Error) => tell({ ready: false, trouble: error.message }))
    .finally(() => process.exit());
});
