import { and, eq, gt, inArray, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { BINNED_ROWS, Binned } from '../../contract/bin.ts';
import type { Database } from '../database.ts';
import { isOwn } from './access.ts';
import {
  binnedRows,
  children,
  classes,
  earTallies,
  hearings,
  lessons,
  lineUpTurns,
  lineUps,
  paperColumns,
  paperMarks,
  practiceWeeks,
  recordingChunks,
  recordings,
  takes,
} from '../schema.ts';
import { holdChild, rebuildRecords } from './childRecords.ts';
import { touchClass } from './classes.ts';

export type RowKind = (typeof BINNED_ROWS)[number];

interface Kept {
  readonly table: MySqlTable & { readonly id: AnyMySqlColumn; readonly classId: AnyMySqlColumn };
  /** Rows that go with it, found by its id. */
  readonly with?: { readonly table: MySqlTable; readonly by: AnyMySqlColumn };
}

const KEPT: Readonly<Record<RowKind, Kept>> = {
  take: { table: takes, with: { table: recordings, by: recordings.takeId } },
  column: { table: paperColumns, with: { table: paperMarks, by: paperMarks.columnId } },
  'line-up': { table: lineUps, with: { table: lineUpTurns, by: lineUpTurns.lineUpId } },
  lesson: { table: lessons },
  practice: { table: practiceWeeks },
  tally: { table: earTallies },
  hearing: { table: hearings },
};

type Row = Record<string, unknown>;
const text = (value: unknown) => (typeof value === 'string' ? value : null);
const number = (value: unknown) => (typeof value === 'number' ? value : null);

/**
 * Moves a row of a class into the bin, with what goes with it; nothing where it is not in this class.
 * @param name  what it is called there
 */
export async function binRow(
  db: Database,
  kind: RowKind,
  classId: string,
  id: string,
  name: string,
  binnedAt: number,
): Promise<void> {
  const { table, with: more } = KEPT[kind];
  const isOf = and(eq(table.id, id), eq(table.classId, classId));
  const [row] = (await db.select().from(table).where(isOf).limit(1)) as Row[];
  if (!row) return;
  const others = more ? ((await db.select().from(more.table).where(eq(more.by, id))) as Row[]) : [];
  const sound = kind === 'take' ? others[0] : undefined;
  const kept = {
    classId,
    childId: kind === 'take' ? text(row['childId']) : null,
    kind,
    name: name.slice(0, 200),
    rows: { row, with: others },
    uploadId: text(sound?.['uploadId']),
    soundUntil: number(sound?.['expiresAt']),
    binnedAt,
  };
  await db
    .insert(binnedRows)
    .values({ id, ...kept })
    .onDuplicateKeyUpdate({ set: kept });
  await db.delete(table).where(isOf);
  await touchClass(db, classId);
}

const ofTeacher = (teacherId: string) =>
  inArray(binnedRows.classId, sql`(select id from ${classes} where ${isOwn(teacherId)} and binned_at is null)`);

/** What lies in the bin of a teacher's classes. */
export async function listBinnedRows(db: Database, teacherId: string): Promise<Binned[]> {
  return db
    .select({
      kind: binnedRows.kind,
      id: binnedRows.id,
      name: binnedRows.name,
      binnedAt: binnedRows.binnedAt,
      className: classes.name,
    })
    .from(binnedRows)
    .innerJoin(classes, eq(classes.id, binnedRows.classId))
    .where(ofTeacher(teacherId));
}

/** Puts a row back where it was, with what went with it. @returns whether it lay there */
export async function takeRowOut(db: Database, teacherId: string, kind: RowKind, id: string): Promise<boolean> {
  const isThis = and(eq(binnedRows.id, id), eq(binnedRows.kind, kind), ofTeacher(teacherId));
  const [found] = await db.select().from(binnedRows).where(isThis).limit(1).for('update');
  if (!found) return false;
  const { table, with: more } = KEPT[kind];
  const { row, with: others } = found.rows;
  const classId = kind === 'take' ? await classOfChild(db, found.childId!) : found.classId;
  const [again] = await db.select({ classId: table.classId }).from(table).where(eq(table.id, id)).limit(1);
  if (again && again.classId !== classId) return false;
  // A device that still had it may have sent it again: then that one stays.
  if (!again) {
    await db.insert(table).values({ ...row, classId });
    const back = kind === 'take' ? others.filter(isStillKept) : await ofChildrenThere(db, others);
    if (more && back.length > 0) await db.insert(more.table).values(back);
  }
  await db.delete(binnedRows).where(eq(binnedRows.id, id));
  if (kind === 'take') {
    await holdChild(db, found.childId!);
    await rebuildRecords(db, found.childId!);
  }
  await touchClass(db, classId);
  return true;
}

/** It may have gone on into another class meanwhile. */
async function classOfChild(db: Database, childId: string): Promise<string> {
  const [child] = await db.select({ classId: children.classId }).from(children).where(eq(children.id, childId));
  return child!.classId;
}

/** A sound is kept no longer for having lain in the bin. */
const isStillKept = (sound: Row) => number(sound['expiresAt'])! > Date.now();

/** Marks and turns come back without those of children who are gone for good. */
async function ofChildrenThere(db: Database, rows: readonly Row[]): Promise<Row[]> {
  const ids = rows.flatMap((row) => text(row['childId']) ?? []);
  if (ids.length === 0) return [];
  const there = await db.select({ id: children.id }).from(children).where(inArray(children.id, ids));
  const known = new Set(there.map(({ id }) => id));
  return rows.filter((row) => known.has(row['childId'] as string));
}

/** Gone for good. @returns whether it lay there */
export async function removeRowForGood(db: Database, teacherId: string, kind: RowKind, id: string): Promise<boolean> {
  const isThis = and(eq(binnedRows.id, id), eq(binnedRows.kind, kind), ofTeacher(teacherId));
  const [found] = await db.select({ uploadId: binnedRows.uploadId }).from(binnedRows).where(isThis).for('update');
  if (!found) return false;
  if (found.uploadId !== null) await db.delete(recordingChunks).where(eq(recordingChunks.uploadId, found.uploadId));
  await db.delete(binnedRows).where(eq(binnedRows.id, id));
  return true;
}

/** Removes for good what has lain there, at a school, since before a moment. @returns how many there were */
export async function emptyRows(db: Database, schoolId: string, moment: number): Promise<number> {
  const ofSchool = db
    .select({ id: classes.id })
    .from(classes)
    .where(and(eq(classes.schoolId, schoolId), isNull(classes.held)));
  const [{ affectedRows }] = await db
    .delete(binnedRows)
    .where(and(lt(binnedRows.binnedAt, moment), inArray(binnedRows.classId, ofSchool)));
  return affectedRows;
}

/** Uploads that hold a sound of what lies in the bin, as long as it is kept; a part of another question. */
export function soundsInBin(db: Database, now: number) {
  return db
    .select({ uploadId: sql<string>`${binnedRows.uploadId}` })
    .from(binnedRows)
    .where(and(isNotNull(binnedRows.uploadId), gt(binnedRows.soundUntil, now)));
}
