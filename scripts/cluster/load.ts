import { cpus } from 'node:os';
import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { openDatabase } from '../../server/database.ts';
import { migrateDatabase } from '../../server/migrate.ts';
import { hashPassword } from '../../server/password.ts';
import { addTeacher } from '../../server/repository/teachers.ts';
import { type Lesson, type LessonOutcome, beginLesson } from '../lesson.ts';
import { type Cluster, startCluster } from './cluster.ts';

const TEACHERS = 30;
const CHILDREN = 4;
const PASSWORD = 'rope and lantern';
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

/**
 * Thirty teachers, each hearing sixty takes a minute; then as many takes as go through one app server, and through two.
 * Beside each the share of the machine's processors that everything together had.
 */
export async function measureLoad(): Promise<Record<string, Measured & { readonly busy: number }>> {
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

async function withTeachers(databaseUrl: string, names: readonly string[]): Promise<void> {
  await migrateDatabase(databaseUrl);
  const { db, pool } = openDatabase(databaseUrl, { connections: 1 });
  const passwordHash = await hashPassword(PASSWORD);
  for (const name of names) await addTeacher(db, { id: uuid(), name, passwordHash });
  await pool.end();
}

async function during(cluster: Cluster, names: readonly string[], pauseMs: number, ms: number) {
  const lessons: Lesson[] = [];
  for (const name of names) {
    const children = Array.from({ length: CHILDREN }, () => uuid());
    lessons.push(
      await beginLesson(cluster.url, children, { teacher: { name, password: PASSWORD }, lanes: 1, pauseMs }),
    );
  }
  const before = lessons.map((lesson) => lesson.acknowledged());
  const idle = idleMs();
  const from = performance.now();
  await wait(ms);
  const passed = performance.now() - from;
  const busy = 1 - (idleMs() - idle) / (passed * cpus().length);
  const stored = lessons.reduce((sum, lesson, i) => sum + lesson.acknowledged() - before[i]!, 0);
  const outcomes = await Promise.all(lessons.map((lesson) => lesson.end()));
  return { ...measured(outcomes, stored / (passed / 1000)), busy: Math.round(busy * 100) / 100 };
}

function measured(outcomes: readonly LessonOutcome[], takesASecond: number): Measured {
  const answers = outcomes.flatMap((one) => one.answers).sort((a, b) => a - b);
  const at = (part: number) => Math.round(answers[Math.floor(answers.length * part)] ?? 0);
  return { takesASecond: Math.round(takesASecond * 10) / 10, p50: at(0.5), p95: at(0.95), p99: at(0.99) };
}

const idleMs = () => cpus().reduce((sum, { times }) => sum + times.idle, 0);
