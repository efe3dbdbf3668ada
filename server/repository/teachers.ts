import type { Language } from '../../core/words/say.ts';
import { and, asc, desc, eq, gt, lt, ne, sql } from 'drizzle-orm';
import { FIRST_SCHOOL } from '../../contract/school.ts';
import type { Teacher } from '../../contract/session.ts';
import type { Database } from '../database.ts';
import {
  knownDevices,
  members,
  passkeyChallenges,
  passkeys,
  passwordResets,
  schools,
  sessions,
  teachers,
} from '../schema.ts';
import { addMember } from './schools.ts';

/** A teacher as those at the door need her, by the name she has at a school. */
export async function findTeacherByName(db: Database, name: string, schoolId: string = FIRST_SCHOOL) {
  const { id, passwordHash, language } = teachers;
  const [row] = await db
    .select({ id, name: members.name, passwordHash, language })
    .from(members)
    .innerJoin(teachers, eq(teachers.id, members.teacherId))
    .where(and(eq(members.schoolId, schoolId), eq(members.name, name)))
    .limit(1);
  return row;
}

export async function findTeacherById(db: Database, teacherId: string) {
  const [row] = await db.select().from(teachers).where(eq(teachers.id, teacherId)).limit(1);
  return row;
}

/** An account, at one school. */
export async function addTeacher(
  db: Database,
  { school = FIRST_SCHOOL, administrator = false, ...teacher }: NewAccount,
): Promise<void> {
  const { id, name, passwordHash, language } = teacher;
  await db.insert(teachers).values({ id, name, passwordHash, language: language ?? null });
  await addMember(db, { schoolId: school, teacherId: id, name, administrator });
}

interface NewAccount {
  readonly id: string;
  readonly name: string;
  readonly passwordHash: string;
  readonly language?: Language | null;
  /** Where; the school that there always is, if none is said. */
  readonly school?: string;
  readonly administrator?: boolean;
}

/** The schools at which a teacher is, by name. */
const ownSchools = {
  schoolId: members.schoolId,
  school: schools.name,
  as: members.name,
  administrator: members.administrator,
};

function asTeacher(rows: readonly SchoolRow[]): Teacher | undefined {
  const [first] = rows;
  if (!first) return undefined;
  const own = rows.map(({ schoolId, school, as, administrator }) => ({
    id: schoolId,
    name: school,
    as,
    administrator,
  }));
  return { id: first.id, name: first.name, language: first.language, schools: own };
}
interface SchoolRow {
  readonly id: string;
  readonly name: string;
  readonly language: Language | null;
  readonly schoolId: string;
  readonly school: string;
  readonly as: string;
  readonly administrator: boolean;
}

/** A teacher with the schools where she is; undefined where every school has closed her account. */
export async function teacherAtSchools(db: Database, teacherId: string): Promise<Teacher | undefined> {
  const rows = await db
    .select({ id: teachers.id, name: teachers.name, language: teachers.language, ...ownSchools })
    .from(teachers)
    .innerJoin(members, and(eq(members.teacherId, teachers.id), eq(members.closed, false)))
    .innerJoin(schools, eq(schools.id, members.schoolId))
    .where(eq(teachers.id, teacherId))
    .orderBy(asc(schools.name));
  return asTeacher(rows);
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
    .select({ id: teachers.id, name: teachers.name, language: teachers.language, ...ownSchools })
    .from(sessions)
    .innerJoin(teachers, eq(teachers.id, sessions.teacherId))
    .innerJoin(members, and(eq(members.teacherId, teachers.id), eq(members.closed, false)))
    .innerJoin(schools, eq(schools.id, members.schoolId))
    .where(and(eq(sessions.tokenHash, sql.placeholder('tokenHash')), gt(sessions.expiresAt, sql.placeholder('now'))))
    .orderBy(asc(schools.name))
    .prepare();
  return async (tokenHash: string) => asTeacher(await query.execute({ tokenHash, now: Date.now() }));
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
