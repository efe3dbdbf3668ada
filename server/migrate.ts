import { fileURLToPath } from 'node:url';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { type Connection, createConnection } from 'mysql2/promise';

/** So long a server waits for another one that is just bringing the same tables up to date. */
const LOCK_SECONDS = 120;

const LOCK = "concat(database(), '.migrations')";

/** Drizzle's own table of what was done, so that its tools can read it. */
const DONE = '__drizzle_migrations';

/**
 * Brings the tables up to date: the files in `migrations`, in order, each once. Servers that start at the same time
 * take turns, by a lock in the database itself, which it lets go when their connection ends.
 *
 * A step that changes tables cannot be taken back, so whoever is killed in the middle leaves half a file done. Every
 * step is therefore written so that it can be done again (`IF NOT EXISTS`), and the next start does the whole file.
 * @param folder  of the migrations; beside this file, or beside the built server
 */
export async function migrateDatabase(url: string, folder = migrationsFolder()): Promise<void> {
  const connection = await createConnection({ uri: url, charset: 'utf8mb4', connectTimeout: 10_000 });
  try {
    const [rows] = await connection.query(`select get_lock(${LOCK}, ?) as got`, [LOCK_SECONDS]);
    if ((rows as { got: number | null }[])[0]?.got !== 1)
      throw new Error('another server is still bringing the tables up to date; start this one again later');
    await takeSteps(connection, folder);
    await connection.query(`do release_lock(${LOCK})`);
  } finally {
    connection.destroy();
  }
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
