import { createConnection } from 'mysql2/promise';
import { benchLarge } from './benchLarge.ts';
import { LARGE, makeLargeSchool } from './largeSchool.ts';
import { startMariadb } from '../commands/mariadb.ts';

// A town of schools in a database of its own, made where there is none yet, and measured: `npm run large`; beside it
// all of it in one school: `npm run large -- 1`

const schools = Number(process.argv[2] ?? LARGE.schools);
const SIZE = { ...LARGE, schools };
const FOLDER = '.data/large';
/** As docs/operating.md has it for so many takes. */
const TUNED = [
  'innodb_buffer_pool_size = 2147483648',
  'innodb_log_file_size = 536870912',
  'innodb_flush_log_at_trx_commit = 2',
];

const database = await startMariadb(FOLDER);
const url = await database.url(`town_${schools}`);
const connection = await createConnection(url);
for (const setting of TUNED) await connection.query(`set global ${setting}`);
const [tables] = await connection.query("show tables like 'takes'");
if ((tables as unknown[]).length === 0) {
  const from = Date.now();
  const said = (words: string) => console.log(`${Math.round((Date.now() - from) / 1000)} s  ${words}`);
  const takes = await makeLargeSchool(url, SIZE, Date.now(), said);
  said(`${takes} takes, ready`);
}
await connection.end();
await benchLarge(url, SIZE);
await database.stop();
