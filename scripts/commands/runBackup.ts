import { databaseUrlIn } from '../../server/config.ts';
import { databaseTrouble } from '../../server/starting.ts';
import { backUp, copyLogs, restore } from './backup.ts';
import { calledAs } from './calledAs.ts';

// `npm run backup -- FOLDER` (built: `node dist/server/backup.js FOLDER`) copies the database of DATABASE_URL,
// `… FOLDER logs` fetches what was written since, `… FOLDER restore [2026-11-27T10:15:00Z]` makes the empty database of
// DATABASE_URL as it was then; one that is not empty is left alone, or with `--replace` put aside first.

const words = process.argv.slice(2);
const [folder, what = 'all', moment] = words.filter((word) => word !== '--replace');
const until = moment === undefined ? undefined : new Date(moment);
try {
  if (!folder || !['all', 'logs', 'restore'].includes(what))
    throw new Error(`Say where to: ${calledAs('backup')} FOLDER [logs | restore [MOMENT] [--replace]]`);
  const url = databaseUrlIn(process.env['DATABASE_URL']);
  if (until && Number.isNaN(+until)) throw new Error(`“${moment}” is no moment: write it as 2026-11-27T10:15:00Z`);
  const work = () => {
    if (what === 'all') return backUp(url, folder);
    if (what === 'logs') return copyLogs(url, folder);
    return restore(folder, url, { until, replace: words.includes('--replace') });
  };
  await work().catch((error: unknown) => {
    throw databaseTrouble(url, error);
  });
} catch (error) {
  console.error((error as Error).message);
  process.exitCode = 2;
}
