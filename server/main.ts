import { configFrom } from './config.ts';
import { startServer } from './start.ts';

const server = await startServer(configFrom(process.env));
let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  await server.stop();
  process.exit(0);
};
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
