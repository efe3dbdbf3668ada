import type { JudgingPreview, JudgingTrial, RejudgingState } from '../../contract/judging.ts';
import type { ClassDetail, ClassSettings, ClassSummary } from '../../contract/schoolClass.ts';
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
import { findRejudging } from '../repository/rejudgings.ts';
import type { Resources } from '../resources.ts';
import { checkClassSettings } from './classSettings.ts';
import { judgesAlike, previewJudging } from './judging.ts';
import { askToRejudge, awaitRejudging, tellRejudging } from './rejudging.ts';

/** A class of the teacher's with its children, as it was at one moment. */
export async function classDetail(db: Database, teacherId: string, classId: string): Promise<ClassDetail> {
  return atOneMoment(db, async (inside) => {
    const { revision: _revision, judgingRevision: _judging, ...settings } = await classOf(inside, teacherId, classId);
    return { ...settings, children: await listChildren(inside, classId) };
  });
}

export async function classesOf(db: Database, teacherId: string): Promise<ClassSummary[]> {
  return listClasses(db, teacherId);
}

const IN_BIN = new Problem(409, 'in-bin', 'This class is in the bin. Take it out again under Classes, Bin.');

/** A class of the teacher's; one of another is not found. */
export async function classOf(db: Database, teacherId: string, classId: string) {
  const found = await findClass(db, teacherId, classId);
  if (!found) throw notFound('class');
  return found;
}

/**
 * Makes or changes a class. Where what is on time, or what a mark needs, is another now, every take is to be judged
 * anew from its onsets: that is written in the same transaction, so that it is done whatever happens to this server.
 */
export async function saveClass(
  db: Database,
  teacherId: string,
  classId: string,
  values: ClassSettings,
): Promise<'made' | 'changed'> {
  checkClassSettings(values);
  const { done, rejudge } = await transacted(db, async (inside) => {
    await holdClass(inside, teacherId, classId);
    const known = await findClass(inside, teacherId, classId);
    if (!known) {
      if (await classIdTaken(inside, classId))
        throw (await inBin(inside, teacherId, 'class', classId)) ? IN_BIN : notFound('class');
      await addClass(inside, teacherId, classId, values);
      return { done: 'made' as const, rejudge: false };
    }
    const rejudge = !judgesAlike(known, values);
    const judgingRevision = known.judgingRevision + (rejudge ? 1 : 0);
    await updateClass(inside, teacherId, classId, { ...values, judgingRevision });
    if (rejudge) await askToRejudge(inside, classId, judgingRevision);
    return { done: 'changed' as const, rejudge };
  });
  if (rejudge) {
    tellRejudging();
    await awaitRejudging(db, classId);
  }
  return done;
}

/** How the marks would change if the class judged so. */
export async function tryJudging(
  resources: Resources,
  teacherId: string,
  classId: string,
  trial: JudgingTrial,
): Promise<JudgingPreview> {
  const known = await classOf(resources.db, teacherId, classId);
  checkClassSettings({ ...known, borders: trial.borders });
  return previewJudging(resources, teacherId, classId, known, trial);
}

/** How far the marks of a class are that are being worked out anew. */
export async function rejudgingOf(db: Database, teacherId: string, classId: string): Promise<RejudgingState> {
  await classOf(db, teacherId, classId);
  const job = await findRejudging(db, classId);
  return job ? { running: true, done: Math.min(job.done, job.total), total: job.total } : { running: false };
}

/** Into the bin, with its children and all their takes. */
export async function dropClass(db: Database, teacherId: string, classId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId);
    await binClass(inside, classId, Date.now());
  });
}
