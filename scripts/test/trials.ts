import { buildServer } from '../build/buildServer.ts';
import { lessonWithKills as onCluster, withCluster } from '../commands/cluster/lessonWithKills.ts';
import { measureLoad } from '../commands/cluster/load.ts';
import { lessonWithKills } from './kills.ts';
import { run } from './testStages.ts';

// What takes long, by hand; a short round of each is part of `npm test`.
// `npm run trials` does all but `load`, `npm run trials -- cluster 5` one of them, so often.

/** Within so long a classroom gets an answer, whatever has died. */
const MOST_MS = 10_000;

/** Every test, on all of its cases. */
const ALL = { PASSWORD_COST: '4', TRIALS: 'all' };

/** Each says what came of it, and whether that is as it must be. */
const TRIALS = {
  /** Server and database are killed at random moments while takes are stored. */
  kills: async (often = 50) => {
    const outcome = await lessonWithKills(often, Date.now() % 1_000_000);
    console.log(outcome);
    return outcome.lost + outcome.wrongRecords === 0 && outcome.acknowledged > 0;
  },
  /** Sixty takes a minute while each kind of part of a cluster is killed so often. */
  cluster: async (often = 20) => {
    const outcome = await withCluster((cluster) => onCluster(cluster, often));
    console.log(outcome);
    const slowest = Math.max(outcome.slowestAnswer, ...Object.values(outcome.longestGap));
    return outcome.lost + outcome.different + outcome.signedOut === 0 && slowest < MOST_MS;
  },
  /** Every test, also what `npm test` leaves out. */
  tests: async () => {
    const projects = ['trials', 'machines', 'units', 'computing', 'server'].flatMap((name) => ['--project', name]);
    return (await run('vitest', ['run', ...projects], { shown: true, env: ALL })).code === 0;
  },
  /** The laws, on cases that are others each time; `CASES` is the seed of a run that failed. */
  cases: async (often = 3) => {
    for (let i = 0; i < often; i++) {
      const seed = String((Date.now() + i) % 1_000_000);
      console.log(`CASES=${seed}`);
      const env = { ...ALL, CASES: seed };
      const projects = ['--project', 'units', '--project', 'computing', '--project', 'server'];
      if ((await run('vitest', ['run', ...projects], { shown: true, env })).code !== 0) return false;
    }
    return true;
  },
  /** Thirty teachers at once, and what a second app server brings. */
  load: async () => {
    console.log(JSON.stringify(await measureLoad(), undefined, 2));
    return true;
  },
} satisfies Record<string, (often?: number) => Promise<boolean>>;

type Trial = keyof typeof TRIALS;
const [named, often] = process.argv.slice(2);
const wanted: readonly Trial[] = named === undefined ? ['kills', 'cluster', 'tests', 'cases'] : [named as Trial];
await buildServer();
for (const name of wanted) {
  if (!Object.hasOwn(TRIALS, name)) throw new Error(`no such trial: ${Object.keys(TRIALS).join(', ')}`);
  const well = await TRIALS[name](often === undefined ? undefined : Number(often));
  console.log(`${name}: ${well ? 'well' : 'NOT WELL'}`);
  if (!well) process.exitCode = 1;
}
