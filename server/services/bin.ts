import type { Binned } from '../../contract/bin.ts';
import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { type BinKind, binnedBefore, inBin, listBin, removeForGood } from '../repository/bin.ts';
import { emptyRows, listBinnedRows, removeRowForGood, takeRowOut } from '../repository/binnedRows.ts';
import { binChild, childIdsOf } from '../repository/children.ts';
import { binClass } from '../repository/classes.ts';

export async function binOf(db: Database, teacherId: string): Promise<Binned[]> {
  const [whole, rows] = [await listBin(db, teacherId), await listBinnedRows(db, teacherId)];
  return [...whole, ...rows].sort((a, b) => b.binnedAt - a.binnedAt);
}

/** Back where it was, with all its takes. */
export async function takeOut(db: Database, teacherId: string, kind: BinKind, id: string): Promise<void> {
  await transacted(db, async (inside) => {
    if (kind !== 'class' && kind !== 'child') {
      if (!(await takeRowOut(inside, teacherId, kind, id))) throw notFound(kind);
      return;
    }
    const found = await inBin(inside, teacherId, kind, id);
    if (!found) throw notFound(kind);
    if (kind === 'class') await binClass(inside, id, null);
    else await binChild(inside, found.classId, id, null);
  });
}

/** Really gone, at once: child by child, for many takes in one go would hold up everybody. */
export async function throwAway(db: Database, teacherId: string, kind: BinKind, id: string): Promise<void> {
  if (kind !== 'class' && kind !== 'child') {
    const gone = await transacted(db, (inside) => removeRowForGood(inside, teacherId, kind, id));
    if (!gone) throw notFound(kind);
    return;
  }
  const check = async (inside: Database) => {
    if (!(await inBin(inside, teacherId, kind, id))) throw notFound(kind);
  };
  await check(db);
  for (const child of kind === 'class' ? await childIdsOf(db, id) : [])
    await transacted(db, async (inside) => {
      await check(inside);
      await removeForGood(inside, 'child', child);
    });
  await transacted(db, async (inside) => {
    await check(inside);
    await removeForGood(inside, kind, id);
  });
}

const AT_ONCE = 10;

/**
 * Removes for good what has been in the bin of a school since before a moment, child by child.
 * @returns how many things, and how many of them were children and classes
 */
export async function emptyBin(db: Database, schoolId: string, before: number) {
  const gone = { rows: await emptyRows(db, schoolId, before), child: 0, class: 0 };
  for (;;) {
    const old = await binnedBefore(db, schoolId, before, AT_ONCE);
    if (old.length === 0) return gone;
    for (const { kind, id } of old) {
      await transacted(db, (inside) => removeForGood(inside, kind, id));
      gone[kind]++;
    }
  }
}
