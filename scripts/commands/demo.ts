import { TEACHER } from '../../demo/school.ts';
import { configFrom } from '../../server/config.ts';
import { startServer } from '../../server/start.ts';
import { buildPages } from '../build/buildPages.ts';
import { practiceChildren } from './practiceChildren.ts';
import { projectDatabase } from './mariadb.ts';
import { seedDemo } from './seed.ts';
import { untilStopped } from './untilStopped.ts';

const [database] = await Promise.all([projectDatabase(), buildPages({ lightly: true })]);
await seedDemo(database.url);
const server = await startServer(
  configFrom({ LOG_LEVEL: 'warn', ...process.env, DATABASE_URL: database.url, DEMO_TEACHER: TEACHER.name }),
).catch(async (error: Error) => {
  await database.stop();
  console.error(`The demo did not start: ${error.message}`);
  process.exit(1);
});
console.log(`
  Clapboard, with Marrow Lane School

  open      ${server.url}
  sign in   ${TEACHER.name} / ${TEACHER.password}   (or press “Look around”)

  Ctrl+C stops it and its database.
`);
const ending = new AbortController();
// A room that is opened in the demo fills by itself.
void practiceChildren(server.url, ending.signal).catch(() => undefined);
await untilStopped();
ending.abort();
await server.stop();
await database.stop();
process.exit(0);
