import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import { v4 as uuid } from 'uuid';
import { randomFrom } from '../../core/random.ts';
import { openDatabase } from '../../server/database.ts';
import { migrateDatabase } from '../../server/migrate.ts';
import { hashPassword } from '../../server/password.ts';
import { rebuildRecords } from '../../server/repository/childRecords.ts';
import { addTeacher } from '../../server/repository/teachers.ts';
import { childElements, childPatterns, takes } from '../../server/schema.ts';
import { startBuilt } from '../build/buildServer.ts';
import { freePort } from '../commands/freePort.ts';
import { TEACHER, beginLesson } from '../bench/lesson.ts';
import { type LocalDatabase, startMariadb } from '../commands/mariadb.ts';

/** What came of a lesson in which server and database were killed again and again. */
export interface KilledLesson {
  readonly kills: { readonly server: number; readonly database: number };
  /** Takes of which the server said that they are stored. */
  readonly acknowledged: number;
  /** Of them, those that are not there. */
  readonly lost: number;
  /** Children whose records are not what their takes make. */
  readonly wrongRecords: number;
}

const CHILDREN = 6;
const AT_ONCE = 8;
/**
 * Stores takes without a pause, each sent again until the server has it as the browser does, while the server (as it
 * ships) or the database is killed at random moments; then looks whether all is there. The built server must be there.
 * @param least  however slow the machine is, so many takes are stored before it is over
 */
export async function lessonWithKills(kills: number, seed: number, least = 40): Promise<KilledLesson> {
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-kills-'));
  const random = randomFrom(seed);
  const database = await startMariadb(folder);
  const databaseUrl = await database.url();
  await migrateDatabase(databaseUrl);
  const open = openDatabase(databaseUrl, { connections: 2, statementMs: 20_000 });
  await addTeacher(open.db, { id: uuid(), name: TEACHER.name, passwordHash: await hashPassword(TEACHER.password) });
  const env = { PATH: process.env['PATH'], DATABASE_URL: databaseUrl, PORT: String(await freePort()), PAGES: '' };
  const first = await startBuilt(env);
  let { server } = first;
  const children = Array.from({ length: CHILDREN }, () => uuid());
  const lesson = await beginLesson(first.url, children, { lanes: AT_ONCE });
  const count = { server: 0, database: 0 };
  for (let i = 0; i < kills; i++) {
    await wait(150 + random.below(700));
    const which = i % 2 === 0 ? 'server' : 'database';
    count[which]++;
    if (which === 'server') server = await killed(server, env);
    else await killedDatabase(database);
  }
  while (lesson.acknowledged() < least) await wait(50);
  const { acknowledged } = await lesson.end();
  const kept = new Set((await open.db.select({ id: takes.id }).from(takes)).map(({ id }) => id));
  let wrongRecords = 0;
  for (const child of children) {
    const before = await recordsIn(open.db, child);
    await rebuildRecords(open.db, child);
    if (before !== (await recordsIn(open.db, child))) wrongRecords++;
  }
  server.kill('SIGTERM');
  await once(server, 'exit');
  await open.pool.end();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
  const lost = acknowledged.filter((id) => !kept.has(id)).length;
  return { kills: count, acknowledged: acknowledged.length, lost, wrongRecords };
}

async function killed(server: ChildProcess, env: NodeJS.ProcessEnv) {
  server.kill('SIGKILL');
  await once(server, 'exit');
  return (await startBuilt(env)).server;
}

/** Whoever uses it starts it again. */
async function killedDatabase(database: LocalDatabase): Promise<void> {
  const before = database.pid();
  if (before !== undefined) process.kill(before, 'SIGKILL');
  for (let i = 0; i < 300 && [before, undefined].includes(database.pid()); i++) await wait(50);
}

async function recordsIn(db: ReturnType<typeof openDatabase>['db'], childId: string): Promise<string> {
  const elements = await db.select().from(childElements).where(eq(childElements.childId, childId));
  const patterns = await db.select().from(childPatterns).where(eq(childPatterns.childId, childId));
  const rounded = JSON.stringify([elements, patterns], (_key, value: unknown) =>
    typeof value === 'number' ? Math.round(value * 1e6) / 1e6 : value,
  );
  return rounded;
}
