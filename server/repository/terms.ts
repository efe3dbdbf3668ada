import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Term, TermDetail } from '../../contract/term.ts';
import type { Database } from '../database.ts';
import { writePaperColumn } from './paper.ts';
import { children, classes, paperColumns, paperMarks, takes, terms } from '../schema.ts';

const shown = { id: terms.id, title: terms.title, fromAt: terms.fromAt, untilAt: terms.untilAt };

/** The terms of a class that are over, newest first. */
export async function listTerms(db: Database, classId: string): Promise<Term[]> {
  return db.select(shown).from(terms).where(eq(terms.classId, classId)).orderBy(desc(terms.untilAt));
}

export async function findTerm(db: Database, classId: string, termId: string): Promise<TermDetail | undefined> {
  const [row] = await db
    .select({ ...shown, names: terms.names, records: terms.records, scale: terms.scale })
    .from(terms)
    .where(and(eq(terms.id, termId), eq(terms.classId, classId)))
    .limit(1);
  return row && { ...row, names: [...row.names] };
}

export async function termIdTaken(db: Database, termId: string): Promise<boolean> {
  return (await db.select({ id: terms.id }).from(terms).where(eq(terms.id, termId)).limit(1)).length > 0;
}

/** Keeps a term; the grid of its class begins anew from its end. */
export async function addTerm(db: Database, classId: string, term: TermDetail): Promise<void> {
  await db.insert(terms).values({ ...term, classId });
  await beginTerm(db, classId, term.untilAt);
}

/** The grid of a class shows what comes after a moment. */
export async function beginTerm(db: Database, classId: string, termFrom: number): Promise<void> {
  await db.update(classes).set({ termFrom }).where(eq(classes.id, classId));
}

/** Puts a child of a class into another one, with its takes. */
export async function moveChild(db: Database, childId: string, from: string, to: string): Promise<void> {
  const isOf = and(eq(children.id, childId), eq(children.classId, from));
  await db.update(children).set({ classId: to }).where(isOf);
  await db
    .update(takes)
    .set({ classId: to })
    .where(and(eq(takes.childId, childId), eq(takes.classId, from)));
}

/** What a child has in columns of one class goes into columns of the same names in another; which are there or not. */
export async function movePaper(
  db: Database,
  childIds: readonly string[],
  to: string,
  idOf: (columnId: string) => string,
): Promise<void> {
  const marks = await db
    .select()
    .from(paperMarks)
    .innerJoin(paperColumns, eq(paperColumns.id, paperMarks.columnId))
    .where(and(inArray(paperMarks.childId, [...childIds]), sql`${paperColumns.classId} <> ${to}`));
  for (const { paper_marks: mark, paper_columns: column } of marks) {
    const id = idOf(column.id);
    await writePaperColumn(db, to, id, { ...headOf(column), points: {} });
    await db
      .update(paperMarks)
      .set({ columnId: id })
      .where(and(eq(paperMarks.columnId, mark.columnId), eq(paperMarks.childId, mark.childId)));
  }
}

const headOf = ({ title, outOf, scale, takenAt }: typeof paperColumns.$inferSelect) => ({
  title,
  outOf,
  scale,
  takenAt,
});
