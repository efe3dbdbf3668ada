import type { Connection } from 'mysql2/promise';

/** What the tables need: `ADD COLUMN IF NOT EXISTS` in every kind of table, and `uuid`s as they are written here. */
const OLDEST_MARIADB = [10, 6] as const;

/** Throws an Error of one sentence, before any table is made, where the database is none that can be used. */
export async function demandMariadb(connection: Connection): Promise<void> {
  const [[row]] = (await connection.query('select version() as version')) as unknown as [{ version: string }[]];
  const { version } = row!;
  const [major = 0, minor = 0] = version.split('.').map(Number);
  const [oldest, oldestMinor] = OLDEST_MARIADB;
  const newEnough = major > oldest || (major === oldest && minor >= oldestMinor);
  if (!version.includes('MariaDB') || !newEnough)
    throw new Error(`Clapboard needs MariaDB from ${OLDEST_MARIADB.join('.')} on; DATABASE_URL leads to ${version}`);
}

/**
 * A database may be made with the character set its server is used to, latin1 as a rule, in which a name of another
 * language does not fit, nor ids of two tables together. What is made in it from here on is utf8mb4.
 * Throws an Error of one sentence where tables of another character set are there already: no server ever came up on
 * such, so there is nothing in them.
 */
export async function makeUtf8(connection: Connection): Promise<void> {
  const [[now]] = (await connection.query(
    `select @@character_set_database as characters, database() as name,
       (select count(*) from information_schema.tables
         where table_schema = database() and table_type = 'BASE TABLE'
           and table_collation not like 'utf8mb4%') as others`,
  )) as unknown as [{ characters: string; name: string; others: number }[]];
  const { characters, name, others } = now!;
  if (others > 0)
    throw new Error(
      `${others} tables of the database “${name}” are not utf8mb4: name an empty one in DATABASE_URL, ` +
        'or drop and make this one anew',
    );
  if (characters !== 'utf8mb4')
    await connection.query('alter database ?? character set utf8mb4 collate utf8mb4_general_ci', [name]);
}
