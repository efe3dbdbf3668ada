import { and, count, eq, gt, lt } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { identities, signOns } from '../schema.ts';

/** Keeps in mind who was sent away; those who never came back are forgotten. */
export async function addSignOn(db: Database, signOn: typeof signOns.$inferInsert): Promise<void> {
  await db.delete(signOns).where(lt(signOns.expiresAt, Date.now()));
  await db.insert(signOns).values(signOn);
}

/** How many are away just now. */
export async function countSignOns(db: Database): Promise<number> {
  const [row] = await db.select({ n: count() }).from(signOns).where(gt(signOns.expiresAt, Date.now()));
  return row?.n ?? 0;
}

/** Who was sent away with this state, by this browser. */
export async function findSignOn(db: Database, stateHash: string, browserHash: string, now: number) {
  const [row] = await db
    .select()
    .from(signOns)
    .where(and(eq(signOns.stateHash, stateHash), eq(signOns.browserHash, browserHash), gt(signOns.expiresAt, now)))
    .limit(1);
  return row;
}

/** Whom the other place has vouched for, until there is an account. */
export async function keepIdentity(db: Database, stateHash: string, identity: string): Promise<void> {
  await db.update(signOns).set({ identity }).where(eq(signOns.stateHash, stateHash));
}

/** It is good for one answer. @returns whether it was there */
export async function takeSignOn(db: Database, stateHash: string): Promise<boolean> {
  const [{ affectedRows }] = await db.delete(signOns).where(eq(signOns.stateHash, stateHash));
  return affectedRows > 0;
}

/** The teacher who is this elsewhere. */
export async function findIdentity(db: Database, key: string): Promise<string | undefined> {
  const [row] = await db.select({ id: identities.teacherId }).from(identities).where(eq(identities.key, key)).limit(1);
  return row?.id;
}

export async function addIdentity(db: Database, key: string, teacherId: string): Promise<void> {
  await db.insert(identities).values({ key, teacherId, since: Date.now() });
}

/** Whether somebody comes in by another place; and since when. */
export async function identityOf(db: Database, teacherId: string): Promise<number | undefined> {
  const [row] = await db
    .select({ since: identities.since })
    .from(identities)
    .where(eq(identities.teacherId, teacherId))
    .limit(1);
  return row?.since;
}

export async function removeIdentities(db: Database, teacherId: string): Promise<void> {
  await db.delete(identities).where(eq(identities.teacherId, teacherId));
}
