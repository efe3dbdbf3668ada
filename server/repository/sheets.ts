import { desc, eq } from 'drizzle-orm';
import type { SavedSheet, SheetEdit } from '../../contract/sheet.ts';
import type { Database } from '../database.ts';
import { sheets } from '../schema.ts';
import { ownRows } from './ownRows.ts';

const { ofTeacher, ...own } = ownRows(sheets);
export const ownSheets = own;

/** The last changed first. */
export async function listSheets(db: Database, teacherId: string): Promise<SavedSheet[]> {
  const order = [desc(sheets.changedAt), desc(sheets.id)];
  const rows = await db
    .select()
    .from(sheets)
    .where(eq(sheets.teacherId, teacherId))
    .orderBy(...order);
  return rows.map(({ id, sheet }) => ({ id, ...sheet }));
}

export async function findSheet(db: Database, teacherId: string, sheetId: string): Promise<SheetEdit | undefined> {
  const [row] = await db
    .select({ sheet: sheets.sheet })
    .from(sheets)
    .where(ofTeacher(teacherId, sheetId))
    .limit(1)
    .for('update');
  return row?.sheet;
}

export async function addSheet(db: Database, teacherId: string, sheetId: string, sheet: SheetEdit): Promise<void> {
  await db.insert(sheets).values({ id: sheetId, teacherId, sheet, changedAt: Date.now() });
}

export async function updateSheet(db: Database, teacherId: string, sheetId: string, sheet: SheetEdit): Promise<void> {
  await db.update(sheets).set({ sheet, changedAt: Date.now() }).where(ofTeacher(teacherId, sheetId));
}
