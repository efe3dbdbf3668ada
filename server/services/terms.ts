import { t } from '../../core/words/say.ts';
import { v5 as uuidFrom } from 'uuid';
import type { ClassMove, Term, TermDetail, TermEdit } from '../../contract/term.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { holdChild, rebuildRecords } from '../repository/childRecords.ts';
import { childIdsOf, findChild, listChildren } from '../repository/children.ts';
import { holdClass, raiseJudging, touchClass } from '../repository/classes.ts';
import { carryTakes } from '../repository/scales.ts';
import { addTerm, beginTerm, findTerm, listTerms, moveChild, movePaper, termIdTaken } from '../repository/terms.ts';
import { classOf } from './classes.ts';
import { readRecords } from './records.ts';

export async function termsOf(db: Database, teacherId: string, classId: string): Promise<Term[]> {
  await classOf(db, teacherId, classId, 'look');
  return listTerms(db, classId);
}

export async function termOf(db: Database, teacherId: string, classId: string, termId: string): Promise<TermDetail> {
  await classOf(db, teacherId, classId, 'look');
  const term = await findTerm(db, classId, termId);
  if (!term) throw notFound('term');
  return term;
}

/**
 * Closes a term: the grid is kept as it is, to be read later, and begins anew. What the children know and all their
 * takes stay. Sent twice it is closed once.
 */
export async function closeTerm(
  db: Database,
  teacherId: string,
  classId: string,
  termId: string,
  { title }: TermEdit,
): Promise<'made' | 'changed'> {
  const now = Date.now();
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    const { termFrom, scale } = await classOf(inside, teacherId, classId, 'owner');
    if (await findTerm(inside, classId, termId)) return 'changed';
    if (await termIdTaken(inside, termId)) throw notFound('term');
    const ids = await childIdsOf(inside, classId);
    // Nobody's take may come in between what is kept and what begins anew.
    for (const childId of ids) await holdChild(inside, childId);
    const { records } = await readRecords(inside, classId, now);
    const names = (await listChildren(inside, classId)).map(({ name }) => name);
    const span = { id: termId, title: title.trim(), fromAt: termFrom, untilAt: now };
    await addTerm(inside, classId, { ...span, names, records, scale });
    for (const childId of ids) await rebuildRecords(inside, childId);
    // A take that is being judged now is entered by what holds from here on.
    await raiseJudging(inside, classId);
    return 'made';
  });
}

/** So that sent again after a failure in the middle each column is there once. */
const columnIn = (to: string) => (columnId: string) => uuidFrom(columnId, to);

/** Puts children into another class of the teacher's, with their takes and marks. Sent twice it is done once. */
export async function moveChildren(
  db: Database,
  teacherId: string,
  classId: string,
  { to, children }: ClassMove,
): Promise<void> {
  if (to === classId) throw new Problem(422, 'bad-request', t`to: this is the class they are in.`, { field: 'to' });
  const { termFrom, scale, schoolId } = await classOf(db, teacherId, classId, 'owner');
  const there = await transacted(db, async (inside) => {
    await holdClass(inside, to);
    const target = await classOf(inside, teacherId, to, 'owner');
    if (target.schoolId !== schoolId)
      throw new Problem(
        422,
        'other-school',
        t`These classes are at different schools: what is known of a child stays at its school.`,
        {
          field: 'to',
        },
      );
    // A class that begins with these children goes on where they were: the terms they left behind stay closed.
    if ((await childIdsOf(inside, to)).length === 0 && target.termFrom < termFrom)
      await beginTerm(inside, to, termFrom);
    return target;
  });
  for (const childId of children)
    await transacted(db, async (inside) => {
      await holdChild(inside, childId);
      const child = await findChild(inside, teacherId, childId);
      if (child?.classId === to) return;
      if (child?.classId !== classId) throw notFound('child');
      await moveChild(inside, childId, classId, to);
      await movePaper(inside, [childId], to, columnIn(to));
      await carryTakes(inside, childId, scale, there.scale);
      await rebuildRecords(inside, childId);
      await touchClass(inside, classId);
      await touchClass(inside, to);
    });
}
