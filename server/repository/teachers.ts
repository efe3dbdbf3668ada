import { and, eq, gt, lt, sql } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { sessions, teachers } from '../schema.ts';

export async function findTeacherByName(db: Database, name: string) {
  const [row] = await db.select().from(teachers).where(eq(teachers.name, name)).limit(1);
  return row;
}

export async function addTeacher(
  db: Database,
  teacher: { id: string; name: string; passwordHash: string },
): Promise<void> {
  await db.insert(teachers).values(teacher);
}

export async function addSession(
  db: Database,
  session: { tokenHash: string; teacherId: string; expiresAt: number },
): Promise<void> {
  await db.delete(sessions).where(lt(sessions.expiresAt, Date.now()));
  await db.insert(sessions).values(session);
}

/** Finds the teacher of a session that has not run out. Prepared once, for it is asked with nearly every request. */
export function sessionFinder(db: Database) {
  const query = db
    .select({ id: teachers.id, name: teachers.name })
    .from(sessions)
    .innerJoin(teachers, eq(teachers.id, sessions.teacherId))
    .where(and(eq(sessions.tokenHash, sql.placeholder('tokenHash')), gt(sessions.expiresAt, sql.placeholder('now'))))
    .limit(1)
    .prepare();
  return async (tokenHash: string) => (await query.execute({ tokenHash, now: Date.now() }))[0];
}

export async function removeSession(db: Database, tokenHash: string): Promise<void> {
  await db.delete(sessions).where(eq(sessions.tokenHash, tokenHash));
}
