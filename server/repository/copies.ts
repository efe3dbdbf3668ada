import { and, desc, eq, gt, inArray } from 'drizzle-orm';
import type { CopiedTake } from '../../contract/classCopy.ts';
import type { Database } from '../database.ts';
import { patterns, recordings, takes } from '../schema.ts';
import { type NewTake, type TakePlace, beyond } from './takes.ts';

/** Takes of a class as they were played, newest first, from after a place on. */
export async function copiedTakes(
  db: Database,
  classId: string,
  after: TakePlace | undefined,
  most: number,
): Promise<CopiedTake[]> {
  const rows = await db
    .select({
      id: takes.id,
      childId: takes.childId,
      patternId: takes.patternId,
      patternKey: takes.patternKey,
      title: takes.title,
      patternText: takes.patternText,
      bpm: takes.bpm,
      onsets: takes.onsets,
      feet: takes.feet,
      releases: takes.releases,
      part: takes.part,
      besideId: takes.besideId,
      free: takes.free,
      source: takes.source,
      takenAt: takes.takenAt,
      override: takes.override,
      given: takes.given,
      overrideReason: takes.overrideReason,
      corrected: takes.corrected,
    })
    .from(takes)
    .where(and(eq(takes.classId, classId), ...(after ? [beyond(after)] : [])))
    .orderBy(desc(takes.takenAt), desc(takes.id))
    .limit(most);
  return rows.map((row) => ({
    ...row,
    onsets: [...row.onsets],
    feet: row.feet && [...row.feet],
    releases: row.releases && [...row.releases],
  }));
}

/** Which of these takes have a recording that is still kept. */
export async function soundsOf(db: Database, ids: readonly string[], now: number): Promise<string[]> {
  const rows = await db
    .select({ takeId: recordings.takeId })
    .from(recordings)
    .where(and(inArray(recordings.takeId, [...ids]), gt(recordings.expiresAt, now)));
  return rows.map(({ takeId }) => takeId);
}

/** Of takes that are there already, the class in which they are. */
export async function idsOfTakes(db: Database, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await db
    .select({ id: takes.id, classId: takes.classId })
    .from(takes)
    .where(inArray(takes.id, [...ids]));
  return new Map(rows.map(({ id, classId }) => [id, classId]));
}

/** Adds takes of one child; a pattern that is not the teacher's is left out, for each take has its own text. */
export async function addTakes(db: Database, teacherId: string, added: readonly NewTake[]): Promise<void> {
  if (added.length === 0) return;
  const named = added.flatMap(({ patternId }) => patternId ?? []);
  const own =
    named.length === 0
      ? []
      : await db
          .select({ id: patterns.id })
          .from(patterns)
          .where(and(eq(patterns.teacherId, teacherId), inArray(patterns.id, named)));
  const known = new Set(own.map(({ id }) => id));
  await db
    .insert(takes)
    .values(added.map((take) => ({ ...take, patternId: known.has(take.patternId ?? '') ? take.patternId : null })));
}
