import { demandNode } from './nodeVersion.ts';

demandNode();
// Only now: with an older one not even reading the rest ends well.
const [{ configFrom }, { startServer }, { startedOrSaid }] = await Promise.all([
  import('./config.ts'),
  import('./start.ts'),
  import('./starting.ts'),
]);

const server = await startedOrSaid(() => startServer(configFrom(process.env)));
let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  await server.stop();
  process.exit(0);
};
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
