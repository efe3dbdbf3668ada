import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { ClassDetail } from '../../contract/school.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { listChildren } from '../repository/children.ts';
import { classFinder } from '../repository/classes.ts';
import { listTakes } from '../repository/takes.ts';

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
