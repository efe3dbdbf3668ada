import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { JudgingPreview, JudgingTrial } from '../../contract/judging.ts';
import type { ClassDetail, ClassSettings, ClassSummary } from '../../contract/schoolClass.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { listChildren } from '../repository/children.ts';
import {
  addClass,
  classFinder,
  classIdTaken,
  findClass,
  listClasses,
  removeClass,
  updateClass,
} from '../repository/classes.ts';
import { listTakes } from '../repository/takes.ts';
import { checkClassSettings } from './classSettings.ts';
import { judgesAlike, previewJudging, rejudgeClass } from './judging.ts';

export interface ClassBody {
  readonly revision: number;
  /** A ClassDetail as JSON, in bytes ready to be sent; and the same, compressed. */
  readonly json: Buffer;
  readonly gzip: Buffer;
}

const MOST_KEPT = 200;

const compress = promisify<Buffer, Buffer>(gzip);

/**
 * Reads a class with its children and takes. What was read is kept under the class's revision, which every change
 * raises in the database itself, so that it is never older than the database, also with several servers.
 */
export function classReader(db: Database): (teacherId: string, classId: string) => Promise<ClassBody> {
  const find = classFinder(db);
  const kept = new Map<string, ClassBody>();
  const reading = new Map<string, Promise<ClassBody>>();
  return async (teacherId, classId) => {
    const found = await find(teacherId, classId);
    if (!found) throw notFound('class');
    const { revision, ...settings } = found;
    const before = kept.get(classId);
    if (before?.revision === revision) return before;
    const key = `${classId} ${revision}`;
    const read = async () => {
      const [children, takes] = await Promise.all([listChildren(db, classId), listTakes(db, classId)]);
      const detail: ClassDetail = { ...settings, children, takes };
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
 * Makes or changes a class. Where what is on time, or what a mark needs, is another now, every take is judged anew from
 * its onsets in the same transaction: settings and marks always belong together.
 */
export async function saveClass(
  db: Database,
  teacherId: string,
  classId: string,
  values: ClassSettings,
): Promise<'made' | 'changed'> {
  checkClassSettings(values);
  return db.transaction(async (tx) => {
    const inside = tx as unknown as Database;
    const known = await findClass(inside, teacherId, classId);
    if (!known) {
      if (await classIdTaken(inside, classId)) throw notFound('class');
      await addClass(inside, teacherId, classId, values);
      return 'made';
    }
    await updateClass(inside, teacherId, classId, values);
    if (!judgesAlike(known, values)) await rejudgeClass(inside, classId, values);
    return 'changed';
  });
}

/** How the marks would change if the class judged so. */
export async function tryJudging(
  db: Database,
  teacherId: string,
  classId: string,
  trial: JudgingTrial,
): Promise<JudgingPreview> {
  const known = await classOf(db, teacherId, classId);
  checkClassSettings({ ...known, borders: trial.borders });
  return previewJudging(db, classId, known, trial);
}

export async function dropClass(db: Database, teacherId: string, classId: string): Promise<void> {
  await classOf(db, teacherId, classId);
  await removeClass(db, teacherId, classId);
}
