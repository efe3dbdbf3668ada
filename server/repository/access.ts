import { union } from 'drizzle-orm/mysql-core';
import { type Placeholder, type SQL, and, asc, eq, sql } from 'drizzle-orm';
import type { Role } from '../../contract/schoolClass.ts';
import type { Share, ShareEdit } from '../../contract/sharing.ts';
import type { Database } from '../database.ts';
import { classShares, classes, members } from '../schema.ts';

/**
 * Is she still at the school of a class? Of a question that has `members` and `classes` in it. By the names of the
 * tables, which drizzle leaves out where a question is of one table.
 */
const isAtSchoolOf = (teacherId: string | Placeholder) =>
  sql`members.school_id = classes.school_id and members.teacher_id = ${teacherId} and not members.closed`;

/** Is a class a teacher's own, and she still at its school? Of a question that has `classes` in it. */
export const isOwn = (teacherId: string) =>
  and(eq(classes.teacherId, teacherId), sql`exists (select 1 from ${members} where ${isAtSchoolOf(teacherId)})`);

/** What a teacher may do, of a question that has `classes` in it: null where the class is nothing to her. */
export function roleOf(teacherId: string | Placeholder): SQL<Role | null> {
  const shared = sql`(select class_shares.role from ${classShares}
    where class_shares.class_id = classes.id and class_shares.teacher_id = ${teacherId})`;
  return sql<Role | null>`(select if(classes.teacher_id = ${teacherId}, 'owner', ${shared}) from ${members}
    where ${isAtSchoolOf(teacherId)})`;
}

/** Whose class it is, by name at its school; of the same question. */
export const ownerName = sql<string>`(select members.name from ${members}
  where members.school_id = classes.school_id and members.teacher_id = classes.teacher_id)`;

/** A row of such a question; undefined where the class is nothing to the teacher. */
export function reached<Row extends { readonly role: Role | null }>(
  row: Row | undefined,
): (Row & { readonly role: Role }) | undefined {
  return row && row.role !== null ? { ...row, role: row.role } : undefined;
}

export async function listShares(db: Database, classId: string): Promise<Share[]> {
  return db
    .select({ teacherId: members.teacherId, name: members.name, role: classShares.role })
    .from(classShares)
    .innerJoin(classes, eq(classes.id, classShares.classId))
    .innerJoin(members, and(eq(members.schoolId, classes.schoolId), eq(members.teacherId, classShares.teacherId)))
    .where(eq(classShares.classId, classId))
    .orderBy(asc(members.name));
}

/** The classes others share with a teacher. */
export async function sharedWith(db: Database, teacherId: string): Promise<string[]> {
  const rows = await db
    .select({ classId: classShares.classId })
    .from(classShares)
    .where(eq(classShares.teacherId, teacherId));
  return rows.map(({ classId }) => classId);
}

/** Whose class it is, and with whom it is shared; a part of another question. */
export function teachersOf(db: Database, classId: string) {
  const owner = db.select({ id: classes.teacherId }).from(classes).where(eq(classes.id, classId));
  const shared = db.select({ id: classShares.teacherId }).from(classShares).where(eq(classShares.classId, classId));
  return union(owner, shared);
}

export async function putShare(
  db: Database,
  classId: string,
  teacherId: string,
  role: ShareEdit['role'],
): Promise<void> {
  await db.insert(classShares).values({ classId, teacherId, role }).onDuplicateKeyUpdate({ set: { role } });
}

/** @returns whether there was one */
export async function removeShare(db: Database, classId: string, teacherId: string): Promise<boolean> {
  const [{ affectedRows }] = await db
    .delete(classShares)
    .where(and(eq(classShares.classId, classId), eq(classShares.teacherId, teacherId)));
  return affectedRows > 0;
}
