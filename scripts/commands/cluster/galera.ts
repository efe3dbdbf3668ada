import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { freePort } from '../freePort.ts';
import type { Place } from './networks.ts';
import { binary, endProcess, untilItAnswers } from '../mariadb.ts';

/** One of several databases that hold the same. */
export interface GaleraNode {
  readonly name: string;
  /** For connections. */
  readonly host: string;
  readonly port: number;
  /** Starts it, new or after it was killed, and waits until it holds what the others do. */
  readonly start: () => Promise<void>;
  /** Ends it as a power cut would. */
  readonly kill: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

export interface Galera {
  readonly nodes: readonly GaleraNode[];
  readonly user: string;
  readonly password: string;
  /** Who may connect and ask nothing: the balancer looks whether a node answers. */
  readonly watcher: string;
}

const PROVIDER = '/usr/lib/galera/libgalera_smm.so';
const USER = 'clapboard';
const WATCHER = 'balancer';

/**
 * How soon a node that is silent is given up: writing goes on without it then. Shorter than usual, for these nodes are
 * neighbours, and longer than a busy machine may stop for.
 */
const GIVEN_UP = [
  'evs.keepalive_period=PT0.5S',
  'evs.inactive_check_period=PT0.25S',
  'evs.suspect_timeout=PT2S',
  'evs.inactive_timeout=PT4S',
  'evs.install_timeout=PT4S',
];

interface Ports {
  readonly host: string;
  readonly sql: number;
  readonly group: number;
  readonly missing: number;
  readonly whole: number;
}

/**
 * Starts a MariaDB Galera cluster on loopback, each node in a folder of its own under `folder`. As root the nodes run
 * as `mysql` (copying everything to a new node fails as root), who has to be able to get to the folder.
 * @param started  is told how to stop each node
 */
export async function startGalera(
  folder: string,
  started: (() => Promise<void>)[],
  places: readonly Place[],
): Promise<Galera> {
  if (!existsSync(PROVIDER)) throw new Error('Please install: sudo apt-get install galera-4 rsync');
  mkdirSync(folder, { recursive: true });
  chmodSync(folder, 0o755);
  const password = randomBytes(18).toString('hex');
  const ports: Ports[] = [];
  for (const { host } of places)
    ports.push({
      host,
      sql: await freePort(),
      group: await freePort(),
      missing: await freePort(),
      whole: await freePort(),
    });
  const address = `gcomm://${ports.map(({ host, group }) => `${host}:${group}`).join(',')}`;
  const nodes = ports.map((own, i) => {
    const name = `node${i + 1}`;
    return nodeIn({ home: join(folder, name), name, ports: own, command: places[i]!.command, address, password });
  });
  for (const [i, node] of nodes.entries()) {
    started.push(node.stop);
    await (i === 0 ? node.begin() : node.start());
  }
  return { nodes, user: USER, password, watcher: WATCHER };
}

interface Node {
  readonly home: string;
  readonly name: string;
  readonly ports: Ports;
  /** What comes before the command of a database. */
  readonly command: readonly string[];
  /** Of all of them. */
  readonly address: string;
  readonly password: string;
}

function nodeIn({ home, name, ports, command, address, password }: Node) {
  const data = join(home, 'data');
  const log = join(home, 'mariadb.log');
  const asMysql = userInfo().uid === 0;
  let process: ChildProcess | undefined;
  const own = () => {
    for (const part of [home, data, join(home, 'tmp')]) mkdirSync(part, { recursive: true });
    if (asMysql) execFileSync('chown', ['-R', 'mysql', home]);
  };
  const run = async (more: readonly string[]) => {
    const args = [...argsOf(home, name, ports), ...more, ...(asMysql ? ['--user=mysql'] : [])];
    const [program, ...all] = [...command, binary('mariadbd'), ...args];
    process = spawn(program!, all, { detached: true, stdio: 'ignore' });
    process.unref();
    const server = { host: ports.host, port: ports.sql, user: USER, password };
    await untilItAnswers(server, process.pid!, log);
    await untilSynced(server);
  };
  const end = async (signal: 'SIGTERM' | 'SIGKILL') => {
    if (process?.pid !== undefined) await endProcess(process.pid, signal);
    process = undefined;
  };
  return {
    name,
    host: ports.host,
    port: ports.sql,
    begin: async () => {
      own();
      const install = ['--no-defaults', `--datadir=${data}`, `--tmpdir=${join(home, 'tmp')}`, '--skip-test-db'];
      const more = ['--auth-root-authentication-method=normal', ...(asMysql ? ['--user=mysql'] : [])];
      execFileSync(binary('mariadb-install-db'), [...install, ...more], { stdio: ['ignore', 'pipe', 'pipe'] });
      const init = join(home, 'init.sql');
      writeFileSync(init, `${usersWith(password).join(';\n')};\n`, { mode: 0o644 });
      await run(['--wsrep-new-cluster', '--wsrep-cluster-address=gcomm://', `--init-file=${init}`]);
    },
    start: async () => {
      own();
      const others = `--wsrep-cluster-address=${address}`;
      await run([others, ...positionIn(home, [...argsOf(home, name, ports), others], asMysql)]);
    },
    kill: () => end('SIGKILL'),
    stop: () => end('SIGTERM'),
  };
}

const usersWith = (password: string) => [
  `create user if not exists '${USER}'@'%' identified by '${password}'`,
  `grant all on *.* to '${USER}'@'%'`,
  `create user if not exists '${WATCHER}'@'%' identified via mysql_native_password using ''`,
  `alter user 'root'@'localhost' identified by '${password}'`,
];

function argsOf(home: string, name: string, { host, sql, group, missing, whole }: Ports): string[] {
  const provider = [
    `base_host=${host}`,
    `base_port=${group}`,
    `gmcast.listen_addr=tcp://${host}:${group}`,
    `ist.recv_addr=${host}:${missing}`,
    'gcache.size=64M',
    ...GIVEN_UP,
  ];
  return [
    '--no-defaults',
    `--datadir=${join(home, 'data')}`,
    `--tmpdir=${join(home, 'tmp')}`,
    `--socket=${join(home, 'db.sock')}`,
    `--port=${sql}`,
    '--skip-name-resolve',
    `--bind-address=${host}`,
    `--log-error=${join(home, 'mariadb.log')}`,
    '--character-set-server=utf8mb4',
    '--innodb-buffer-pool-size=64M',
    '--innodb-log-file-size=16M',
    // What the others have need not be on this disk at once.
    '--innodb-flush-log-at-trx-commit=2',
    '--binlog-format=ROW',
    '--innodb-autoinc-lock-mode=2',
    '--wsrep-on=ON',
    `--wsrep-provider=${PROVIDER}`,
    '--wsrep-cluster-name=clapboard',
    `--wsrep-node-name=${name}`,
    `--wsrep-node-address=${host}:${group}`,
    `--wsrep-provider-options=${provider.join(';')}`,
    '--wsrep-sst-method=rsync',
    `--wsrep-sst-receive-address=${host}:${whole}`,
    // A single statement that came too late is done again there and then.
    '--wsrep-retry-autocommit=4',
  ];
}

/**
 * How far a node had come when it was killed, as its own files say: it is then told only what it missed. A whole copy
 * would hold up the node that gives it.
 */
function positionIn(home: string, args: readonly string[], asMysql: boolean): string[] {
  if (!existsSync(join(home, 'data', 'ibdata1'))) return [];
  const log = join(home, 'recovery.log');
  rmSync(log, { force: true });
  const recovery = [`--log-error=${log}`, '--wsrep-recover', ...(asMysql ? ['--user=mysql'] : [])];
  execFileSync(binary('mariadbd'), [...args, ...recovery], { stdio: 'ignore' });
  const position = /Recovered position:\s*([0-9a-f-]{36}:\d+)/.exec(readFileSync(log, 'utf8'))?.[1];
  return position === undefined ? [] : [`--wsrep-start-position=${position}`];
}

const SYNCED_MS = 60_000;

async function untilSynced(server: object): Promise<void> {
  const deadline = Date.now() + SYNCED_MS;
  for (;;) {
    try {
      const connection = await createConnection({ ...server, connectTimeout: 1_000 });
      const [rows] = await connection.query("show status like 'wsrep_local_state_comment'");
      connection.destroy();
      if ((rows as { Value: string }[])[0]?.Value === 'Synced') return;
    } catch {
      // It takes over what the others have.
    }
    if (Date.now() > deadline) throw new Error('a node of the database does not catch up with the others');
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
