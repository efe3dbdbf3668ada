import { eq, lte } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { recordings } from '../schema.ts';

export type Recording = typeof recordings.$inferInsert;

export async function putRecording(db: Database, recording: Recording): Promise<void> {
  const { mime, sound, expiresAt } = recording;
  await db.insert(recordings).values(recording).onDuplicateKeyUpdate({ set: { mime, sound, expiresAt } });
}

export async function findRecording(db: Database, takeId: string) {
  const [row] = await db.select().from(recordings).where(eq(recordings.takeId, takeId)).limit(1);
  return row;
}

export async function removeRecording(db: Database, takeId: string): Promise<void> {
  await db.delete(recordings).where(eq(recordings.takeId, takeId));
}

/** Deletes what is kept beyond its date. @param now milliseconds since 1970 */
export async function removeExpired(db: Database, now: number): Promise<void> {
  await db.delete(recordings).where(lte(recordings.expiresAt, now));
}
