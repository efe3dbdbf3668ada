import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { setTimeout as wait } from 'node:timers/promises';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { type Connection, createConnection } from 'mysql2/promise';
import { describe, expect, it } from 'vitest';
import { demandMariadb } from './characterSet.ts';
import { migrateDatabase, migrationsFolder } from './migrate.ts';
import { freshDatabase } from './testServer.test-helper.ts';

const FILES = readMigrationFiles({ migrationsFolder: migrationsFolder() });

async function on<T>(url: string, work: (connection: Connection) => Promise<T>): Promise<T> {
  const connection = await createConnection({ uri: url, multipleStatements: true });
  try {
    return await work(connection);
  } finally {
    await connection.end();
  }
}

/** Every table as the database would make it again. */
async function shape(url: string): Promise<string[]> {
  return on(url, async (connection) => {
    const [tables] = await connection.query('show tables');
    const made: string[] = [];
    for (const row of tables as Record<string, string>[]) {
      const [[table]] = (await connection.query(`show create table \`${Object.values(row)[0]}\``)) as unknown as [
        Record<string, string>[],
      ];
      made.push(table!['Create Table']!.replace(/ AUTO_INCREMENT=\d+/, ''));
    }
    return made;
  });
}

const count = (url: string) =>
  on(url, async (connection) => {
    const [[row]] = (await connection.query('select count(*) as n from __drizzle_migrations')) as unknown as [
      { n: number }[],
    ];
    return row!.n;
  });

const migrated = async () => {
  const url = await freshDatabase();
  await migrateDatabase(url);
  return shape(url);
};

describe('bringing the tables up to date', () => {
  it('every step can be done again', async () => {
    const url = await freshDatabase();
    await on(url, async (connection) => {
      // A file is only left behind when all of it was done, so each is done twice before the next.
      for (const { sql } of FILES) for (const step of [...sql, ...sql]) await connection.query(step);
    });
    expect(await shape(url)).toEqual((await migrated()).filter((table) => !table.includes('`__')));
  });

  it('is done once, and once more changes nothing', async () => {
    const url = await freshDatabase();
    for (let i = 0; i < 2; i++) await migrateDatabase(url);
    expect(await count(url)).toBe(FILES.length);
  });

  it('a database made as latin1 gets the same tables as any other', async () => {
    const url = await freshDatabase('latin1');
    await migrateDatabase(url);
    expect(await shape(url)).toEqual(await migrated());
  });

  it('tables that were begun in latin1 are refused in a sentence, and none is made beside them', async () => {
    const url = await freshDatabase('latin1');
    await on(url, (connection) => connection.query('create table teachers (id varchar(36) primary key)'));
    await expect(migrateDatabase(url)).rejects.toThrow(
      /^1 tables of the database “t_\w+” are not utf8mb4: name an empty/,
    );
    expect(await shape(url)).toHaveLength(1);
  });

  it.each(['10.5.29-MariaDB', '8.4.0'])('a %s is refused in a sentence', async (version) => {
    const query = () => Promise.resolve([[{ version }]]);
    await expect(demandMariadb({ query } as unknown as Connection)).rejects.toThrow(
      `Clapboard needs MariaDB from 10.6 on; DATABASE_URL leads to ${version}`,
    );
  });

  it.each([3, 14, 30])('goes on where it was cut off, after step %i', async (cut) => {
    const url = await freshDatabase();
    await on(url, async (connection) => {
      for (const step of FILES.flatMap(({ sql }) => sql).slice(0, cut)) await connection.query(step);
    });
    await migrateDatabase(url);
    expect(await shape(url)).toEqual(await migrated());
  });

  it('servers that start at once take turns', async () => {
    const url = await freshDatabase();
    await Promise.all([1, 2, 3].map(() => migrateDatabase(url)));
    expect(await count(url)).toBe(FILES.length);
  });

  it('waits for the turn of another server, and no longer than that one shows signs of life', async () => {
    const url = await freshDatabase();
    await migrateDatabase(url);
    const lease = (ms: number) =>
      on(url, (connection) =>
        connection.query(`update __migrating set holder = 'other', until = unix_timestamp() * 1000 + ${ms}`),
      );
    await lease(60_000);
    let done = false;
    const mine = migrateDatabase(url).then(() => (done = true));
    await wait(400);
    expect(done).toBe(false);
    await lease(-1_000);
    await mine;
  });

  it('every table has a primary key, without which a cluster cannot tell its rows apart', async () => {
    const url = await freshDatabase();
    await migrateDatabase(url);
    const [without] = await on(url, (connection) =>
      connection.query(
        `select t.table_name as name from information_schema.tables t where t.table_schema = database()
           and not exists (select 1 from information_schema.statistics s where s.table_schema = t.table_schema
             and s.table_name = t.table_name and s.index_name = 'PRIMARY')`,
      ),
    );
    expect(without).toEqual([]);
  });

  it('no step takes away what a server of the version before still uses', () => {
    // From here on old and new servers run side by side while one takes the place of the other (docs/operating.md).
    const later = FILES.slice(16).flatMap(({ sql }) => sql);
    const takesAway = /\b(drop|rename|change column)\b|modify column.*not null(?!.*default)/i;
    expect(later.filter((step) => takesAway.test(step) && !/^\s*-- contract/m.test(step))).toEqual([]);
  });

  it('ends well whenever it is killed', async () => {
    const url = await freshDatabase();
    const script = `
      const { migrateDatabase } = await import(${JSON.stringify(new URL('./migrate.ts', import.meta.url).href)});
      process.send('begun');
      await migrateDatabase(${JSON.stringify(url)});
    `;
    const start = async (): Promise<ChildProcess> => {
      const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '--eval', script], {
        stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      });
      await once(child, 'message');
      return child;
    };
    const child = await start();
    // A fast one may have ended by itself by then.
    const over = once(child, 'exit');
    await wait(60);
    child.kill('SIGKILL');
    await over;
    await migrateDatabase(url);
    expect(await shape(url)).toEqual(await migrated());
  });

  it('keeps what there was: sound goes into pieces, takes learn their class', async () => {
    const url = await freshDatabase();
    const before = FILES.slice(0, 7);
    await on(url, async (connection) => {
      for (const step of before.flatMap(({ sql }) => sql)) await connection.query(step);
      await connection.query(`
        create table __drizzle_migrations (id serial primary key, hash text not null, created_at bigint);
        insert into __drizzle_migrations (hash, created_at) values ('', ${before.at(-1)!.folderMillis});
        insert into teachers (id, name, password_hash) values ('t', 'Ann', '');
        insert into classes (id, teacher_id, name, ages, school, revision) values ('c', 't', 'Gulls', '9-10', 'ta', 41);
        insert into children (id, class_id, name) values ('k', 'c', 'Ada');
        insert into takes
          (id, child_id, title, pattern_text, bpm, ages, windows, onsets, taken_at, accuracy, mark, result)
          values ('x', 'k', 'First', '4/4 w', 60, '9-10', '{}', '[0]', 1, 1, 4, '{}');
        insert into recordings (take_id, mime, sound, expires_at) values ('x', 'audio/wav', x'010203', 99);
      `);
    });
    await migrateDatabase(url);
    await on(url, async (connection) => {
      const [rows] = await connection.query(`
        select classes.revision, takes.class_id, recordings.bytes, recording_chunks.sound, number
        from takes join classes on classes.id = takes.class_id
        join recordings on recordings.take_id = takes.id
        join recording_chunks on recording_chunks.upload_id = recordings.upload_id`);
      expect(rows).toEqual([{ revision: '41', class_id: 'c', bytes: 3, sound: Buffer.from([1, 2, 3]), number: 0 }]);
    });
  });
});
