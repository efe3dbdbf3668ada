import { createHash, randomBytes } from 'node:crypto';
import type { Database } from '../database.ts';
import { NOBODYS_HASH, passwordFits } from '../password.ts';
import { Problem } from '../problem.ts';
import { addSession, findTeacherByName, removeSession, sessionFinder } from '../repository/teachers.ts';
import type { SignIn, Teacher } from '../../contract/session.ts';

/** A school day and the evening after it, for two weeks. */
export const SESSION_MS = 14 * 24 * 3600 * 1000;

function tokenHash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

async function open(db: Database, teacher: Teacher): Promise<{ teacher: Teacher; token: string }> {
  const token = randomBytes(32).toString('base64url');
  await addSession(db, { tokenHash: tokenHash(token), teacherId: teacher.id, expiresAt: Date.now() + SESSION_MS });
  return { teacher: { id: teacher.id, name: teacher.name }, token };
}

export async function signIn(db: Database, { name, password }: SignIn): Promise<{ teacher: Teacher; token: string }> {
  const teacher = await findTeacherByName(db, name.trim());
  const fits = await passwordFits(password, teacher?.passwordHash ?? NOBODYS_HASH);
  if (!teacher || !fits)
    throw new Problem(401, 'wrong-password', 'Name and password do not belong together. Check both and try again.', {
      field: 'password',
    });
  return open(db, teacher);
}

/** For the visitor of a demo: signs in the demo's own teacher. */
export async function visit(db: Database, demoTeacher: string): Promise<{ teacher: Teacher; token: string }> {
  const teacher = await findTeacherByName(db, demoTeacher);
  if (!teacher) throw new Problem(503, 'no-demo', 'The demo school is not there yet. Start the demo again.');
  return open(db, teacher);
}

/** A session that was looked up is believed this long: a lesson's worth of requests then asks the database seldom. */
const BELIEVED_MS = 5_000;
const MOST_BELIEVED = 2_000;

export interface Sessions {
  /** The teacher of a token from the cookie. */
  readonly teacherOf: (token: string | undefined) => Promise<Teacher | undefined>;
  /** Ends a session at once; another server on the same database may believe it for BELIEVED_MS more. */
  readonly end: (token: string) => Promise<void>;
}

export function sessionsOf(db: Database): Sessions {
  const believed = new Map<string, { teacher: Teacher; until: number }>();
  const find = sessionFinder(db);
  return {
    teacherOf: async (token) => {
      if (token === undefined || token.length > 100) return undefined;
      const key = tokenHash(token);
      const before = believed.get(key);
      if (before && before.until > Date.now()) return before.teacher;
      const teacher = await find(key);
      believed.delete(key);
      if (teacher) {
        if (believed.size >= MOST_BELIEVED) believed.clear();
        believed.set(key, { teacher, until: Date.now() + BELIEVED_MS });
      }
      return teacher;
    },
    end: async (token) => {
      believed.delete(tokenHash(token));
      await removeSession(db, tokenHash(token));
    },
  };
}
