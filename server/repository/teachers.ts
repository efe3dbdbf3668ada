import type { Language } from '../../core/words/say.ts';
import { and, asc, desc, eq, gt, lt, ne, sql } from 'drizzle-orm';
import type { StaffMember } from '../../contract/staff.ts';
import type { Database } from '../database.ts';
import { knownDevices, passkeyChallenges, passkeys, passwordResets, sessions, teachers } from '../schema.ts';

export async function findTeacherByName(db: Database, name: string) {
  const [row] = await db.select().from(teachers).where(eq(teachers.name, name)).limit(1);
  return row;
}

export async function findTeacherById(db: Database, teacherId: string) {
  const [row] = await db.select().from(teachers).where(eq(teachers.id, teacherId)).limit(1);
  return row;
}

export async function addTeacher(
  db: Database,
  teacher: { id: string; name: string; passwordHash: string },
): Promise<void> {
  await db.insert(teachers).values(teacher);
}

/** All accounts, by name. */
export async function listTeachers(db: Database): Promise<StaffMember[]> {
  const { id, name, administrator, closed, createdAt } = teachers;
  const rows = await db
    .select({ id, name, administrator, closed, createdAt })
    .from(teachers)
    .orderBy(asc(teachers.name));
  return rows.map((row) => ({ ...row, createdAt: +row.createdAt }));
}

export async function closeTeacher(db: Database, teacherId: string, closed: boolean): Promise<void> {
  await db.update(teachers).set({ closed }).where(eq(teachers.id, teacherId));
}

export async function makeAdministrator(db: Database, teacherId: string): Promise<void> {
  await db.update(teachers).set({ administrator: true }).where(eq(teachers.id, teacherId));
}

export async function setLanguage(db: Database, teacherId: string, language: Language | null): Promise<void> {
  await db.update(teachers).set({ language }).where(eq(teachers.id, teacherId));
}

export async function setPassword(db: Database, teacherId: string, passwordHash: string): Promise<void> {
  await db.update(teachers).set({ passwordHash }).where(eq(teachers.id, teacherId));
  await db.delete(passwordResets).where(eq(passwordResets.teacherId, teacherId));
}

export async function addSession(
  db: Database,
  session: { tokenHash: string; teacherId: string; expiresAt: number; startedAt: number; device: string },
): Promise<void> {
  await db.delete(sessions).where(lt(sessions.expiresAt, Date.now()));
  await db.insert(sessions).values(session);
}

/** Finds the teacher of a session that has not run out. Prepared once, for it is asked with every request. */
export function sessionFinder(db: Database) {
  const query = db
    .select({
      id: teachers.id,
      name: teachers.name,
      administrator: teachers.administrator,
      language: teachers.language,
    })
    .from(sessions)
    .innerJoin(teachers, eq(teachers.id, sessions.teacherId))
    .where(
      and(
        eq(sessions.tokenHash, sql.placeholder('tokenHash')),
        gt(sessions.expiresAt, sql.placeholder('now')),
        eq(teachers.closed, false),
      ),
    )
    .limit(1)
    .prepare();
  return async (tokenHash: string) => (await query.execute({ tokenHash, now: Date.now() }))[0];
}

export async function removeSession(db: Database, tokenHash: string): Promise<void> {
  await db.delete(sessions).where(eq(sessions.tokenHash, tokenHash));
}

const othersOf = (teacherId: string, tokenHash: string) =>
  and(eq(sessions.teacherId, teacherId), ne(sessions.tokenHash, tokenHash));

/** All sessions of a teacher but one. @param but  hash of its token; '' ends all */
export async function removeSessions(db: Database, teacherId: string, but: string): Promise<void> {
  await db.delete(sessions).where(othersOf(teacherId, but));
}

/** Where a teacher is signed in, newest first. */
export async function listSessions(db: Database, teacherId: string) {
  return db
    .select({ tokenHash: sessions.tokenHash, device: sessions.device, startedAt: sessions.startedAt })
    .from(sessions)
    .where(and(eq(sessions.teacherId, teacherId), gt(sessions.expiresAt, Date.now())))
    .orderBy(desc(sessions.startedAt), asc(sessions.tokenHash));
}

/** @returns whether there was one of this teacher's */
export async function removeSessionOf(db: Database, teacherId: string, tokenHash: string): Promise<boolean> {
  const [{ affectedRows }] = await db
    .delete(sessions)
    .where(and(eq(sessions.teacherId, teacherId), eq(sessions.tokenHash, tokenHash)));
  return affectedRows > 0;
}

/** Has the teacher been in with this browser? @param tokenHash  of the token in its cookie */
export async function isKnownDevice(db: Database, teacherId: string, tokenHash: string): Promise<boolean> {
  const rows = await db
    .select({ id: knownDevices.teacherId })
    .from(knownDevices)
    .where(and(eq(knownDevices.tokenHash, tokenHash), eq(knownDevices.teacherId, teacherId)))
    .limit(1);
  return rows.length > 0;
}

/** Keeps a browser in mind, for a teacher; those that were not used before `since` are forgotten. */
export async function keepDevice(
  db: Database,
  device: { tokenHash: string; teacherId: string; usedAt: number },
  since: number,
): Promise<void> {
  await db.delete(knownDevices).where(lt(knownDevices.usedAt, since));
  await db.insert(knownDevices).values(device);
}

export async function forgetDevice(db: Database, teacherId: string, tokenHash: string): Promise<void> {
  await db
    .delete(knownDevices)
    .where(and(eq(knownDevices.teacherId, teacherId), eq(knownDevices.tokenHash, tokenHash)));
}

export async function forgetDevices(db: Database, teacherId: string): Promise<void> {
  await db.delete(knownDevices).where(eq(knownDevices.teacherId, teacherId));
}

export async function putReset(
  db: Database,
  reset: { teacherId: string; codeHash: string; expiresAt: number },
): Promise<void> {
  const { codeHash, expiresAt } = reset;
  await db.insert(passwordResets).values(reset).onDuplicateKeyUpdate({ set: { codeHash, expiresAt } });
}

const isResetOf = (teacherId: string, codeHash: string) =>
  and(
    eq(passwordResets.teacherId, teacherId),
    eq(passwordResets.codeHash, codeHash),
    gt(passwordResets.expiresAt, Date.now()),
  );

/** Is there a reset with this code that has not run out? */
export async function isReset(db: Database, teacherId: string, codeHash: string): Promise<boolean> {
  const rows = await db
    .select({ id: passwordResets.teacherId })
    .from(passwordResets)
    .where(isResetOf(teacherId, codeHash))
    .limit(1);
  return rows.length > 0;
}

/** Takes a reset that has not run out; it is then gone. False when there is none with this code. */
export async function takeReset(db: Database, teacherId: string, codeHash: string): Promise<boolean> {
  const [{ affectedRows }] = await db.delete(passwordResets).where(isResetOf(teacherId, codeHash));
  return affectedRows > 0;
}

export type Passkey = typeof passkeys.$inferSelect;

export async function listPasskeys(db: Database, teacherId: string): Promise<Passkey[]> {
  return db.select().from(passkeys).where(eq(passkeys.teacherId, teacherId)).orderBy(passkeys.createdAt);
}

export async function findPasskey(db: Database, id: string): Promise<Passkey | undefined> {
  return (await db.select().from(passkeys).where(eq(passkeys.id, id)).limit(1))[0];
}

export async function addPasskey(db: Database, passkey: Passkey): Promise<void> {
  await db.insert(passkeys).values(passkey);
}

export async function countPasskeyUse(db: Database, id: string, counter: number): Promise<void> {
  await db.update(passkeys).set({ counter }).where(eq(passkeys.id, id));
}

/** @returns whether there was such a one */
export async function removePasskey(db: Database, teacherId: string, id: string): Promise<boolean> {
  const [{ affectedRows }] = await db
    .delete(passkeys)
    .where(and(eq(passkeys.id, id), eq(passkeys.teacherId, teacherId)));
  return affectedRows > 0;
}

export async function removePasskeys(db: Database, teacherId: string): Promise<void> {
  await db.delete(passkeys).where(eq(passkeys.teacherId, teacherId));
}

export async function addChallenge(db: Database, challenge: typeof passkeyChallenges.$inferInsert): Promise<void> {
  await db.delete(passkeyChallenges).where(lt(passkeyChallenges.expiresAt, Date.now()));
  await db.insert(passkeyChallenges).values(challenge);
}

/** Takes a challenge that has not run out: it is good for one answer. */
export async function takeChallenge(db: Database, id: string) {
  const [found] = await db
    .select()
    .from(passkeyChallenges)
    .where(and(eq(passkeyChallenges.id, id), gt(passkeyChallenges.expiresAt, Date.now())))
    .limit(1);
  const [{ affectedRows }] = await db.delete(passkeyChallenges).where(eq(passkeyChallenges.id, id));
  return affectedRows > 0 ? found : undefined;
}
