import { and, desc, eq, sql } from 'drizzle-orm';
import type { TakeSummary } from '../../contract/take.ts';
import type { Database } from '../database.ts';
import { children, classes, recordings, takes } from '../schema.ts';
import { touchClass } from './classes.ts';

const summary = {
  id: takes.id,
  childId: takes.childId,
  patternId: takes.patternId,
  title: takes.title,
  bpm: takes.bpm,
  takenAt: takes.takenAt,
  accuracy: takes.accuracy,
  mark: takes.mark,
  override: takes.override,
  source: takes.source,
  corrected: takes.corrected,
};

/** Newest first. */
export async function listTakes(db: Database, classId: string): Promise<TakeSummary[]> {
  return db
    .select(summary)
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .where(eq(children.classId, classId))
    .orderBy(desc(takes.takenAt));
}

export async function findTake(db: Database, teacherId: string, takeId: string) {
  const [row] = await db
    .select({
      ...summary,
      classId: children.classId,
      patternText: takes.patternText,
      ages: takes.ages,
      windows: takes.windows,
      free: takes.free,
      onsets: takes.onsets,
      feet: takes.feet,
      releases: takes.releases,
      result: takes.result,
      overrideReason: takes.overrideReason,
      recordingUntil: recordings.expiresAt,
    })
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .innerJoin(classes, eq(classes.id, children.classId))
    .leftJoin(recordings, eq(recordings.takeId, takes.id))
    .where(and(eq(takes.id, takeId), eq(classes.teacherId, teacherId)))
    .limit(1);
  return row;
}

export type NewTake = typeof takes.$inferInsert;

/** Stores a take once: a second one with the same id changes nothing. */
export async function addTake(db: Database, classId: string, take: NewTake): Promise<void> {
  await db.transaction(async (tx) => {
    await tx
      .insert(takes)
      .values(take)
      .onDuplicateKeyUpdate({ set: { id: sql`${takes.id}` } });
    await touchClass(tx as unknown as Database, classId);
  });
}

/** The judged takes of a child. */
export async function resultsOf(db: Database, childId: string) {
  return db
    .select({ patternText: takes.patternText, result: takes.result, takenAt: takes.takenAt })
    .from(takes)
    .where(eq(takes.childId, childId));
}

/** What judging needs of every take of a class. */
export async function takesToJudge(db: Database, classId: string) {
  return db
    .select({
      id: takes.id,
      patternText: takes.patternText,
      bpm: takes.bpm,
      onsets: takes.onsets,
      feet: takes.feet,
      releases: takes.releases,
      free: takes.free,
      mark: takes.mark,
    })
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .where(eq(children.classId, classId));
}

export type Rejudged = Pick<NewTake, 'ages' | 'windows' | 'accuracy' | 'mark' | 'result'> &
  Partial<Pick<NewTake, 'onsets' | 'releases' | 'corrected'>>;

export async function updateJudgement(db: Database, takeId: string, judged: Rejudged): Promise<void> {
  await db.update(takes).set(judged).where(eq(takes.id, takeId));
}

export async function overrideMark(
  db: Database,
  classId: string,
  takeId: string,
  override: number | null,
  overrideReason: string,
): Promise<void> {
  await db.update(takes).set({ override, overrideReason }).where(eq(takes.id, takeId));
  await touchClass(db, classId);
}

export async function removeTake(db: Database, classId: string, takeId: string): Promise<void> {
  await db.delete(takes).where(eq(takes.id, takeId));
  await touchClass(db, classId);
}
