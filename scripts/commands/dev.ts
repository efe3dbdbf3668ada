import { createServer } from 'vite';
import { TEACHER } from '../../demo/school.ts';
import { configFrom } from '../../server/config.ts';
import { startServer } from '../../server/start.ts';
import { projectDatabase } from './mariadb.ts';
import { seedDemo } from './seed.ts';
import { untilStopped } from './untilStopped.ts';

// Pages from the sources, with reload on change; the server from the sources too (start again after a change to it).
const database = await projectDatabase();
await seedDemo(database.url);
const server = await startServer(
  configFrom({ ...process.env, DATABASE_URL: database.url, DEMO_TEACHER: TEACHER.name, PAGES: '' }),
);
process.env['API_URL'] = server.url;
const pages = await createServer({ configFile: 'web/vite.config.ts' });
await pages.listen();
pages.printUrls();
await untilStopped();
await pages.close();
await server.stop();
await database.stop();
process.exit(0);
