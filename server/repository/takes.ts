import { and, asc, desc, eq, gt, ne, sql } from 'drizzle-orm';
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

/** How the class judges, for results that have to be judged again. */
const judgingColumns = {
  onTimeMs: classes.onTimeMs,
  borders: classes.borders,
  clickCounts: classes.clickCounts,
  naming: classes.naming,
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
      resultVersion: takes.resultVersion,
      ...judgingColumns,
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

/** What judging needs of a take. */
const playedColumns = {
  id: takes.id,
  patternText: takes.patternText,
  bpm: takes.bpm,
  onsets: takes.onsets,
  feet: takes.feet,
  releases: takes.releases,
  free: takes.free,
  mark: takes.mark,
};

/** What judging needs of every take of a class. */
export async function takesToJudge(db: Database, classId: string) {
  return db
    .select(playedColumns)
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .where(eq(children.classId, classId));
}

const judgedColumns = {
  ...playedColumns,
  classId: children.classId,
  ages: takes.ages,
  accuracy: takes.accuracy,
  result: takes.result,
  resultVersion: takes.resultVersion,
  takenAt: takes.takenAt,
  ...judgingColumns,
};

/** The judged takes of a child. */
export async function resultsOf(db: Database, childId: string) {
  return db
    .select(judgedColumns)
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(eq(takes.childId, childId));
}

/** Takes whose result has not this version, by id, from after one on. */
export async function outdatedTakes(db: Database, version: number, after: string, most: number) {
  return db
    .select(judgedColumns)
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(ne(takes.resultVersion, version), gt(takes.id, after)))
    .orderBy(asc(takes.id))
    .limit(most);
}

/** The columns that judging fills. */
export type Judgement = Pick<NewTake, 'ages' | 'windows' | 'accuracy' | 'mark' | 'result' | 'resultVersion'>;
type Rejudged = Judgement & Partial<Pick<NewTake, 'onsets' | 'releases' | 'corrected'>>;

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
