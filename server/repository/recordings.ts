import { and, asc, eq, inArray, lt, lte, notInArray } from 'drizzle-orm';
import { union } from 'drizzle-orm/mysql-core';
import type { Database } from '../database.ts';
import { binnedRows, recordingChunks, recordings, takes } from '../schema.ts';
import { soundsInBin } from './binnedRows.ts';

export type Recording = typeof recordings.$inferInsert;

/** Keeps one piece of a sound that is still arriving. */
export async function addChunk(db: Database, chunk: typeof recordingChunks.$inferInsert): Promise<void> {
  await db.insert(recordingChunks).values(chunk);
}

/** All of a sound has arrived: from here on it is the recording of its take, instead of what was before. */
export async function putRecording(db: Database, recording: Recording): Promise<void> {
  const { mime, uploadId, bytes, expiresAt } = recording;
  const before = await findRecording(db, recording.takeId);
  await db.insert(recordings).values(recording).onDuplicateKeyUpdate({ set: { mime, uploadId, bytes, expiresAt } });
  if (before) await removeChunks(db, before.uploadId);
}

export async function findRecording(db: Database, takeId: string): Promise<Recording | undefined> {
  const [row] = await db.select().from(recordings).where(eq(recordings.takeId, takeId)).limit(1);
  return row;
}

/** One piece of a sound; undefined when there is none of this number. */
export async function findChunk(db: Database, uploadId: string, number: number): Promise<Buffer | undefined> {
  const [row] = await db
    .select({ sound: recordingChunks.sound })
    .from(recordingChunks)
    .where(and(eq(recordingChunks.uploadId, uploadId), eq(recordingChunks.number, number)))
    .limit(1);
  return row?.sound;
}

export async function removeChunks(db: Database, uploadId: string): Promise<void> {
  await db.delete(recordingChunks).where(eq(recordingChunks.uploadId, uploadId));
}

export async function removeRecording(db: Database, takeId: string): Promise<void> {
  const found = await findRecording(db, takeId);
  if (!found) return;
  await db.delete(recordings).where(eq(recordings.takeId, takeId));
  await removeChunks(db, found.uploadId);
}

/** All sounds of a child, those of its takes in the bin too. */
export async function removeSoundsOf(db: Database, childId: string): Promise<void> {
  const there = db.select({ id: takes.id }).from(takes).where(eq(takes.childId, childId));
  const binned = db.select({ id: binnedRows.id }).from(binnedRows).where(eq(binnedRows.childId, childId));
  await db.delete(recordingChunks).where(inArray(recordingChunks.takeId, union(there, binned)));
}

/** An upload takes minutes at most; what is older and belongs to no recording never will. */
const ABANDONED_MS = 3600 * 1000;

/**
 * Deletes what is kept beyond its date, and pieces that belong to nothing: of uploads that broke off, and of takes that
 * were deleted. @param now milliseconds since 1970
 */
export async function removeExpired(db: Database, now: number): Promise<void> {
  await db.delete(recordings).where(lte(recordings.expiresAt, now));
  const owned = db.select({ uploadId: recordings.uploadId }).from(recordings);
  const orphans = await db
    .selectDistinct({ uploadId: recordingChunks.uploadId })
    .from(recordingChunks)
    .where(
      and(
        lt(recordingChunks.arrivedAt, now - ABANDONED_MS),
        notInArray(recordingChunks.uploadId, owned),
        notInArray(recordingChunks.uploadId, soundsInBin(db, now)),
      ),
    )
    .orderBy(asc(recordingChunks.uploadId));
  for (const { uploadId } of orphans) await removeChunks(db, uploadId);
}
