import type { TakeDetail, TakeUpload } from '../../contract/take.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { findChild } from '../repository/children.ts';
import { findClass, touchClass } from '../repository/classes.ts';
import { findPattern } from '../repository/patterns.ts';
import { addTake, findTake, updateJudgement } from '../repository/takes.ts';
import { judgement } from './judging.ts';

/** A take of one of the teacher's children, as it goes out. */
export async function takeOf(
  db: Database,
  teacherId: string,
  takeId: string,
): Promise<TakeDetail & { classId: string }> {
  const take = await findTake(db, teacherId, takeId);
  if (!take) throw notFound('take');
  return {
    ...take,
    onsets: [...take.onsets],
    feet: take.feet && [...take.feet],
    releases: take.releases && [...take.releases],
    recordingUntil: take.recordingUntil !== null && take.recordingUntil > Date.now() ? take.recordingUntil : null,
  };
}

async function roomOf(db: Database, teacherId: string, classId: string) {
  const found = await findClass(db, teacherId, classId);
  if (!found) throw notFound('class');
  return found;
}

/**
 * Judges a take from its onsets and stores it. Sent twice it is stored once, and the first one is the answer.
 * A pattern that was removed meanwhile does not lose the take: it carries its own text.
 */
export async function storeTake(
  db: Database,
  teacherId: string,
  takeId: string,
  upload: TakeUpload,
): Promise<TakeDetail> {
  const child = await findChild(db, teacherId, upload.childId);
  if (!child) throw notFound('child');
  const { free = false, source = 'tap' } = upload;
  const judged = judgement(await roomOf(db, teacherId, child.classId), { ...upload, free });
  const known = upload.patternId === null ? undefined : await findPattern(db, teacherId, upload.patternId);
  await addTake(db, child.classId, { ...upload, ...judged, id: takeId, patternId: known?.id ?? null, free, source });
  return takeOf(db, teacherId, takeId);
}

/** Judges a take anew from onsets that were put right by hand; it is marked as corrected. */
export async function correctTake(
  db: Database,
  teacherId: string,
  takeId: string,
  onsets: readonly number[],
): Promise<TakeDetail> {
  const take = await takeOf(db, teacherId, takeId);
  // A clap that stays keeps its release; when an added one was let go nobody knows.
  const releases = take.releases && onsets.map((time) => take.releases?.[take.onsets.indexOf(time)] ?? null);
  const judged = judgement(await roomOf(db, teacherId, take.classId), { ...take, onsets, releases });
  await updateJudgement(db, takeId, { ...judged, onsets, releases, corrected: true });
  await touchClass(db, take.classId);
  return takeOf(db, teacherId, takeId);
}
