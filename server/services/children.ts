import type { Child } from '../../contract/child.ts';
import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { addChild, childIdTaken, findChild, removeChild, renameChild } from '../repository/children.ts';
import { classOf } from './classes.ts';

/** A child of this class of the teacher's. */
export async function childOf(db: Database, teacherId: string, classId: string, childId: string) {
  const child = await findChild(db, teacherId, childId);
  if (!child || child.classId !== classId) throw notFound('child');
  return child;
}

/** Adds a child to a class, or gives it another name. */
export async function saveChild(
  db: Database,
  teacherId: string,
  classId: string,
  child: Child,
): Promise<'made' | 'changed'> {
  return transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId);
    const known = await findChild(inside, teacherId, child.id);
    if (known ? known.classId !== classId : await childIdTaken(inside, child.id)) throw notFound('child');
    await (known ? renameChild : addChild)(inside, classId, child);
    return known ? 'changed' : 'made';
  });
}

export async function dropChild(db: Database, teacherId: string, classId: string, childId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await childOf(inside, teacherId, classId, childId);
    await removeChild(inside, classId, childId);
  });
}
