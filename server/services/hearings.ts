import type { Hearing, HearingEdit, TakesTogether } from '../../contract/together.ts';
import { laidOut } from '../../core/ensemble/laidOut.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { binRow } from '../repository/binnedRows.ts';
import { holdClass } from '../repository/classes.ts';
import { findHearing, listHearings, writeHearing } from '../repository/hearings.ts';
import { takesOfPattern } from '../repository/takes.ts';
import { classOf } from './classes.ts';
import { breath } from './patternText.ts';

/** A term of lessons with some passes in each. */
const MOST_SHOWN = 120;

/** How a class clapped together, newest first. */
export async function hearingsOf(db: Database, teacherId: string, classId: string): Promise<Hearing[]> {
  await classOf(db, teacherId, classId, 'look');
  return listHearings(db, classId, MOST_SHOWN);
}

/** Several takes of each child of a class. */
const MOST_TAKES = 300;

/** What the children of a class clapped of one pattern, newest first, each from beat 1 of measure 1. */
export async function takesTogether(
  db: Database,
  teacherId: string,
  classId: string,
  patternKey: string,
): Promise<TakesTogether> {
  await classOf(db, teacherId, classId, 'look');
  const all = await takesOfPattern(db, classId, patternKey, MOST_TAKES);
  const { patternText, title } = all[0] ?? { patternText: '', title: '' };
  const alike = all.filter((take) => take.patternText === patternText);
  const read = parseRhythm(patternText);
  const takes: TakesTogether['takes'] = [];
  for (const { id, childId, takenAt, bpm, free, onsets, mark, accuracy, result } of alike) {
    const laid = read.ok ? laidOut(read.pattern, { bpm, free, onsets, result }, bpm) : undefined;
    if (laid) takes.push({ id, childId, takenAt, bpm, mark, accuracy, onsets: laid });
    await breath();
  }
  return { patternText, title, others: all.length - takes.length, takes };
}

/** Keeps how a pass went. Sent twice it is there once. */
export async function saveHearing(
  db: Database,
  teacherId: string,
  classId: string,
  hearingId: string,
  hearing: HearingEdit,
): Promise<'made' | 'changed'> {
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findHearing(inside, hearingId);
    if (known && known.classId !== classId) throw notFound('hearing');
    await writeHearing(inside, classId, hearingId, hearing);
    return known ? 'changed' : 'made';
  });
}

export async function dropHearing(db: Database, teacherId: string, classId: string, hearingId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findHearing(inside, hearingId);
    if (known?.classId !== classId) throw notFound('hearing');
    await binRow(inside, 'hearing', classId, hearingId, known.title, Date.now());
  });
}
