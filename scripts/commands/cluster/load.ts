import { execFileSync } from 'node:child_process';
import { readFileSync, readdirSync } from 'node:fs';
import { cpus } from 'node:os';
import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { type Lesson, type LessonOutcome, TEACHER, beginLesson, withTeachers } from '../../bench/lesson.ts';
import { type Cluster, startCluster } from './cluster.ts';

const TEACHERS = 30;
const CHILDREN = 4;
const SECONDS = 30;
/** A teacher hears sixty takes a minute. */
const PAUSE_MS = 1_000;
/** What is compiled on the way is not what is asked. */
const WARM_UP_MS = 8_000;

/** Of takes that were stored. Milliseconds. */
interface Measured {
  readonly takesASecond: number;
  readonly p50: number;
  readonly p95: number;
  readonly p99: number;
}

/** By which word in its command line a part is known. */
const PARTS = {
  'app servers': 'dist/server/main.js',
  databases: '/mariadbd',
  balancer: 'haproxy',
  teachers: 'clusterTest',
};
type Part = keyof typeof PARTS;

interface Load extends Measured {
  /** The share of the machine's processors that was in use. */
  readonly busy: number;
  /** Time of a processor that each stored take cost each part of the cluster, and those who asked. */
  readonly msATake: Readonly<Record<Part, number>>;
}

/**
 * Thirty teachers, each hearing sixty takes a minute; then as many takes as go through one app server, and through two.
 */
export async function measureLoad(): Promise<Record<string, Load>> {
  const names = Array.from({ length: TEACHERS }, (_, i) => `Teacher ${i + 1}`);
  const cluster = await startCluster({ env: { PAGES: '' }, fill: (url) => withTeachers(url, names) });
  try {
    await during(cluster, names.slice(0, 8), 0, WARM_UP_MS);
    const lesson = await during(cluster, names, PAUSE_MS, SECONDS * 1000);
    const two = await during(cluster, names, 0, SECONDS * 1000);
    await cluster.apps[1]!.stop();
    await wait(2_000);
    const one = await during(cluster, names, 0, SECONDS * 1000);
    return { 'thirty teachers': lesson, 'as many as go, two app servers': two, 'as many as go, one app server': one };
  } finally {
    await cluster.stop();
  }
}

async function during(cluster: Cluster, names: readonly string[], pauseMs: number, ms: number): Promise<Load> {
  const lessons: Lesson[] = [];
  for (const name of names) {
    const children = Array.from({ length: CHILDREN }, () => uuid());
    lessons.push(
      await beginLesson(cluster.url, children, { teacher: { name, password: TEACHER.password }, lanes: 1, pauseMs }),
    );
  }
  const before = lessons.map((lesson) => lesson.acknowledged());
  const [idle, spent] = [idleMs(), spentMs()];
  const from = performance.now();
  await wait(ms);
  const passed = performance.now() - from;
  const busy = 1 - (idleMs() - idle) / (passed * cpus().length);
  const after = spentMs();
  const stored = lessons.reduce((sum, lesson, i) => sum + lesson.acknowledged() - before[i]!, 0);
  const outcomes = await Promise.all(lessons.map((lesson) => lesson.end()));
  const msATake = Object.fromEntries(
    Object.keys(PARTS).map((part) => [part, tenth((after[part as Part] - spent[part as Part]) / stored)]),
  ) as Record<Part, number>;
  return { ...measured(outcomes, stored / (passed / 1000)), busy: Math.round(busy * 100) / 100, msATake };
}

function measured(outcomes: readonly LessonOutcome[], takesASecond: number): Measured {
  const answers = outcomes.flatMap((one) => one.answers).sort((a, b) => a - b);
  const at = (part: number) => Math.round(answers[Math.floor(answers.length * part)] ?? 0);
  return { takesASecond: tenth(takesASecond), p50: at(0.5), p95: at(0.95), p99: at(0.99) };
}

const tenth = (value: number) => Math.round(value * 10) / 10;

/** How long processors have worked for each part so far. */
function spentMs(): Record<Part, number> {
  const tick = 1000 / Number(execFileSync('getconf', ['CLK_TCK']).toString());
  const spent = { 'app servers': 0, databases: 0, balancer: 0, teachers: 0 };
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      const part = (Object.keys(PARTS) as Part[]).find((one) => command.includes(PARTS[one]));
      if (!part) continue;
      const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
      // After the name, which may have anything in it: user and system time are the 12th and 13th.
      const [user, system] = stat
        .slice(stat.lastIndexOf(')') + 2)
        .split(' ')
        .slice(11, 13);
      spent[part] += (Number(user) + Number(system)) * tick;
    } catch {
      // It has ended meanwhile.
    }
  return spent;
}

const idleMs = () => cpus().reduce((sum, { times }) => sum + times.idle, 0);
