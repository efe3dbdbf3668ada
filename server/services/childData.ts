import { CHILD_FILE, type ChildErased, type ChildFile } from '../../contract/childData.ts';
import type { Teacher } from '../../contract/session.ts';
import { type Database, atOneMoment, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { eraseChild, everythingOf, takeIdsOf, tracesOf } from '../repository/childData.ts';
import { findChild } from '../repository/children.ts';
import { findSchool } from '../repository/schools.ts';
import { classOf } from './classes.ts';

/** A child of a class that is the teacher's own. */
export async function ownChild(db: Database, teacher: Teacher, classId: string, childId: string) {
  const found = await classOf(db, teacher.id, classId, 'owner');
  const child = await findChild(db, teacher.id, childId);
  if (child?.classId !== classId) throw notFound('child');
  return { child, className: found.name, schoolId: found.schoolId };
}

/** Everything of a child in one file, for whoever may ask for it. */
export async function childFile(db: Database, teacher: Teacher, classId: string, childId: string): Promise<ChildFile> {
  return atOneMoment(db, async (inside) => {
    const { child, className, schoolId } = await ownChild(inside, teacher, classId, childId);
    const school = (await findSchool(inside, schoolId))?.name ?? '';
    const tables = await everythingOf(inside, childId);
    return { kind: CHILD_FILE, version: 1, savedAt: Date.now(), school, class: className, name: child.name, tables };
  });
}

/** Deletes everything of a child, by no way of the bin, and then looks through all there is for it. */
export async function deleteEverything(
  db: Database,
  teacher: Teacher,
  classId: string,
  childId: string,
): Promise<ChildErased> {
  const { child, schoolId } = await ownChild(db, teacher, classId, childId);
  const ids = { child: childId, takes: await takeIdsOf(db, childId) };
  const before = await tracesOf(db, schoolId, ids);
  await transacted(db, async (inside) => {
    await ownChild(inside, teacher, classId, childId);
    await eraseChild(inside, childId);
  });
  const after = await tracesOf(db, schoolId, ids);
  const tables = [...after].map(([table, n]) => ({ table, before: before.get(table) ?? 0, after: n }));
  return { name: child.name, at: Date.now(), tables };
}
