import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { openDatabase } from '../../server/database.ts';
import { takes } from '../../server/schema.ts';
import { type Lesson, beginLesson, withTeachers } from '../lesson.ts';
import { type Cluster, startCluster } from './cluster.ts';

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

/** A cluster for a lesson, gone afterwards. */
export async function withCluster<T>(work: (cluster: Cluster) => Promise<T>): Promise<T> {
  const cluster = await startCluster({ env: { PAGES: '' }, fill: (databaseUrl) => withTeachers(databaseUrl) });
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
  const { acknowledged, answers, signedOut } = await lesson.end();
  const [first, ...rest] = await Promise.all(cluster.nodes.map(({ port }) => takesAt(cluster.databaseUrl, port)));
  return {
    kills,
    acknowledged: acknowledged.length,
    lost: acknowledged.filter((id) => !first!.has(id)).length,
    different: rest.filter((found) => found.size !== first!.size || [...found].some((id) => !first!.has(id))).length,
    slowestAnswer: Math.round(Math.max(...answers)),
    longestGap,
    signedOut,
  };
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

async function takesAt(databaseUrl: string, port: number): Promise<Set<string>> {
  const url = new URL(databaseUrl);
  url.port = String(port);
  const { db, pool } = openDatabase(url.href, { connections: 1, statementMs: 20_000 });
  const found = new Set((await db.select({ id: takes.id }).from(takes)).map(({ id }) => id));
  await pool.end();
  return found;
}
