import type { TakeDetail, TakeUpload } from '../../contract/take.ts';
import { judge } from '../../core/judging/judge.ts';
import { windowsFor } from '../../core/judging/windows.ts';
import type { Database } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { findChild } from '../repository/children.ts';
import { findPattern } from '../repository/patterns.ts';
import { addTake, findTake } from '../repository/takes.ts';
import { readPatternText } from './patternText.ts';

/** A take of one of the teacher's children, as it goes out. */
export async function takeOf(db: Database, teacherId: string, takeId: string): Promise<TakeDetail & { classId: string }> {
  const take = await findTake(db, teacherId, takeId);
  if (!take) throw notFound('take');
  return { ...take, onsets: [...take.onsets] };
}

/**
 * Judges a take from its onsets and stores it. Sent twice it is stored once, and the first one is the answer.
 * A pattern that was removed meanwhile does not lose the take: it carries its own text.
 */
export async function storeTake(db: Database, teacherId: string, takeId: string, upload: TakeUpload): Promise<TakeDetail> {
  const child = await findChild(db, teacherId, upload.childId);
  if (!child) throw notFound('child');
  const pattern = readPatternText(upload.patternText, 'patternText');
  const windows = windowsFor(child.ages);
  const judged = judge({ pattern, bpm: upload.bpm, onsets: upload.onsets, windows });
  if (!judged.ok) throw new Problem(422, 'not-judged', `This take cannot be judged: ${judged.reason}.`);
  const { result } = judged;
  const known = upload.patternId === null ? undefined : await findPattern(db, teacherId, upload.patternId);
  await addTake(db, child.classId, {
    ...upload,
    id: takeId,
    patternId: known?.id ?? null,
    ages: child.ages,
    windows,
    accuracy: result.accuracy,
    mark: result.mark,
    result: structuredClone(result) as TakeDetail['result'],
  });
  return takeOf(db, teacherId, takeId);
}
