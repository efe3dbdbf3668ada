import { type ChildProcess, spawn } from 'node:child_process';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { type Connection, type RowDataPacket, createConnection } from 'mysql2/promise';
import { binary } from './mariadb.ts';

/** Where a copy stops: what is written after it stands in the logs from here on. */
interface Position {
  readonly file: string;
  readonly at: number;
  /** The name of the database that was copied. */
  readonly database: string;
  /** When, ISO 8601; absent in copies of before it was kept. */
  readonly takenAt?: string;
}

const DUMP = 'dump.sql.gz';
const POSITION = 'position.json';
const LOGS = 'logs';

/** A program of the database with who it works as; the password stands on no command line. */
async function withAccess<T>(url: string, work: (access: string[], database: string) => Promise<T>): Promise<T> {
  const { hostname, port, username, password, pathname } = new URL(url);
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-access-'));
  const file = join(folder, 'access.cnf');
  const quoted = (text: string) => `"${decodeURIComponent(text).replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`;
  const lines = ['[client]', `host=${hostname}`, `port=${port || '3306'}`, `user=${quoted(username)}`];
  writeFileSync(file, [...lines, `password=${quoted(password)}`, 'protocol=tcp', ''].join('\n'), { mode: 0o600 });
  try {
    return await work([`--defaults-extra-file=${file}`], decodeURIComponent(pathname.slice(1)));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Runs one of them; rejects with its own words when it fails. */
async function run(program: string, args: readonly string[], streams: Streams = {}): Promise<void> {
  const child: ChildProcess = spawn(binary(program), args, {
    stdio: [streams.from ? 'pipe' : 'ignore', streams.to ? 'pipe' : 'ignore', 'pipe'],
    // Times are told to it in this one.
    env: { ...process.env, TZ: 'UTC' },
  });
  let said = '';
  child.stderr!.on('data', (data: Buffer) => (said = (said + data.toString()).slice(-2_000)));
  const ended = new Promise<number | null>((done, fail) => {
    child.on('error', () =>
      fail(new Error(`${program} is not there. Please install: sudo apt-get install mariadb-client`)),
    );
    child.on('close', done);
  });
  const flows = [
    ...(streams.from ? [streams.from(child.stdin!)] : []),
    ...(streams.to ? [streams.to(child.stdout!)] : []),
  ];
  const [code] = await Promise.all([ended, ...flows.map((flow) => flow.catch(() => undefined))]);
  if (code !== 0) throw new Error(`${program} ended with ${code}: ${said.trim()}`);
}

interface Streams {
  readonly from?: (into: Writable) => Promise<unknown>;
  readonly to?: (out: Readable) => Promise<unknown>;
}

/**
 * Copies a whole database as it is at one moment, while it is in use, and notes where its logs go on from there. The
 * server has to write binary logs.
 */
export async function backUp(url: string, folder: string): Promise<void> {
  if (existsSync(join(folder, POSITION)))
    throw new Error(`There is a copy in ${folder} already, and it stays: name a new folder.`);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const takenAt = new Date().toISOString();
  const begun = join(folder, `${DUMP}.begun`);
  try {
    const position = await dumpInto(url, begun);
    await fetchLogs(url, folder, position.file);
    await rename(begun, join(folder, DUMP));
    await writeFile(join(folder, POSITION), JSON.stringify({ ...position, takenAt }));
  } catch (error) {
    // What broke off does not look like a copy.
    for (const part of [begun, join(folder, DUMP), join(folder, LOGS)]) rmSync(part, { recursive: true, force: true });
    throw error;
  }
}

/** @returns where the logs go on */
async function dumpInto(url: string, file: string): Promise<Position> {
  return withAccess(url, async (access, database) => {
    const what = ['--single-transaction', '--quick', '--hex-blob', '--master-data=2', '--skip-lock-tables', database];
    let head = '';
    await run('mariadb-dump', [...access, ...what], {
      to: (out) => {
        out.on('data', (data: Buffer) => (head.length < HEAD ? (head += data.toString('latin1')) : undefined));
        return pipeline(out, createGzip(), createWriteStream(file, { mode: 0o600 }));
      },
    });
    const [, log, at] = /MASTER_LOG_FILE='([^']+)', MASTER_LOG_POS=(\d+)/.exec(head) ?? [];
    if (log === undefined)
      throw new Error('The database writes no binary logs: set log_bin, else there is no way back to a moment.');
    return { file: log, at: Number(at), database };
  });
}

/** The place in the logs stands near the beginning. */
const HEAD = 8_000;

const positionIn = async (folder: string) => JSON.parse(await readFile(join(folder, POSITION), 'utf8')) as Position;

/** Fetches what was written since the copy; to be called as often as nothing may be lost for longer. */
export async function copyLogs(url: string, folder: string): Promise<void> {
  await fetchLogs(url, folder, (await positionIn(folder)).file);
}

async function fetchLogs(url: string, folder: string, file: string): Promise<void> {
  mkdirSync(join(folder, LOGS), { recursive: true, mode: 0o700 });
  await withAccess(url, (access) =>
    run('mariadb-binlog', [
      ...access,
      '--read-from-remote-server',
      '--raw',
      '--to-last-log',
      `--result-file=${join(folder, LOGS)}/`,
      file,
    ]),
  );
}

interface Restoring {
  /** What was written in this second or later is left out; undefined takes all there is. */
  readonly until?: Date | undefined;
  /** What is in the database already is put aside, into the folder of the copy, and replaced. */
  readonly replace?: boolean;
}

/** What the user of a database is allowed, in the database's own words. */
const grantsOf = async (connection: Connection) => {
  const [rows] = await connection.query<RowDataPacket[]>('show grants');
  return rows.map((row) => String(Object.values(row)[0]));
};

const mayReplay = (grant: string) => / ON \*\.\* /.test(grant) && /ALL PRIVILEGES|SUPER|BINLOG REPLAY/.test(grant);

/** All that can be wrong is found out before anything is touched. @returns the tables that are there */
async function checked(connection: Connection, database: string, replace: boolean): Promise<string[]> {
  if (!(await grantsOf(connection)).some(mayReplay))
    throw new Error(
      'The user of DATABASE_URL may not bring back what was logged: grant it BINLOG REPLAY on *.*. All is as it was.',
    );
  const [rows] = await connection.query<RowDataPacket[]>('show tables');
  const tables = rows.map((row) => String(Object.values(row)[0]));
  if (tables.length > 0 && !replace)
    throw new Error(
      `The database ${database} is not empty. Name an empty one, or add --replace: what is there is put aside first.`,
    );
  return tables;
}

/**
 * Makes a database as it was: the copy, and what was written after it.
 * @param url  of an empty database, or of one that is to be replaced
 */
export async function restore(folder: string, url: string, { until, replace = false }: Restoring = {}): Promise<void> {
  const { file, at, database, takenAt } = await positionIn(folder);
  if (until && takenAt && until < new Date(takenAt))
    throw new Error(`This copy is of ${takenAt}: what was before that is in an older one. Nothing was touched.`);
  const connection = await createConnection(url);
  try {
    const tables = await checked(connection, decodeURIComponent(new URL(url).pathname.slice(1)), replace);
    if (tables.length > 0) {
      const aside = join(folder, `replaced-${new Date().toISOString().replaceAll(':', '-')}.sql.gz`);
      await dumpInto(url, aside);
      await connection.query('set foreign_key_checks = 0');
      for (const table of tables) await connection.query(`drop table ${connection.escapeId(table)}`);
    }
  } finally {
    await connection.end();
  }
  await withAccess(url, async (access, name) => {
    await run('mariadb', [...access, name], {
      from: (into) => pipeline(createReadStream(join(folder, DUMP)), createGunzip(), into),
    });
    const logs = readdirSync(join(folder, LOGS))
      .sort()
      .filter((log) => log >= file);
    const which = [
      `--start-position=${at}`,
      ...(until ? [`--stop-datetime=${until.toISOString().slice(0, 19).replace('T', ' ')}`] : []),
      `--rewrite-db=${database}->${name}`,
      `--database=${database}`,
      ...logs.map((log) => join(folder, LOGS, log)),
    ];
    await run('mariadb', [...access, name], {
      from: (into) => run('mariadb-binlog', which, { to: (out) => pipeline(out, into) }),
    });
  });
}
