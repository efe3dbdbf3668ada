import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { JudgingPreview, JudgingTrial, RejudgingState } from '../../contract/judging.ts';
import type { ClassDetail, ClassSettings, ClassSummary } from '../../contract/schoolClass.ts';
import { type Database, atOneMoment, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { listChildren } from '../repository/children.ts';
import {
  addClass,
  classFinder,
  classIdTaken,
  findClass,
  holdClass,
  listClasses,
  removeClass,
  updateClass,
} from '../repository/classes.ts';
import { findRejudging } from '../repository/rejudgings.ts';
import { listTakes } from '../repository/takes.ts';
import type { Resources } from '../resources.ts';
import { checkClassSettings } from './classSettings.ts';
import { judgesAlike, previewJudging } from './judging.ts';
import { askToRejudge, awaitRejudging, tellRejudging } from './rejudging.ts';

export interface ClassBody {
  readonly revision: string;
  /** A ClassDetail as JSON, in bytes ready to be sent; and the same, compressed. */
  readonly json: Buffer;
  readonly gzip: Buffer;
}

const MOST_KEPT = 200;

const compress = promisify<Buffer, Buffer>(gzip);

/**
 * Reads a class with its children and takes. What was read is kept under the class's revision, which every change makes
 * another one in the database itself, so that it is never older than the database, also with several servers, after a
 * class was deleted and made again, and after a backup was restored.
 */
export function classReader(db: Database): (teacherId: string, classId: string) => Promise<ClassBody> {
  const find = classFinder(db);
  const kept = new Map<string, ClassBody>();
  const reading = new Map<string, Promise<ClassBody>>();
  return async (teacherId, classId) => {
    const found = await find(teacherId, classId);
    if (!found) throw notFound('class');
    const before = kept.get(classId);
    if (before?.revision === found.revision) return before;
    const key = `${classId} ${found.revision}`;
    const read = async () => {
      const { revision, detail } = await readClass(db, teacherId, classId);
      const json = Buffer.from(JSON.stringify(detail));
      const body = { revision, json, gzip: await compress(json) };
      if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
      kept.set(classId, body);
      return body;
    };
    const running = reading.get(key) ?? read().finally(() => reading.delete(key));
    reading.set(key, running);
    return running;
  };
}

/** All of a class as it was at one moment. */
async function readClass(db: Database, teacherId: string, classId: string) {
  return atOneMoment(db, async (inside) => {
    const found = await findClass(inside, teacherId, classId);
    if (!found) throw notFound('class');
    const { revision, judgingRevision: _judging, ...settings } = found;
    const children = await listChildren(inside, classId);
    const takes = await listTakes(inside, classId);
    const detail: ClassDetail = { ...settings, children, takes };
    return { revision, detail };
  });
}

export async function classesOf(db: Database, teacherId: string): Promise<ClassSummary[]> {
  return listClasses(db, teacherId);
}

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
      if (await classIdTaken(inside, classId)) throw notFound('class');
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

export async function dropClass(db: Database, teacherId: string, classId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId);
    await removeClass(inside, teacherId, classId);
  });
}
