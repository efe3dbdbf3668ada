import type { TakeDetail, TakeUpload } from '../../contract/take.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { findChild } from '../repository/children.ts';
import { touchClass } from '../repository/classes.ts';
import { findPattern } from '../repository/patterns.ts';
import { addTake, findTake, overrideMark, removeTake, updateJudgement } from '../repository/takes.ts';
import { classOf } from './classes.ts';
import { judgement, upToDate } from './judging.ts';

const pick = ({ result, accuracy, mark }: Pick<TakeDetail, 'result' | 'accuracy' | 'mark'>) => ({
  result,
  accuracy,
  mark,
});

/** A take of one of the teacher's children, as it goes out. */
export async function takeOf(
  db: Database,
  teacherId: string,
  takeId: string,
): Promise<TakeDetail & { classId: string }> {
  const take = await findTake(db, teacherId, takeId);
  if (!take) throw notFound('take');
  const {
    resultVersion: _version,
    onTimeMs: _onTime,
    borders: _borders,
    clickCounts: _click,
    naming: _naming,
    ...shown
  } = take;
  return {
    ...shown,
    ...pick(await upToDate(db, take)),
    onsets: [...take.onsets],
    feet: take.feet && [...take.feet],
    releases: take.releases && [...take.releases],
    recordingUntil: take.recordingUntil !== null && take.recordingUntil > Date.now() ? take.recordingUntil : null,
  };
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
  const judged = judgement(await classOf(db, teacherId, child.classId), { ...upload, free });
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
  const judged = judgement(await classOf(db, teacherId, take.classId), { ...take, onsets, releases });
  await updateJudgement(db, takeId, { ...judged, onsets, releases, corrected: true });
  await touchClass(db, take.classId);
  return takeOf(db, teacherId, takeId);
}

/** The teacher's own mark with her reason; null takes it back. */
export async function setOwnMark(
  db: Database,
  teacherId: string,
  takeId: string,
  mark: number | null,
  reason: string,
): Promise<TakeDetail> {
  const { classId, id } = await takeOf(db, teacherId, takeId);
  await overrideMark(db, classId, id, mark, mark === null ? '' : reason);
  return takeOf(db, teacherId, id);
}

export async function dropTake(db: Database, teacherId: string, takeId: string): Promise<void> {
  const { classId, id } = await takeOf(db, teacherId, takeId);
  await removeTake(db, classId, id);
}
