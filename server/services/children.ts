import { perLanguage, t } from '../../core/words/say.ts';
import type { Child, ChildEdit } from '../../contract/child.ts';
import type { Role } from '../../contract/schoolClass.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { addChild, binChild, childIdTaken, findChild, updateChild } from '../repository/children.ts';
import { raiseJudging } from '../repository/classes.ts';
import { inBin } from '../repository/bin.ts';
import { demand } from './access.ts';
import { classOf } from './classes.ts';
import { merged } from './merge.ts';
import { askToRejudge, awaitRejudging, tellRejudging } from './rejudging.ts';

/** A child of this class, in which the teacher may do so much. */
export async function childOf(db: Database, teacherId: string, classId: string, childId: string, needed: Role) {
  const child = await findChild(db, teacherId, childId);
  if (!child || child.classId !== classId) throw notFound('child');
  demand(child.role, needed);
  return child;
}

const childEditOf = ({ name, adaptations, reportLine = '' }: Child): ChildEdit => ({ name, adaptations, reportLine });

const IN_BIN = perLanguage(
  () => new Problem(409, 'in-bin', t`This child is in the bin. Take it out again under Classes, Bin.`),
);

/** Adds a child to a class, or changes its name and what is made easier; other windows change its marks. */
export async function saveChild(
  db: Database,
  teacherId: string,
  classId: string,
  { id, ...wanted }: ChildEdit & { readonly id: string },
  was?: ChildEdit,
): Promise<{ readonly done: 'made' | 'changed'; readonly child: Child }> {
  const { rejudge, ...saved } = await transacted(db, async (inside) => {
    const settings = await classOf(inside, teacherId, classId, 'owner');
    const known = await findChild(inside, teacherId, id);
    if (known && known.classId !== classId) throw notFound('child');
    if (!known && (await childIdTaken(inside, id)))
      throw (await inBin(inside, teacherId, 'child', id)) ? IN_BIN() : notFound('child');
    const values = known ? merged(was, childEditOf(known), wanted) : wanted;
    if (known) await updateChild(inside, classId, { id, ...values });
    else await addChild(inside, classId, { id, ...values }, Date.now());
    const adaptations = values.adaptations === undefined ? (known?.adaptations ?? null) : values.adaptations;
    const rejudge = known !== undefined && known.adaptations?.wider !== adaptations?.wider;
    if (rejudge) {
      await raiseJudging(inside, classId);
      await askToRejudge(inside, classId, settings.judgingRevision + 1, null);
    }
    const done = known ? ('changed' as const) : ('made' as const);
    const reportLine = values.reportLine ?? known?.reportLine ?? '';
    return { done, child: { id, name: values.name, adaptations, reportLine }, rejudge };
  });
  if (rejudge) {
    tellRejudging();
    await awaitRejudging(db, classId);
  }
  return saved;
}

/** Into the bin, with all its takes. */
export async function dropChild(db: Database, teacherId: string, classId: string, childId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await childOf(inside, teacherId, classId, childId, 'owner');
    await binChild(inside, classId, childId, Date.now());
  });
}
