import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { openDatabase } from '../../server/database.ts';
import { migrateDatabase } from '../../server/migrate.ts';
import { hashPassword } from '../../server/password.ts';
import { addTeacher } from '../../server/repository/teachers.ts';

/** Who gives the lesson, where nobody else is named. */
export const TEACHER = { name: 'Robin', password: 'rope and lantern' };

/** Brings the tables of a database up to date, and adds teachers who all have the password of `TEACHER`. */
export async function withTeachers(databaseUrl: string, names: readonly string[] = [TEACHER.name]): Promise<void> {
  await migrateDatabase(databaseUrl);
  const { db, pool } = openDatabase(databaseUrl, { connections: 1 });
  const passwordHash = await hashPassword(TEACHER.password);
  for (const name of names) await addTeacher(db, { id: uuid(), name, passwordHash });
  await pool.end();
}

interface LessonOptions {
  readonly teacher?: { readonly name: string; readonly password: string };
  /** So many takes are on their way at once. */
  readonly lanes: number;
  /** A lane rests so long after each take, milliseconds. */
  readonly pauseMs?: number;
}

/** What came of a lesson. Times in milliseconds. */
export interface LessonOutcome {
  /** Takes of which the server said that they are stored. */
  readonly acknowledged: readonly string[];
  /** How long each answer took, whatever it said. */
  readonly answers: readonly number[];
  /** Answers that said that nobody is signed in, and those that said anything but that it is stored. */
  readonly signedOut: number;
  readonly notStored: number;
}

export interface Lesson {
  readonly acknowledged: () => number;
  /** When the last take was acknowledged, milliseconds since 1970. */
  readonly lastAt: () => number;
  readonly end: () => Promise<LessonOutcome>;
}

const PATIENCE_MS = 10_000;
const AGAIN_MS = 60;

/** Signs in, makes a class, and stores takes until it is told to end, each sent again until it is there. */
export async function beginLesson(url: string, children: readonly string[], options: LessonOptions): Promise<Lesson> {
  const { teacher = TEACHER, lanes, pauseMs = 0 } = options;
  const ask = (method: string, path: string, body: object, cookie = '') =>
    fetch(url + path, {
      method,
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
  const signedIn = await ask('POST', '/api/session', teacher);
  const cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const room = uuid();
  await ask('PUT', `/api/classes/${room}`, { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null }, cookie);
  for (const [i, id] of children.entries())
    await ask('PUT', `/api/classes/${room}/children/${id}`, { name: `Child ${i}` }, cookie);
  const acknowledged: string[] = [];
  const answers: number[] = [];
  let [signedOut, notStored, lastAt, number, over] = [0, 0, Date.now(), 0, false];
  const isStored = async (id: string, take: object) => {
    const from = performance.now();
    const answer = await ask('PUT', `/api/takes/${id}`, take, cookie).catch(() => undefined);
    await answer?.arrayBuffer().catch(() => undefined);
    answers.push(performance.now() - from);
    if (answer?.status === 401) signedOut++;
    if (!answer?.ok) notStored++;
    return answer?.ok === true;
  };
  const working = Array.from({ length: lanes }, async (_, lane) => {
    await wait((pauseMs * lane) / lanes);
    while (!over) {
      const id = uuid();
      const take = takeOf(children[number % children.length]!, number++);
      // As the outbox of a browser: until it is there.
      while (!(await isStored(id, take))) await wait(AGAIN_MS);
      acknowledged.push(id);
      lastAt = Date.now();
      if (!over) await wait(pauseMs);
    }
  });
  return {
    acknowledged: () => acknowledged.length,
    lastAt: () => lastAt,
    end: async () => {
      over = true;
      await Promise.all(working);
      return { acknowledged, answers, signedOut, notStored };
    },
  };
}

function takeOf(childId: string, number: number): object {
  return {
    childId,
    patternId: null,
    title: 'First',
    patternText: '4/4 q q e e q',
    bpm: 60,
    onsets: [0, 1, 2, 2.5, 3 + (number % 5) * 0.03],
    takenAt: Date.now(),
  };
}
