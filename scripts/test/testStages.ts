import { type SpawnOptions, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { setPriority, tmpdir } from 'node:os';
import { join } from 'node:path';
import { REPORT_AT, type TestReport } from './testReport.ts';

export type Count = Pick<TestReport, 'passed' | 'failed'>;

/** How a command is run. */
export interface Running {
  /** Lets everything else go first. */
  readonly yields?: boolean;
  /** Prints what it says as it says it. */
  readonly shown?: boolean;
  readonly env?: NodeJS.ProcessEnv;
}

/**
 * What yields to the other stages: half their share of a processor. At the lowest priority nothing would be
 * left for it beside busy programs of others.
 */
const YIELDING = 3;

/** Runs a command of one of the packages. */
export function run(
  command: string,
  args: readonly string[],
  { yields = false, shown = false, env = {} }: Running,
): Promise<{ code: number; output: string }> {
  return new Promise((resolve) => {
    const options: SpawnOptions = { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, NO_COLOR: '1', ...env } };
    const child = spawn(join('node_modules/.bin', command), args, options);
    if (yields && child.pid !== undefined) setPriority(child.pid, YIELDING);
    let output = '';
    const take = (data: Buffer) => {
      output += data.toString();
      if (shown) process.stdout.write(data);
    };
    child.stdout!.on('data', take);
    child.stderr!.on('data', take);
    child.on('close', (code) => resolve({ code: code ?? 1, output }));
    child.on('error', (error) => resolve({ code: 1, output: error.message }));
  });
}

/** What is run one after the other or side by side: what came of each, how long it took, which files were slow. */
export class Stages {
  private readonly begun = performance.now();
  private readonly total = { passed: 0, failed: 0 };
  private readonly done: { readonly name: string; readonly from: number; readonly seconds: number }[] = [];
  private readonly files: TestReport['files'][number][] = [];

  /** A stage of any kind. */
  async stage(name: string, work: () => Promise<Count> | Count): Promise<void> {
    const from = this.seconds();
    const { passed, failed } = await work();
    this.total.passed += passed;
    this.total.failed += failed;
    this.done.push({ name, from, seconds: this.seconds() - from });
  }

  /** A command that finds fault or does not; its words are shown when it does. */
  check(name: string, command: string, args: readonly string[], running: Running = {}): Promise<void> {
    return this.stage(name, async () => {
      const { code, output } = await run(command, args, running);
      console.log(`${code === 0 ? 'passed' : 'FAILED'}  ${name}`);
      if (code !== 0) console.log(output);
      return { passed: Number(code === 0), failed: Number(code !== 0) };
    });
  }

  /** One project of tests, or several at once. */
  tests(projects: string | readonly string[], args: readonly string[], running: Running = {}): Promise<void> {
    const all = [projects].flat();
    return this.stage(all.join(', '), async () => {
      const folder = mkdtempSync(join(tmpdir(), 'clapboard-tests-'));
      const report = join(folder, 'report.json');
      const reporters = ['--reporter=dot', '--reporter=./scripts/test/testReport.ts'];
      const { code } = await run(
        'vitest',
        ['run', ...all.flatMap((one) => ['--project', one]), ...reporters, ...args],
        {
          shown: true,
          ...running,
          env: { ...running.env, [REPORT_AT]: report },
        },
      );
      try {
        const { passed, failed, files } = JSON.parse(readFileSync(report, 'utf8')) as TestReport;
        this.files.push(...files);
        return { passed, failed: failed === 0 && code !== 0 ? 1 : failed };
      } catch {
        console.log(`${all.join(', ')}: the tests did not run to their end`);
        return { passed: 0, failed: 1 };
      } finally {
        rmSync(folder, { recursive: true, force: true });
      }
    });
  }

  /** Says how long everything took, and last how many passed and failed. @returns what came of all */
  summary(): Count {
    const { passed, failed } = this.total;
    console.log('\nStage, when it began, how long it took:');
    for (const { name, from, seconds } of this.done)
      console.log(`  ${name.padEnd(48)} ${clock(from)}  ${clock(seconds)}`);
    console.log('The slowest files, in seconds:');
    const slowest = [...this.files].sort((a, b) => b.seconds - a.seconds).slice(0, SLOWEST);
    for (const { file, seconds } of slowest) console.log(`  ${file.padEnd(48)} ${seconds.toFixed(1)}`);
    console.log(`All of it took ${clock(this.seconds())}, and ${clock(processorSeconds())} of processor time.`);
    console.log(`${passed} passed, ${failed} failed`);
    return { passed, failed };
  }

  private seconds(): number {
    return (performance.now() - this.begun) / 1000;
  }
}

const SLOWEST = 10;

/** Minutes and seconds. */
const clock = (seconds: number) =>
  `${Math.floor(Math.round(seconds) / 60)}:${String(Math.round(seconds) % 60).padStart(2, '0')}`;

/** Ticks of the kernel in a second, as it counts the time of processes. */
const TICKS = 100;

/** Time of all processes that were started from here and have ended, and of this one. */
function processorSeconds(): number {
  const stat = readFileSync('/proc/self/stat', 'utf8');
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
  // Of the process itself and of those it has waited for, as user and as system: fields 14 to 17 of the whole line.
  return fields.slice(11, 15).reduce((sum, ticks) => sum + Number(ticks), 0) / TICKS;
}
