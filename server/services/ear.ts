import { t } from '../../core/words/say.ts';
import type { EarTally, EarTallyEdit } from '../../contract/ear.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { binRow } from '../repository/binnedRows.ts';
import { holdClass } from '../repository/classes.ts';
import { findEarTally, listEarTallies, writeEarTally } from '../repository/ear.ts';
import { classOf } from './classes.ts';

/** A school year of lessons. */
const MOST_SHOWN = 200;

/** How a class did in the views of the ear, newest first. */
export async function earTalliesOf(db: Database, teacherId: string, classId: string): Promise<EarTally[]> {
  await classOf(db, teacherId, classId, 'look');
  return listEarTallies(db, classId, MOST_SHOWN);
}

/** @param name  of the tally, in what is sent */
export function checkTally({ right, asked }: EarTallyEdit, name = ''): void {
  const field = `${name}right`;
  if (right > asked)
    throw new Problem(422, 'bad-request', t`${field}: there cannot be more right answers than were asked for.`, {
      field,
    });
}

/** Keeps how a run went. Sent twice it is there once. */
export async function saveEarTally(
  db: Database,
  teacherId: string,
  classId: string,
  tallyId: string,
  tally: EarTallyEdit,
): Promise<'made' | 'changed'> {
  checkTally(tally);
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findEarTally(inside, tallyId);
    if (known && known.classId !== classId) throw notFound('tally');
    await writeEarTally(inside, classId, tallyId, tally);
    return known ? 'changed' : 'made';
  });
}

export async function dropEarTally(db: Database, teacherId: string, classId: string, tallyId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findEarTally(inside, tallyId);
    if (known?.classId !== classId) throw notFound('tally');
    await binRow(inside, 'tally', classId, tallyId, known.kind, Date.now());
  });
}
