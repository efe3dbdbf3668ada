import { buildServer } from './buildServer.ts';
import { lessonWithKills } from './kills.ts';

// A lesson in which server and database are killed fifty times. `npm run kill-test [how often]`

const kills = Number(process.argv[2] ?? 50);
await buildServer();
const seed = Date.now() % 1_000_000;
const { acknowledged, lost, wrongRecords, kills: count } = await lessonWithKills(kills, seed);
console.log(
  `${count.server} kills of the server, ${count.database} of the database (seed ${seed}): ` +
    `${acknowledged} takes acknowledged, ${lost} lost, records of ${wrongRecords} children wrong`,
);
process.exit(lost + wrongRecords === 0 && acknowledged > 0 ? 0 : 1);
