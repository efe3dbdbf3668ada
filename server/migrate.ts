import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { type Connection, type ResultSetHeader, createConnection } from 'mysql2/promise';
import { demandMariadb, makeUtf8 } from './characterSet.ts';
import { codeOf } from './driverErrors.ts';

/** So long a server waits for another one that is just bringing the same tables up to date. */
const LOCK_SECONDS = 120;

/** Whose turn it is, in a table: a lock of the database itself would be one for each node of a cluster. */
const TURN = '__migrating';
/** A server that was killed is missed after so long. */
const LEASE_MS = 8_000;
const RENEW_MS = 2_000;
const ASK_AGAIN_MS = 100;

/** Drizzle's own table of what was done, so that its tools can read it. */
const DONE = '__drizzle_migrations';

/**
 * Brings the tables up to date: the files in `migrations`, in order, each once. Servers that start at the same time
 * take turns, through whichever node of a cluster they come.
 *
 * A step that changes tables cannot be taken back, so whoever is killed in the middle leaves half a file done. Every
 * step is therefore written so that it can be done again (`IF NOT EXISTS`), and the next start does the whole file.
 * @param folder  of the migrations; beside this file, or beside the built server
 */
export async function migrateDatabase(url: string, folder = migrationsFolder()): Promise<void> {
  const connection = await createConnection({ uri: url, charset: 'utf8mb4', connectTimeout: 10_000 });
  try {
    await demandMariadb(connection);
    // Before the first table, that of whose turn it is.
    await makeUtf8(connection);
    const turn = await takeTurn(url);
    try {
      await takeSteps(connection, folder);
    } finally {
      await turn.end();
    }
  } finally {
    connection.destroy();
  }
}

/** Waits for its turn and keeps it, by a connection of its own, until it ends. */
async function takeTurn(url: string): Promise<{ readonly end: () => Promise<void> }> {
  const connection = await createConnection({ uri: url, charset: 'utf8mb4', connectTimeout: 10_000 });
  const me = randomUUID();
  // By the clock of the database: servers have other ones.
  const now = 'cast(unix_timestamp(now(3)) * 1000 as unsigned)';
  const taken = async (whose: string) => {
    const [{ affectedRows }] = await connection.query<ResultSetHeader>(
      `update ${TURN} set holder = ?, until = ${now} + ? where one = 1 and ${whose}`,
      [me, LEASE_MS],
    );
    return affectedRows > 0;
  };
  const deadline = Date.now() + LOCK_SECONDS * 1000;
  try {
    await connection.query(
      `create table if not exists ${TURN}
         (one tinyint primary key, holder varchar(36) not null, until bigint not null)`,
    );
    await connection.query(`insert ignore into ${TURN} values (1, '', 0)`);
    // In a cluster the second of two is told that it came too late as if it were a deadlock.
    while (!(await taken(`until < ${now}`).catch(isOvertaken))) {
      if (Date.now() > deadline)
        throw new Error('another server is still bringing the tables up to date; start this one again later');
      await wait(ASK_AGAIN_MS);
    }
  } catch (error) {
    connection.destroy();
    throw error;
  }
  const renew = setInterval(() => void taken(`holder = '${me}'`).catch(() => undefined), RENEW_MS);
  return {
    end: async () => {
      clearInterval(renew);
      await connection.query(`update ${TURN} set until = 0 where holder = ?`, [me]).catch(() => undefined);
      connection.destroy();
    },
  };
}

function isOvertaken(error: unknown): false {
  if (codeOf(error) !== 'ER_LOCK_DEADLOCK') throw error;
  return false;
}

async function takeSteps(connection: Connection, folder: string): Promise<void> {
  await connection.query(
    `create table if not exists ${DONE} (id serial primary key, hash text not null, created_at bigint)`,
  );
  const [rows] = await connection.query(`select max(created_at) as latest from ${DONE}`);
  const latest = Number((rows as { latest: number | string | null }[])[0]?.latest ?? 0);
  for (const { sql, hash, folderMillis } of readMigrationFiles({ migrationsFolder: folder })) {
    if (folderMillis <= latest) continue;
    for (const step of sql) await connection.query(step);
    await connection.query(`insert into ${DONE} (hash, created_at) values (?, ?)`, [hash, folderMillis]);
  }
}

export function migrationsFolder(): string {
  return fileURLToPath(new URL('./migrations', import.meta.url));
}
