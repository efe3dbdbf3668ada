import { and, count, desc, eq, isNotNull, isNull, lt, not, sql } from 'drizzle-orm';
import type { Binned } from '../../contract/bin.ts';
import type { Database } from '../database.ts';
import { children, classes } from '../schema.ts';
import { isOwn } from './access.ts';
import { eraseChild } from './childData.ts';

export type BinKind = Binned['kind'];
type Whole = 'class' | 'child';

/** What a teacher has put into the bin, newest first; a class with its children is one thing. */
export async function listBin(db: Database, teacherId: string): Promise<Binned[]> {
  const ofTeacher = isOwn(teacherId);
  const classRows = await db
    .select({ id: classes.id, name: classes.name, binnedAt: classes.binnedAt, children: count(children.id) })
    .from(classes)
    .leftJoin(children, and(eq(children.classId, classes.id), isNull(children.binnedAt)))
    .where(and(ofTeacher, isNotNull(classes.binnedAt)))
    .groupBy(classes.id);
  const childRows = await db
    .select({ id: children.id, name: children.name, binnedAt: children.binnedAt, className: classes.name })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(ofTeacher, isNull(classes.binnedAt), isNotNull(children.binnedAt)))
    .orderBy(desc(children.binnedAt));
  return [
    ...classRows.map((row) => ({ kind: 'class' as const, ...row, binnedAt: row.binnedAt! })),
    ...childRows.map((row) => ({ kind: 'child' as const, ...row, binnedAt: row.binnedAt! })),
  ].sort((a, b) => b.binnedAt - a.binnedAt);
}

/** Is this the teacher's, and in the bin? @returns its class */
export async function inBin(
  db: Database,
  teacherId: string,
  kind: Whole,
  id: string,
): Promise<{ readonly classId: string } | undefined> {
  if (kind === 'class') {
    const [row] = await db
      .select({ classId: classes.id })
      .from(classes)
      .where(and(eq(classes.id, id), isOwn(teacherId), isNotNull(classes.binnedAt)));
    return row;
  }
  const [row] = await db
    .select({ classId: classes.id })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(eq(children.id, id), isOwn(teacherId), isNotNull(children.binnedAt)));
  return row;
}

/** Really gone, with takes and their sound, and wherever else a child is named. */
export async function removeForGood(db: Database, kind: Whole, id: string): Promise<void> {
  if (kind === 'class') await db.delete(classes).where(eq(classes.id, id));
  else await eraseChild(db, id);
}

/** What has lain in the bin of a school since before a moment, some at a time; what a teacher holds stays. */
export async function binnedBefore(
  db: Database,
  schoolId: string,
  moment: number,
  most: number,
): Promise<{ readonly kind: Whole; readonly id: string }[]> {
  const free = and(eq(classes.schoolId, schoolId), isNull(classes.held));
  const kids = await db
    .select({ id: children.id })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(lt(children.binnedAt, moment), isNull(children.held), free))
    .limit(most);
  if (kids.length > 0) return kids.map(({ id }) => ({ kind: 'child', id }));
  // A class only when its children are gone: many takes at once would hold up everybody.
  const heldInside = sql`exists (select 1 from ${children} where children.class_id = classes.id
    and children.held is not null)`;
  const [room] = await db
    .select({ id: classes.id })
    .from(classes)
    .where(and(lt(classes.binnedAt, moment), free, not(heldInside)))
    .limit(1);
  if (!room) return [];
  const inside = await db.select({ id: children.id }).from(children).where(eq(children.classId, room.id)).limit(most);
  return inside.length > 0 ? inside.map(({ id }) => ({ kind: 'child', id })) : [{ kind: 'class', id: room.id }];
}
