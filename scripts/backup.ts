import { type ChildProcess, spawn } from 'node:child_process';
import {
  createReadStream,
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { binary } from './mariadb.ts';

/** Where a copy stops: what is written after it stands in the logs from here on. */
interface Position {
  readonly file: string;
  readonly at: number;
  /** The name of the database that was copied. */
  readonly database: string;
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
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  await withAccess(url, async (access, database) => {
    const what = ['--single-transaction', '--quick', '--hex-blob', '--master-data=2', '--skip-lock-tables', database];
    let head = '';
    await run('mariadb-dump', [...access, ...what], {
      to: (out) => {
        out.on('data', (data: Buffer) => (head.length < HEAD ? (head += data.toString('latin1')) : undefined));
        return pipeline(out, createGzip(), createWriteStream(join(folder, DUMP), { mode: 0o600 }));
      },
    });
    const [, file, at] = /MASTER_LOG_FILE='([^']+)', MASTER_LOG_POS=(\d+)/.exec(head) ?? [];
    if (file === undefined)
      throw new Error('The database writes no binary logs: set log_bin, else there is no way back to a moment.');
    const position: Position = { file, at: Number(at), database };
    await writeFile(join(folder, POSITION), JSON.stringify(position));
  });
  await copyLogs(url, folder);
}

/** The place in the logs stands near the beginning. */
const HEAD = 8_000;

const positionIn = async (folder: string) => JSON.parse(await readFile(join(folder, POSITION), 'utf8')) as Position;

/** Fetches what was written since the copy; to be called as often as nothing may be lost for longer. */
export async function copyLogs(url: string, folder: string): Promise<void> {
  const { file } = await positionIn(folder);
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

/**
 * Makes a database as it was: the copy, and what was written after it.
 * @param url  of an empty database
 * @param until  what was written in this second or later is left out; undefined takes all there is
 */
export async function restore(folder: string, url: string, until?: Date): Promise<void> {
  const { file, at, database } = await positionIn(folder);
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
