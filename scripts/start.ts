import { configFrom } from '../server/config.ts';
import { startServer } from '../server/start.ts';
import { buildPages } from './buildPages.ts';
import { projectDatabase } from './mariadb.ts';
import { untilStopped } from './untilStopped.ts';

// The server of a school: no demo, the database that DATABASE_URL names.
const [database] = await Promise.all([projectDatabase('.data/school'), buildPages()]);
const server = await startServer(configFrom({ ...process.env, DATABASE_URL: database.url }));
await untilStopped();
await server.stop();
await database.stop();
process.exit(0);
