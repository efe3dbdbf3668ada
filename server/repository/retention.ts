import { and, asc, desc, eq, inArray, isNull, lt, ne, or, sql } from 'drizzle-orm';
import type { Cleared, RetentionTrial } from '../../contract/school.ts';
import type { Database } from '../database.ts';
import { children, classes, cleared, recordingChunks, recordings, schools, takes, terms } from '../schema.ts';
import { holdChild, rebuildRecords } from './childRecords.ts';
import { touchClass } from './classes.ts';

/** Schools with how long they keep things. */
export async function schoolsToClear(db: Database) {
  const { id, zone, retention, retentionFrom, clearedNight } = schools;
  return db.select({ id, zone, retention, retentionFrom, clearedNight }).from(schools);
}

/** Takes on a night of a school: of several servers one does it. @returns whether it is this one */
export async function takeNight(db: Database, schoolId: string, night: string): Promise<boolean> {
  const [{ affectedRows }] = await db
    .update(schools)
    .set({ clearedNight: night })
    .where(and(eq(schools.id, schoolId), ne(schools.clearedNight, night)));
  return affectedRows > 0;
}

/** Classes of a school that nobody holds. */
const free = (schoolId: string) => and(eq(classes.schoolId, schoolId), isNull(classes.held));

const isOld = (before: number) => and(lt(takes.takenAt, before), isNull(children.held));

/** Children of a school with takes of before a moment, some at a time; what a teacher holds is not among them. */
export async function childrenWithOld(db: Database, schoolId: string, before: number, most: number) {
  return db
    .selectDistinct({ id: children.id, classId: children.classId })
    .from(classes)
    .innerJoin(takes, eq(takes.classId, classes.id))
    .innerJoin(children, eq(children.id, takes.childId))
    .where(and(free(schoolId), isOld(before)))
    .limit(most);
}

/** Removes the takes of a child of before a moment, with their sound. @returns how many there were */
export async function removeOldTakes(
  db: Database,
  { id, classId }: { readonly id: string; readonly classId: string },
  before: number,
): Promise<number> {
  await holdChild(db, id);
  const old = and(eq(takes.childId, id), lt(takes.takenAt, before));
  const ids = db.select({ id: takes.id }).from(takes).where(old);
  await db.delete(recordingChunks).where(inArray(recordingChunks.takeId, ids));
  const [{ affectedRows }] = await db.delete(takes).where(old);
  await rebuildRecords(db, id);
  await touchClass(db, classId);
  return affectedRows;
}

const oldSounds = (db: Database, schoolId: string, before: number) =>
  db
    .select({ takeId: recordings.takeId, classId: takes.classId })
    .from(recordings)
    .innerJoin(takes, eq(takes.id, recordings.takeId))
    .innerJoin(classes, eq(classes.id, takes.classId))
    .innerJoin(children, eq(children.id, takes.childId))
    .where(and(free(schoolId), isOld(before)));

/** Removes the sounds of takes of before a moment. @returns how many there were */
export async function removeOldSounds(db: Database, schoolId: string, before: number): Promise<number> {
  const old = await oldSounds(db, schoolId, before);
  if (old.length === 0) return 0;
  const ids = old.map(({ takeId }) => takeId);
  await db.delete(recordingChunks).where(inArray(recordingChunks.takeId, ids));
  await db.delete(recordings).where(inArray(recordings.takeId, ids));
  for (const classId of new Set(old.map((one) => one.classId))) await touchClass(db, classId);
  return ids.length;
}

const oldTerms = (db: Database, schoolId: string, before: number) =>
  db
    .select({ id: terms.id, classId: terms.classId })
    .from(terms)
    .innerJoin(classes, eq(classes.id, terms.classId))
    .where(and(free(schoolId), lt(terms.untilAt, before)));

/** Removes terms that were closed before a moment. @returns how many there were */
export async function removeOldTerms(db: Database, schoolId: string, before: number): Promise<number> {
  const old = await oldTerms(db, schoolId, before);
  if (old.length === 0) return 0;
  await db.delete(terms).where(
    inArray(
      terms.id,
      old.map(({ id }) => id),
    ),
  );
  for (const classId of new Set(old.map((one) => one.classId))) await touchClass(db, classId);
  return old.length;
}

/** How much of a school is from before these moments; where there is none, nothing. */
export async function countOld(
  db: Database,
  schoolId: string,
  before: Readonly<Record<'takes' | 'recordings' | 'terms', number | null>>,
): Promise<RetentionTrial> {
  const old = lt(takes.takenAt, before.takes ?? 0);
  const isHeld = or(sql`${classes.held} is not null`, sql`${children.held} is not null`);
  const [row] = await db
    .select({ all: sql<number>`count(*)`, held: sql<number>`coalesce(sum(${isHeld}), 0)` })
    .from(classes)
    .innerJoin(takes, eq(takes.classId, classes.id))
    .innerJoin(children, eq(children.id, takes.childId))
    .where(and(eq(classes.schoolId, schoolId), old));
  const [all, held] = [Number(row!.all), Number(row!.held)];
  const counted = async (question: Promise<readonly unknown[]>) => (await question).length;
  return {
    takes: all - held,
    held,
    recordings: await counted(oldSounds(db, schoolId, before.recordings ?? 0)),
    terms: await counted(oldTerms(db, schoolId, before.terms ?? 0)),
  };
}

/** A year and a month: until then it can be read what went. */
const SAID_NIGHTS = 400;

/** Says what was removed in a night. */
export async function sayCleared(db: Database, schoolId: string, one: Cleared): Promise<void> {
  await db
    .insert(cleared)
    .values({ schoolId, ...one })
    .onDuplicateKeyUpdate({ set: { removed: sql`${cleared.removed} + ${one.removed}` } });
}

/** What was removed at night, newest first. */
export async function listCleared(db: Database, schoolId: string): Promise<Cleared[]> {
  const { night, kind, removed } = cleared;
  return db
    .select({ night, kind, removed })
    .from(cleared)
    .where(eq(cleared.schoolId, schoolId))
    .orderBy(desc(night), asc(kind))
    .limit(SAID_NIGHTS);
}

/** Why a teacher keeps a class; null where nobody does. */
export async function whyClass(db: Database, classId: string): Promise<string | null> {
  const [row] = await db.select({ held: classes.held }).from(classes).where(eq(classes.id, classId)).limit(1);
  return row?.held ?? null;
}

export async function whyChild(db: Database, childId: string): Promise<string | null> {
  const [row] = await db.select({ held: children.held }).from(children).where(eq(children.id, childId)).limit(1);
  return row?.held ?? null;
}

/** Why a teacher keeps a class beyond the school's time; null lets it go. */
export async function setClassHeld(db: Database, classId: string, held: string | null): Promise<void> {
  await db.update(classes).set({ held }).where(eq(classes.id, classId));
  await touchClass(db, classId);
}

export async function setChildHeld(db: Database, classId: string, childId: string, held: string | null): Promise<void> {
  await db
    .update(children)
    .set({ held })
    .where(and(eq(children.id, childId), eq(children.classId, classId)));
  await touchClass(db, classId);
}
