import { buildServer } from './buildServer.ts';
import { lessonWithKills, withCluster } from './cluster/lessonWithKills.ts';
import { measureLoad } from './cluster/load.ts';

// By hand: `npm run cluster-test -- kills 20` kills each kind of part so often during a lesson, `npm run cluster-test
// -- load` measures thirty teachers at once and what a second app server brings.

const [what = 'kills', often = '20'] = process.argv.slice(2);
await buildServer();
if (what === 'load') console.log(JSON.stringify(await measureLoad(), undefined, 2));
else {
  const outcome = await withCluster((cluster) => lessonWithKills(cluster, Number(often)));
  console.log(JSON.stringify(outcome, undefined, 2));
  process.exitCode = outcome.lost + outcome.different + outcome.signedOut > 0 ? 1 : 0;
}
