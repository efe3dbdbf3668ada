import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Child, ChildEdit } from '../../contract/child.ts';
import type { Database } from '../database.ts';
import { children, classes } from '../schema.ts';
import { reached, roleOf } from './access.ts';
import { touchClass } from './classes.ts';

/** Of a child that is asked for together with its class: neither of them is in the bin. */
export const outOfBin = and(isNull(children.binnedAt), isNull(classes.binnedAt));

/** In the order of the class list. */
export async function listChildren(db: Database, classId: string): Promise<Child[]> {
  return db
    .select({
      id: children.id,
      name: children.name,
      adaptations: children.adaptations,
      reportLine: children.reportLine,
    })
    .from(children)
    .where(and(eq(children.classId, classId), isNull(children.binnedAt)))
    .orderBy(asc(children.position), asc(children.name));
}

/** Also those in the bin, whose records are kept as they were. */
export async function childIdsOf(db: Database, classId: string): Promise<string[]> {
  const rows = await db.select({ id: children.id }).from(children).where(eq(children.classId, classId));
  return rows.map(({ id }) => id);
}

/** A child of a class that is the teacher's or shared with her, with what she may do. */
export async function findChild(db: Database, teacherId: string, childId: string) {
  const [row] = await db
    .select({
      id: children.id,
      name: children.name,
      classId: children.classId,
      adaptations: children.adaptations,
      reportLine: children.reportLine,
      role: roleOf(teacherId),
    })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(eq(children.id, childId), outOfBin))
    .limit(1);
  return reached(row);
}

export async function childIdTaken(db: Database, childId: string): Promise<boolean> {
  const rows = await db.select({ id: children.id }).from(children).where(eq(children.id, childId)).limit(1);
  return rows.length > 0;
}

const isOf = (classId: string, id: string) => and(eq(children.id, id), eq(children.classId, classId));

type Values = ChildEdit & { readonly id: string };

/** @param position  in the class list */
export async function addChild(db: Database, classId: string, child: Values, position: number): Promise<void> {
  await db.insert(children).values({ ...child, classId, position });
  await touchClass(db, classId);
}

export async function updateChild(db: Database, classId: string, { id, ...values }: Values): Promise<void> {
  await db.update(children).set(values).where(isOf(classId, id));
  await touchClass(db, classId);
}

/** Puts a child into the bin with its takes, or takes it out again. */
export async function binChild(db: Database, classId: string, childId: string, binnedAt: number | null): Promise<void> {
  await db.update(children).set({ binnedAt }).where(isOf(classId, childId));
  await touchClass(db, classId);
}
