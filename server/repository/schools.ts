import { and, asc, count, eq, gt, lt, sql } from 'drizzle-orm';
import { FIRST_SCHOOL, type Invitation, KEPT_FOR_EVER, type School, type SchoolSign } from '../../contract/school.ts';
import type { StaffMember } from '../../contract/staff.ts';
import type { Database } from '../database.ts';
import { classes, invitations, members, schools, teachers } from '../schema.ts';

/** All schools, by name. */
export async function listSchools(db: Database): Promise<SchoolSign[]> {
  return db.select({ id: schools.id, name: schools.name }).from(schools).orderBy(asc(schools.name));
}

export async function findSchool(db: Database, schoolId: string): Promise<School | undefined> {
  const { id, name, zone, language, retention, retentionFrom } = schools;
  const [row] = await db
    .select({ id, name, zone, language, retention, retentionFrom })
    .from(schools)
    .where(eq(schools.id, schoolId))
    .limit(1);
  return row;
}

/** Waits until nobody else changes the school; for the start of a transaction that does. */
export async function holdSchool(db: Database, schoolId: string): Promise<void> {
  await db.select({ id: schools.id }).from(schools).where(eq(schools.id, schoolId)).for('update');
}

export async function schoolNamed(db: Database, name: string): Promise<SchoolSign | undefined> {
  const [row] = await db
    .select({ id: schools.id, name: schools.name })
    .from(schools)
    .where(eq(schools.name, name))
    .limit(1);
  return row;
}

export async function addSchool(db: Database, { id, name }: SchoolSign, now: number): Promise<void> {
  await db.insert(schools).values({ id, name, retention: KEPT_FOR_EVER, createdAt: now });
}

export async function updateSchool(db: Database, { id, ...values }: School): Promise<void> {
  await db.update(schools).set(values).where(eq(schools.id, id));
}

const memberIs = (schoolId: string, teacherId: string) =>
  and(eq(members.schoolId, schoolId), eq(members.teacherId, teacherId));

/** How a teacher stands at a school; undefined for a stranger. */
export async function findMember(db: Database, schoolId: string, teacherId: string) {
  const [row] = await db.select().from(members).where(memberIs(schoolId, teacherId)).limit(1);
  return row;
}

/** Who has this name at a school. */
export async function memberNamed(db: Database, schoolId: string, name: string) {
  const [row] = await db
    .select()
    .from(members)
    .where(and(eq(members.schoolId, schoolId), eq(members.name, name)))
    .limit(1);
  return row;
}

export async function addMember(
  db: Database,
  member: { schoolId: string; teacherId: string; name: string; administrator?: boolean },
): Promise<void> {
  await db.insert(members).values({ ...member, since: Date.now() });
}

export async function closeMember(db: Database, schoolId: string, teacherId: string, closed: boolean): Promise<void> {
  await db.update(members).set({ closed }).where(memberIs(schoolId, teacherId));
}

export async function makeAdministrator(db: Database, schoolId: string, teacherId: string): Promise<void> {
  await db.update(members).set({ administrator: true }).where(memberIs(schoolId, teacherId));
}

/** At how many schools a teacher is, or was. */
export async function schoolsOf(db: Database, teacherId: string): Promise<number> {
  const [row] = await db.select({ n: count() }).from(members).where(eq(members.teacherId, teacherId));
  return row?.n ?? 0;
}

/** The accounts of a school, by name. */
export async function listMembers(db: Database, schoolId: string): Promise<StaffMember[]> {
  const { teacherId: id, name, administrator, closed, since: createdAt } = members;
  return db
    .select({ id, name, administrator, closed, createdAt })
    .from(members)
    .where(eq(members.schoolId, schoolId))
    .orderBy(asc(members.name));
}

/** Teachers whom a server of before has added are of the school that there was then. */
export async function adoptTeachers(db: Database): Promise<void> {
  await db.execute(sql`insert ignore into ${members} (school_id, teacher_id, name, administrator, closed, since)
    select ${FIRST_SCHOOL}, id, name, administrator, closed, unix_timestamp(created_at) * 1000 from ${teachers}
    where not exists (select 1 from ${members} where members.teacher_id = teachers.id)`);
}

export async function addInvitation(db: Database, invitation: typeof invitations.$inferInsert): Promise<void> {
  await db.delete(invitations).where(lt(invitations.expiresAt, invitation.madeAt));
  await db.insert(invitations).values(invitation);
}

/** Those that can still be used, newest first. */
export async function listInvitations(db: Database, schoolId: string, now: number): Promise<Invitation[]> {
  const { id, administrator, left, expiresAt } = invitations;
  return db
    .select({ id, administrator, left, expiresAt })
    .from(invitations)
    .where(and(eq(invitations.schoolId, schoolId), gt(invitations.expiresAt, now), gt(left, 0)))
    .orderBy(sql`${invitations.madeAt} desc`);
}

/** @returns whether there was one of this school */
export async function removeInvitation(db: Database, schoolId: string, id: string): Promise<boolean> {
  const [{ affectedRows }] = await db
    .delete(invitations)
    .where(and(eq(invitations.schoolId, schoolId), eq(invitations.id, id)));
  return affectedRows > 0;
}

const usable = (codeHash: string, now: number) =>
  and(eq(invitations.codeHash, codeHash), gt(invitations.expiresAt, now), gt(invitations.left, 0));

export async function findInvitation(db: Database, codeHash: string, now: number) {
  const { schoolId, administrator } = invitations;
  const [row] = await db.select({ schoolId, administrator }).from(invitations).where(usable(codeHash, now)).limit(1);
  return row;
}

/** One less may come in with it. @returns false where nobody may any more */
export async function countInvitation(db: Database, codeHash: string, now: number): Promise<boolean> {
  const [{ affectedRows }] = await db
    .update(invitations)
    .set({ left: sql`${invitations.left} - 1` })
    .where(usable(codeHash, now));
  return affectedRows > 0;
}

/** How much there is at each school, by name; for whoever runs the server. */
export async function countSchools(db: Database) {
  const at = sql`classes.school_id = schools.id and classes.binned_at is null`;
  const inClasses = (table: string) =>
    sql<number>`(select count(*) from ${sql.raw(table)} join ${classes} on classes.id = ${sql.raw(table)}.class_id
      where ${at})`;
  return db
    .select({
      name: schools.name,
      clearedNight: schools.clearedNight,
      teachers: sql<number>`(select count(*) from ${members}
        where members.school_id = schools.id and not members.closed)`,
      classes: sql<number>`(select count(*) from ${classes} where ${at})`,
      children: inClasses('children'),
      takes: inClasses('takes'),
    })
    .from(schools)
    .orderBy(asc(schools.name));
}
