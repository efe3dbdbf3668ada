import { and, count, desc, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import type { Binned } from '../../contract/bin.ts';
import type { Database } from '../database.ts';
import { children, classes } from '../schema.ts';
import { removeSoundsOf } from './recordings.ts';

export type BinKind = Binned['kind'];
type Whole = 'class' | 'child';

/** What a teacher has put into the bin, newest first; a class with its children is one thing. */
export async function listBin(db: Database, teacherId: string): Promise<Binned[]> {
  const ofTeacher = eq(classes.teacherId, teacherId);
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
      .where(and(eq(classes.id, id), eq(classes.teacherId, teacherId), isNotNull(classes.binnedAt)));
    return row;
  }
  const [row] = await db
    .select({ classId: classes.id })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(eq(children.id, id), eq(classes.teacherId, teacherId), isNotNull(children.binnedAt)));
  return row;
}

/** Really gone, with takes and their sound. */
export async function removeForGood(db: Database, kind: Whole, id: string): Promise<void> {
  if (kind === 'class') await db.delete(classes).where(eq(classes.id, id));
  else {
    await removeSoundsOf(db, id);
    await db.delete(children).where(eq(children.id, id));
  }
}

/** What has lain in the bin since before a moment, some at a time. */
export async function binnedBefore(
  db: Database,
  moment: number,
  most: number,
): Promise<{ readonly kind: Whole; readonly id: string }[]> {
  const kids = await db.select({ id: children.id }).from(children).where(lt(children.binnedAt, moment)).limit(most);
  if (kids.length > 0) return kids.map(({ id }) => ({ kind: 'child', id }));
  // A class only when its children are gone: many takes at once would hold up everybody.
  const [room] = await db.select({ id: classes.id }).from(classes).where(lt(classes.binnedAt, moment)).limit(1);
  if (!room) return [];
  const inside = await db.select({ id: children.id }).from(children).where(eq(children.classId, room.id)).limit(most);
  return inside.length > 0 ? inside.map(({ id }) => ({ kind: 'child', id })) : [{ kind: 'class', id: room.id }];
}
