import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { openDatabase } from '../../../server/database.ts';
import { takes } from '../../../server/schema.ts';
import { type Lesson, beginLesson, withTeachers } from '../../bench/lesson.ts';
import { type Cluster, asked, startCluster } from './cluster.ts';
import type { GaleraNode } from './galera.ts';
import { canMakeNetworks } from './networks.ts';

/** What is killed in turn: the database that answers, an app server, a database that only follows. */
export const KINDS = ['chosen node', 'app server', 'other node'] as const;
export type Kind = (typeof KINDS)[number];

/** What came of a lesson in which parts of a cluster were killed. Times in milliseconds. */
export interface ClusterLesson {
  readonly kills: Readonly<Record<Kind, number>>;
  readonly acknowledged: number;
  /** Acknowledged takes that are not there. */
  readonly lost: number;
  /** Nodes on which, at the end, there is not what is on the first. */
  readonly different: number;
  /** The longest time any answer took, whatever it said. */
  readonly slowestAnswer: number;
  /** The longest time after a death until the next take was stored. */
  readonly longestGap: Readonly<Record<Kind, number>>;
  readonly signedOut: number;
}

const CHILDREN = 6;
/** Sixty takes a minute. */
const LANES = 4;
const PAUSE_MS = 4_000;
/** Between two kills, so that each is the only one. */
const CALM_MS = 1_500;

/** A cluster for a lesson, gone afterwards; in networks that can be split where this user may make any. */
export async function withCluster<T>(work: (cluster: Cluster) => Promise<T>): Promise<T> {
  const apart = canMakeNetworks();
  const cluster = await startCluster({ apart, env: { PAGES: '' }, fill: (databaseUrl) => withTeachers(databaseUrl) });
  try {
    return await work(cluster);
  } finally {
    await cluster.stop();
  }
}

/** @returns a lesson of sixty takes a minute, begun */
export function lessonOn(cluster: Cluster): Promise<Lesson> {
  const children = Array.from({ length: CHILDREN }, () => uuid());
  return beginLesson(cluster.url, children, { lanes: LANES, pauseMs: PAUSE_MS });
}

/** A lesson in which each kind is killed so often; what was killed comes back before the next one is. */
export async function lessonWithKills(cluster: Cluster, rounds: number): Promise<ClusterLesson> {
  const lesson = await lessonOn(cluster);
  const kills = { 'chosen node': 0, 'app server': 0, 'other node': 0 };
  const longestGap = { ...kills };
  for (let round = 0; round < rounds; round++)
    for (const kind of KINDS) {
      await wait(CALM_MS);
      const victim = await victimOf(cluster, kind, round);
      await victim.kill();
      const gap = await untilStored(lesson);
      longestGap[kind] = Math.max(longestGap[kind], gap);
      kills[kind]++;
      await victim.start();
    }
  return { kills, longestGap, ...(await whatCameOf(cluster, lesson)) };
}

/** Ends a lesson, and looks what of it is on each node. */
async function whatCameOf(cluster: Cluster, lesson: Lesson) {
  const { acknowledged, answers, signedOut } = await lesson.end();
  const [first, ...rest] = await Promise.all(cluster.nodes.map((node) => takesAt(cluster.databaseUrl, node)));
  return {
    acknowledged: acknowledged.length,
    lost: acknowledged.filter((id) => !first!.has(id)).length,
    different: rest.filter((found) => found.size !== first!.size || [...found].some((id) => !first!.has(id))).length,
    slowestAnswer: Math.round(Math.max(...answers)),
    signedOut,
  };
}

/** A lesson in which the network splits, once so that the node that answers stands alone, once another. */
export async function lessonWithSplits(cluster: Cluster): Promise<Omit<ClusterLesson, 'kills' | 'longestGap'> & Split> {
  const { networks } = cluster;
  if (!networks) throw new Error('the nodes of this cluster are not in networks of their own');
  const lesson = await lessonOn(cluster);
  const [refused, accepted]: [string[], string[]] = [[], []];
  for (const kind of ['chosen node', 'other node'] as const) {
    await wait(CALM_MS);
    const alone = kind === 'chosen node' ? await cluster.chosen() : await victimOf(cluster, kind, 0);
    networks.cutOff(cluster.nodes.indexOf(alone as GaleraNode));
    await untilStored(lesson);
    // By then the larger side has gone on, and the smaller one knows that it is.
    await untilAlone(cluster.databaseUrl, alone as GaleraNode);
    const outcome = await written(cluster.databaseUrl, alone as GaleraNode);
    (outcome === undefined ? accepted : refused).push(outcome ?? kind);
    networks.mend();
    await untilWhole(cluster);
  }
  return { refused, accepted, ...(await whatCameOf(cluster, lesson)) };
}

/** What came of writing to the smaller side of a split network. */
export interface Split {
  /** The database's own words. */
  readonly refused: readonly string[];
  readonly accepted: readonly string[];
}

const PATIENCE_MS = 30_000;

/** Waits until a node says of itself what is to be so. */
async function untilSays(url: string, node: GaleraNode, variable: string, value: string): Promise<void> {
  const until = Date.now() + PATIENCE_MS;
  while (Date.now() < until) {
    const rows = await answerOf<{ Value: string }>(url, node, `show status like '${variable}'`).catch(() => []);
    if (rows[0]?.Value === value) return;
    await wait(100);
  }
  throw new Error(`${node.name}: ${variable} does not become ${value}`);
}

const untilAlone = (url: string, node: GaleraNode) => untilSays(url, node, 'wsrep_cluster_status', 'non-Primary');

async function untilWhole({ databaseUrl, nodes }: Cluster): Promise<void> {
  for (const node of nodes) {
    await untilSays(databaseUrl, node, 'wsrep_cluster_size', String(nodes.length));
    await untilSays(databaseUrl, node, 'wsrep_local_state_comment', 'Synced');
  }
}

/** @returns why a node does not take what is written to it; undefined where it does */
async function written(url: string, node: GaleraNode): Promise<string | undefined> {
  try {
    await answerOf(url, node, "insert into __drizzle_migrations (hash, created_at) values ('split', 0)");
    return undefined;
  } catch (error) {
    return (error as { code?: string }).code ?? String(error);
  }
}

/** What one node answers, past the balancer. */
async function answerOf<Row>(databaseUrl: string, node: GaleraNode, question: string): Promise<Row[]> {
  return (await asked({ uri: nodeUrl(databaseUrl, node) }, question)) as Row[];
}

/** The database as one node has it. */
export function nodeUrl(databaseUrl: string, { host, port }: GaleraNode): string {
  const url = new URL(databaseUrl);
  url.hostname = host;
  url.port = String(port);
  return url.href;
}

async function victimOf(cluster: Cluster, kind: Kind, round: number) {
  if (kind === 'app server') return cluster.apps[round % cluster.apps.length]!;
  const chosen = await cluster.chosen();
  if (kind === 'chosen node') return chosen;
  const others = cluster.nodes.filter((node) => node !== chosen);
  return others[round % others.length]!;
}

/** @returns how long it takes from now until the next take is stored */
async function untilStored(lesson: Lesson): Promise<number> {
  const from = Date.now();
  const before = lesson.acknowledged();
  while (lesson.acknowledged() === before) await wait(20);
  return lesson.lastAt() - from;
}

async function takesAt(databaseUrl: string, node: GaleraNode): Promise<Set<string>> {
  const { db, pool } = openDatabase(nodeUrl(databaseUrl, node), { connections: 1, statementMs: 20_000 });
  const found = new Set((await db.select({ id: takes.id }).from(takes)).map(({ id }) => id));
  await pool.end();
  return found;
}
