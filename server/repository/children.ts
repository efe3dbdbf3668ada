import { and, asc, eq } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { children, classes } from '../schema.ts';
import { touchClass } from './classes.ts';
import type { Child } from '../../contract/child.ts';

export async function listChildren(db: Database, classId: string): Promise<Child[]> {
  return db
    .select({ id: children.id, name: children.name })
    .from(children)
    .where(eq(children.classId, classId))
    .orderBy(asc(children.name));
}

/** A child of one of the teacher's classes, with what judging needs of the class. */
export async function findChild(db: Database, teacherId: string, childId: string) {
  const [row] = await db
    .select({ id: children.id, classId: children.classId, ages: classes.ages })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(eq(children.id, childId), eq(classes.teacherId, teacherId)))
    .limit(1);
  return row;
}

export async function childIdTaken(db: Database, childId: string): Promise<boolean> {
  const rows = await db.select({ id: children.id }).from(children).where(eq(children.id, childId)).limit(1);
  return rows.length > 0;
}

export async function addChild(db: Database, classId: string, child: Child): Promise<void> {
  await db.insert(children).values({ ...child, classId });
  await touchClass(db, classId);
}

export async function renameChild(db: Database, classId: string, child: Child): Promise<void> {
  await db.update(children).set({ name: child.name }).where(eq(children.id, child.id));
  await touchClass(db, classId);
}

/** Takes the child's takes along. */
export async function removeChild(db: Database, classId: string, childId: string): Promise<void> {
  await db.delete(children).where(eq(children.id, childId));
  await touchClass(db, classId);
}
