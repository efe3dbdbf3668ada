import { t } from '../../core/words/say.ts';
import type { Share, ShareEdit } from '../../contract/sharing.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { listShares, putShare, removeShare } from '../repository/access.ts';
import { touchClass } from '../repository/classes.ts';
import { findTeacherByName } from '../repository/teachers.ts';
import { classOf } from './classes.ts';

export async function sharesOf(db: Database, teacherId: string, classId: string): Promise<Share[]> {
  await classOf(db, teacherId, classId, 'owner');
  return listShares(db, classId);
}

/** Lets another teacher of this school see a class, or hear its children and give marks too. */
export async function shareClass(
  db: Database,
  teacherId: string,
  classId: string,
  { name, role }: ShareEdit,
): Promise<void> {
  await transacted(db, async (inside) => {
    const { schoolId } = await classOf(inside, teacherId, classId, 'owner');
    const other = await findTeacherByName(inside, name.trim(), schoolId);
    if (!other || other.id === teacherId)
      throw new Problem(
        422,
        'no-teacher',
        other
          ? t`This class is yours already.`
          : t`There is no teacher called ${name.trim()}. Write the name as they sign in.`,
        { field: 'name' },
      );
    await putShare(inside, classId, other.id, role);
    await touchClass(inside, classId);
  });
}

/** Taken back by whose class it is, or left by the one it is shared with. */
export async function endShare(db: Database, teacherId: string, classId: string, otherId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, otherId === teacherId ? 'look' : 'owner');
    if (!(await removeShare(inside, classId, otherId))) throw notFound('share');
    await touchClass(inside, classId);
  });
}
