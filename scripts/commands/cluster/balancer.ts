import { spawn } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { connect } from 'node:net';
import { binary, endProcess } from '../mariadb.ts';
import type { GaleraNode } from './galera.ts';

export interface Balancer {
  readonly stop: () => Promise<void>;
}

interface Ports {
  /** Where browsers come. */
  readonly app: number;
  /** Where the app servers find their database. */
  readonly database: number;
}

/** What stands behind a balancer. */
interface Behind {
  readonly name: string;
  /** This machine where it is left out. */
  readonly host?: string;
  readonly port: number;
}

const HERE = '127.0.0.1';
const serverLine = ({ name, host = HERE, port }: Behind) => `server ${name} ${host}:${port} check`;

/** A request of the database's protocol: its length, its number, what it says. */
function packet(number: number, payload: Buffer): string {
  const head = Buffer.alloc(4);
  head.writeUIntLE(payload.length, 0, 3);
  head[3] = number;
  return Buffer.concat([head, payload]).toString('hex');
}

/** What a node says of itself where it may be asked. One that lost sight of the others still answers a plain select. */
const READY = { question: "show status like 'wsrep_ready'", name: 'wsrep_ready', value: 'ON' } as const;

/** A text as it stands in an answer: its length before it. */
const counted = (text: string) => Buffer.concat([Buffer.from([text.length]), Buffer.from(text)]);

/** Signing in without a password (protocol 4.1), and asking whether it has the others in sight. */
function checkOf(watcher: string): string[] {
  const capabilities = Buffer.from([0x01, 0x82, 0x00, 0x00]);
  const largest = Buffer.from([0, 0, 0, 1]);
  const UTF8 = 33;
  const login = Buffer.concat([
    capabilities,
    largest,
    Buffer.from([UTF8]),
    Buffer.alloc(23),
    Buffer.from(`${watcher}\0\0`),
  ]);
  const QUERY = 3;
  const question = Buffer.concat([Buffer.from([QUERY]), Buffer.from(READY.question)]);
  const row = Buffer.concat([counted(READY.name), counted(READY.value)]);
  const QUIT = 1;
  return [
    'tcp-check connect',
    // The greeting of version 10 of the protocol.
    'tcp-check expect rbinary ^......000A',
    `tcp-check send-binary ${packet(1, login)}`,
    'tcp-check expect rbinary ^07000002000000',
    `tcp-check send-binary ${packet(0, question)}`,
    // The row among what comes.
    `tcp-check expect rbinary ${row.toString('hex').toUpperCase()}`,
    `tcp-check send-binary ${packet(0, Buffer.from([QUIT]))}`,
  ];
}

/** TLS ends here: the app servers, with PROXIES=1, are told that there was some. */
const tlsLines = (certificate: string) => [
  `bind :443 ssl crt ${certificate} alpn h2,http/1.1`,
  'bind :80',
  'http-request redirect scheme https code 301 unless { ssl_fc }',
  'http-request set-header X-Forwarded-Proto https',
];

/**
 * What haproxy is told; docs/operating.md says why.
 * @param certificate  file with certificate and key; without one it answers on this machine only, without TLS
 */
export function balancerConfig(
  ports: Ports,
  nodes: readonly Behind[],
  watcher: string,
  apps: readonly Behind[],
  certificate?: string,
): string {
  const part = (head: string, lines: readonly string[]) => [head, ...lines.map((line) => `  ${line}`), ''].join('\n');
  return [
    part('global', ['maxconn 4000', 'tune.bufsize 65536']),
    part('defaults', [
      'timeout connect 1s',
      'timeout client 75s',
      'timeout server 75s',
      'timeout queue 5s',
      'retries 2',
      'option redispatch 1',
    ]),
    part('listen database', [
      `bind 127.0.0.1:${ports.database}`,
      'mode tcp',
      'timeout client 8h',
      'timeout server 8h',
      // All write to one node, and stay with the next when it is gone: what one wrote the others read at once.
      'stick-table type ip size 1 nopurge',
      'stick on dst',
      'balance first',
      'option tcp-check',
      ...checkOf(watcher),
      'default-server inter 500ms fastinter 250ms fall 2 rise 2 on-marked-down shutdown-sessions',
      ...nodes.map(serverLine),
    ]),
    part('frontend app', [
      ...(certificate === undefined ? [`bind 127.0.0.1:${ports.app}`] : tlsLines(certificate)),
      'mode http',
      'option forwardfor',
      'default_backend apps',
    ]),
    part('backend apps', [
      'mode http',
      'balance leastconn',
      'option httpchk GET /livez',
      // What never reached a server goes to another one; what may have been done goes there again where that does no
      // harm: everything is named by its sender.
      'retry-on conn-failure empty-response',
      'http-request disable-l7-retry if METH_POST',
      'default-server inter 500ms fastinter 250ms fall 2 rise 1',
      ...apps.map(serverLine),
    ]),
  ].join('\n');
}

/** Starts haproxy before the databases and before the app servers. */
export async function startBalancer(
  folder: string,
  ports: Ports,
  nodes: readonly GaleraNode[],
  watcher: string,
  apps: readonly number[],
): Promise<Balancer> {
  const file = join(folder, 'haproxy.cfg');
  const servers = apps.map((port, i) => ({ name: `app${i + 1}`, port }));
  const databases = nodes.map(({ name, host, port }) => ({ name, host, port }));
  writeFileSync(file, balancerConfig(ports, databases, watcher, servers));
  const child = spawn(binary('haproxy'), ['-db', '-f', file], { stdio: ['ignore', 'ignore', 'pipe'], detached: true });
  let said = '';
  child.stderr.on('data', (data: Buffer) => (said = (said + data.toString()).slice(-4_000)));
  const ended = new Promise<never>((_, fail) => {
    child.on('error', () => fail(new Error('Please install: sudo apt-get install haproxy')));
    child.on('exit', () => fail(new Error(`haproxy ended: ${said}`)));
  });
  ended.catch(() => undefined);
  await Promise.race([ended, untilOpen(ports.app)]);
  return {
    stop: async () => {
      if (child.pid !== undefined) await endProcess(child.pid, 'SIGTERM');
    },
  };
}

async function untilOpen(port: number): Promise<void> {
  for (;;) {
    const open = await new Promise<boolean>((done) => {
      const socket = connect(port, '127.0.0.1', () => done(true)).on('error', () => done(false));
      socket.on('connect', () => socket.destroy());
    });
    if (open) return;
    await wait(50);
  }
}
