import type { Hearing, HearingEdit } from '../../contract/together.ts';
import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { binRow } from '../repository/binnedRows.ts';
import { holdClass } from '../repository/classes.ts';
import { findHearing, listHearings, writeHearing } from '../repository/hearings.ts';
import { classOf } from './classes.ts';

/** A term of lessons with some passes in each. */
const MOST_SHOWN = 120;

/** How a class clapped together, newest first. */
export async function hearingsOf(db: Database, teacherId: string, classId: string): Promise<Hearing[]> {
  await classOf(db, teacherId, classId, 'look');
  return listHearings(db, classId, MOST_SHOWN);
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
