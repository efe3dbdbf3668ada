import { and, asc, eq, gte, inArray, sql } from 'drizzle-orm';
import type { PaperColumnEdit } from '../../contract/records.ts';
import type { Database } from '../database.ts';
import { paperColumns, paperMarks } from '../schema.ts';
import { classWriter } from './classRows.ts';

/** The columns of marks made on paper from a moment on, the oldest first, with their marks. */
export async function listPaper(db: Database, classId: string, from: number) {
  const columns = await db
    .select()
    .from(paperColumns)
    .where(and(eq(paperColumns.classId, classId), gte(paperColumns.takenAt, from)))
    .orderBy(asc(paperColumns.takenAt), asc(paperColumns.id));
  if (columns.length === 0) return [];
  const marks = await db
    .select()
    .from(paperMarks)
    .where(
      inArray(
        paperMarks.columnId,
        columns.map(({ id }) => id),
      ),
    );
  return columns.map(({ classId: _class, ...column }) => ({
    ...column,
    marks: marks.filter(({ columnId }) => columnId === column.id),
  }));
}

/** The marks of a column by child. */
export async function paperMarksOf(db: Database, columnId: string): Promise<Record<string, number>> {
  const rows = await db.select().from(paperMarks).where(eq(paperMarks.columnId, columnId));
  return Object.fromEntries(rows.map(({ childId, points }) => [childId, points]));
}

export async function findPaperColumn(db: Database, columnId: string) {
  const [row] = await db.select().from(paperColumns).where(eq(paperColumns.id, columnId)).limit(1);
  return row;
}

const writeHead = classWriter(paperColumns, 'column');

/** Makes or changes a column with its marks. */
export async function writePaperColumn(
  db: Database,
  classId: string,
  columnId: string,
  { points, ...column }: PaperColumnEdit,
): Promise<void> {
  await writeHead(db, classId, columnId, column);
  const given = Object.entries(points).flatMap(([childId, value]) =>
    value === null ? [] : [{ columnId, childId, points: value }],
  );
  const back = Object.keys(points).filter((childId) => points[childId] === null);
  if (given.length > 0)
    await db
      .insert(paperMarks)
      .values(given)
      .onDuplicateKeyUpdate({ set: { points: sql.raw('values(`points`)') } });
  if (back.length > 0)
    await db.delete(paperMarks).where(and(eq(paperMarks.columnId, columnId), inArray(paperMarks.childId, back)));
}
