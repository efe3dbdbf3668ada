import { and, asc, eq, gte, lt, sql } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { type JudgingBefore, rejudgings } from '../schema.ts';
import type { TakePlace } from './takes.ts';

export type Rejudging = typeof rejudgings.$inferSelect;

/** Before the newest take there can be. */
const FIRST: TakePlace = { takenAt: Number.MAX_SAFE_INTEGER, id: '' };

/** All takes of a class are to be judged anew; what was still to be done for settings before is part of it. */
export async function askForRejudging(
  db: Database,
  classId: string,
  revision: number,
  total: number,
  before: JudgingBefore | null,
): Promise<void> {
  const job = { revision, total, takenAt: FIRST.takenAt, takeId: FIRST.id, done: 0, owner: '', leasedUntil: 0 };
  await db
    .insert(rejudgings)
    .values({ classId, ...job, before })
    // Breaking off goes back to what all marks were worked out with: that is before the first of several changes.
    .onDuplicateKeyUpdate({ set: job });
}

export async function findRejudging(db: Database, classId: string): Promise<Rejudging | undefined> {
  const [row] = await db.select().from(rejudgings).where(eq(rejudgings.classId, classId)).limit(1);
  return row;
}

/** Takes a job that nobody works on, for `leaseMs`; undefined when there is none. */
export async function claimRejudging(db: Database, owner: string, leaseMs: number): Promise<Rejudging | undefined> {
  const now = Date.now();
  const [free] = await db
    .select({ classId: rejudgings.classId })
    .from(rejudgings)
    .where(lt(rejudgings.leasedUntil, now))
    .orderBy(asc(rejudgings.leasedUntil))
    .limit(1);
  if (!free) return undefined;
  const [{ affectedRows }] = await db
    .update(rejudgings)
    .set({ owner, leasedUntil: now + leaseMs })
    .where(and(eq(rejudgings.classId, free.classId), lt(rejudgings.leasedUntil, now)));
  if (affectedRows === 0) return undefined;
  const job = await findRejudging(db, free.classId);
  return job?.owner === owner ? job : undefined;
}

const stillMine = ({ classId, revision, owner }: Rejudging) =>
  and(eq(rejudgings.classId, classId), eq(rejudgings.revision, revision), eq(rejudgings.owner, owner));

/** Goes on to a place, for `leaseMs` more. False when the job is not this owner's any more, or is another by now. */
export async function moveRejudging(
  db: Database,
  job: Rejudging,
  to: TakePlace,
  more: number,
  leaseMs: number,
): Promise<boolean> {
  const [{ affectedRows }] = await db
    .update(rejudgings)
    .set({
      takenAt: to.takenAt,
      takeId: to.id,
      done: sql`${rejudgings.done} + ${more}`,
      leasedUntil: Date.now() + leaseMs,
    })
    .where(stillMine(job));
  return affectedRows > 0;
}

export async function endRejudging(db: Database, job: Rejudging): Promise<void> {
  await db.delete(rejudgings).where(stillMine(job));
}

/** Lets go of what this owner works on, so that another one can go on at once. */
export async function letGoOfRejudgings(db: Database, owner: string): Promise<void> {
  await db
    .update(rejudgings)
    .set({ owner: '', leasedUntil: 0 })
    .where(and(eq(rejudgings.owner, owner), gte(rejudgings.leasedUntil, Date.now())));
}
