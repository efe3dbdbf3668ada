import { perLanguage, t } from '../../core/words/say.ts';
import type { JudgingPreview, JudgingTrial, RejudgingState } from '../../contract/judging.ts';
import type { ClassDetail, ClassSettings, ClassSummary, Role } from '../../contract/schoolClass.ts';
import type { Teacher } from '../../contract/session.ts';
import { type Database, atOneMoment, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { inBin } from '../repository/bin.ts';
import { listChildren } from '../repository/children.ts';
import {
  addClass,
  binClass,
  classIdTaken,
  findClass,
  holdClass,
  listClasses,
  updateClass,
} from '../repository/classes.ts';
import { carryMarks } from '../repository/scales.ts';
import type { JudgingBefore } from '../schema.ts';
import { endRejudging, findRejudging } from '../repository/rejudgings.ts';
import type { Resources } from '../resources.ts';
import { demand } from './access.ts';
import { teacherAt } from './schools.ts';
import { checkClassSettings } from './classSettings.ts';
import { judgesAlike, previewJudging } from './judging.ts';
import { merged } from './merge.ts';
import { askToRejudge, awaitRejudging, tellRejudging } from './rejudging.ts';

/** A class of the teacher's with its children, as it was at one moment. */
export async function classDetail(db: Database, teacherId: string, classId: string): Promise<ClassDetail> {
  return atOneMoment(db, async (inside) => {
    const found = await classOf(inside, teacherId, classId, 'look');
    const { revision: _revision, judgingRevision: _judging, termFrom: _term, ...settings } = found;
    return { ...settings, children: await listChildren(inside, classId) };
  });
}

export async function classesOf(db: Database, teacherId: string): Promise<ClassSummary[]> {
  return listClasses(db, teacherId);
}

const IN_BIN = perLanguage(
  () => new Problem(409, 'in-bin', t`This class is in the bin. Take it out again under Classes, Bin.`),
);

/** A class in which the teacher may do so much; one that is nothing to her is not found. */
export async function classOf(db: Database, teacherId: string, classId: string, needed: Role) {
  const found = await findClass(db, teacherId, classId);
  if (!found) throw notFound('class');
  demand(found.role, needed);
  return found;
}

/**
 * Makes or changes a class. Where what is on time, or what a mark needs, is another now, every take is to be judged
 * anew from its onsets: that is written in the same transaction, so that it is done whatever happens to this server.
 * @param at  the school of a new one; the first of the teacher's if none is said. A class stays at its school
 */
export async function saveClass(
  db: Database,
  teacher: Teacher,
  classId: string,
  { wanted, was }: { readonly wanted: ClassSettings; readonly was?: ClassSettings | undefined },
  at?: string,
): Promise<{ readonly done: 'made' | 'changed'; readonly values: ClassSettings }> {
  checkClassSettings(wanted);
  const teacherId = teacher.id;
  const { rejudge, ...saved } = await transacted(db, async (inside) => {
    await holdClass(inside, classId);
    const known = await findClass(inside, teacherId, classId);
    if (!known) {
      if (await classIdTaken(inside, classId))
        throw (await inBin(inside, teacherId, 'class', classId)) ? IN_BIN() : notFound('class');
      const schoolId = at === undefined ? teacher.schools[0]!.id : teacherAt(teacher, at).id;
      await addClass(inside, { id: teacherId, schoolId }, classId, wanted);
      return { done: 'made' as const, values: wanted, rejudge: false };
    }
    demand(known.role, 'owner');
    const values = merged(was, settingsIn(known), wanted);
    checkClassSettings(values);
    const rejudge = !judgesAlike(known, values);
    const judgingRevision = known.judgingRevision + (rejudge ? 1 : 0);
    await updateClass(inside, classId, { ...values, judgingRevision });
    await carryMarks(inside, classId, known.scale, values.scale === undefined ? known.scale : values.scale);
    if (rejudge) await askToRejudge(inside, classId, judgingRevision, judgingBefore(known));
    return { done: 'changed' as const, values, rejudge };
  });
  if (rejudge) {
    tellRejudging();
    await awaitRejudging(db, classId);
  }
  return saved;
}

/** Of a class as it is read, what its teacher sets. */
export function settingsIn(found: Awaited<ReturnType<typeof classOf>>) {
  const { id: _id, revision: _r, judgingRevision: _j, role: _role, owner: _owner, termFrom: _t, ...more } = found;
  const { schoolId: _school, ...settings } = more;
  return settings;
}

/** What decides how a class judges. */
const judgingBefore = ({ ages, onTimeMs, borders, scale, clickCounts }: JudgingBefore): JudgingBefore => ({
  ages,
  onTimeMs,
  borders,
  scale: scale ?? null,
  clickCounts,
});

/**
 * Breaks off the working out of marks anew: the class judges as before, and marks that are another already are worked
 * out once more.
 */
export async function cancelRejudging(db: Database, teacherId: string, classId: string): Promise<void> {
  const cancelled = await transacted(db, async (inside) => {
    await holdClass(inside, classId);
    const known = await classOf(inside, teacherId, classId, 'owner');
    const job = await findRejudging(inside, classId);
    if (!job) return false;
    if (!job.before) throw new Problem(409, 'not-cancelled', t`This cannot be broken off. It is done in a moment.`);
    const judgingRevision = known.judgingRevision + 1;
    const { borders } = job.before;
    const before = { ...settingsIn(known), ...job.before, borders: borders && [...borders] };
    await updateClass(inside, classId, { ...before, judgingRevision });
    await carryMarks(inside, classId, known.scale, before.scale);
    await endRejudging(inside, job);
    await askToRejudge(inside, classId, judgingRevision, null);
    return true;
  });
  if (cancelled) tellRejudging();
}

/** How the marks would change if the class judged so. */
export async function tryJudging(
  resources: Resources,
  teacherId: string,
  classId: string,
  trial: JudgingTrial,
): Promise<JudgingPreview> {
  const known = await classOf(resources.db, teacherId, classId, 'owner');
  const { borders, scale = known.scale } = trial;
  checkClassSettings({ ...known, borders, scale });
  return previewJudging(resources, teacherId, classId, known, trial);
}

/** How far the marks of a class are that are being worked out anew. */
export async function rejudgingOf(db: Database, teacherId: string, classId: string): Promise<RejudgingState> {
  await classOf(db, teacherId, classId, 'look');
  const job = await findRejudging(db, classId);
  return job
    ? { running: true, done: Math.min(job.done, job.total), total: job.total, cancels: job.before !== null }
    : { running: false };
}

/** Into the bin, with its children and all their takes. */
export async function dropClass(db: Database, teacherId: string, classId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'owner');
    await binClass(inside, classId, Date.now());
  });
}
