import { TEACHER } from '../../demo/school.ts';
import { buildPages } from '../build/buildPages.ts';
import { buildServer } from '../build/buildServer.ts';
import { startCluster } from './cluster/cluster.ts';
import { seedDemo } from './seed.ts';
import { untilStopped } from './untilStopped.ts';

// Three databases that hold the same, two app servers, a balancer before each, with Marrow Lane School. All of it is
// gone when it is stopped.

await Promise.all([buildPages(), buildServer()]);
const cluster = await startCluster({
  port: Number(process.env['PORT'] ?? 4180),
  env: { DEMO_TEACHER: TEACHER.name, METRICS_FROM: '127.0.0.1' },
  fill: seedDemo,
}).catch((error: Error) => {
  console.error(`The cluster did not start: ${error.message}`);
  process.exit(1);
});
const databases = cluster.nodes.map(({ name, port }) => `${name} at ${port}`).join(', ');
console.log(`
  Clapboard on a cluster, with Marrow Lane School

  open       ${cluster.url}
  sign in    ${TEACHER.name} / ${TEACHER.password}   (or press “Look around”)
  databases  ${databases}; ${(await cluster.chosen()).name} answers

  Ctrl+C stops all of it.
`);
await untilStopped();
await cluster.stop();
process.exit(0);
