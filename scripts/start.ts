import { configFrom } from '../server/config.ts';
import { startServer } from '../server/start.ts';
import { projectDatabase } from './mariadb.ts';
import { untilStopped } from './untilStopped.ts';

// The server of a school: no demo, the database that DATABASE_URL names, or one of its own.
const database = await projectDatabase('.data/school');
const server = await startServer(configFrom({ ...process.env, DATABASE_URL: database.url }));
await untilStopped();
await server.stop();
await database.stop();
process.exit(0);
