import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { patterns } from '../schema.ts';
import { touchClasses } from './classes.ts';
import type { Bracket, PatternEdit, SavedPattern } from '../../contract/pattern.ts';

const shown = { id: patterns.id, title: patterns.title, text: patterns.text, brackets: patterns.brackets };

/** Without brackets there is no word of them. */
function saved({
  brackets,
  ...pattern
}: Omit<SavedPattern, 'brackets'> & { readonly brackets: readonly Bracket[] | null }): SavedPattern {
  return brackets && brackets.length > 0 ? { ...pattern, brackets: [...brackets] } : pattern;
}

export async function listPatterns(db: Database, teacherId: string): Promise<SavedPattern[]> {
  const rows = await db
    .select(shown)
    .from(patterns)
    .where(eq(patterns.teacherId, teacherId))
    .orderBy(asc(patterns.position), asc(patterns.title));
  return rows.map(saved);
}

/** Patterns by their ids, whoever made them: for those who hear a line-up in which they stand. */
export async function patternsById(db: Database, ids: readonly string[]): Promise<SavedPattern[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select(shown)
    .from(patterns)
    .where(inArray(patterns.id, [...ids]));
  return rows.map(saved);
}

export async function findPattern(
  db: Database,
  teacherId: string,
  patternId: string,
): Promise<SavedPattern | undefined> {
  const [row] = await db
    .select(shown)
    .from(patterns)
    .where(and(eq(patterns.id, patternId), eq(patterns.teacherId, teacherId)))
    .limit(1);
  return row && saved(row);
}

export async function patternIdTaken(db: Database, patternId: string): Promise<boolean> {
  const rows = await db.select({ id: patterns.id }).from(patterns).where(eq(patterns.id, patternId)).limit(1);
  return rows.length > 0;
}

export async function addPattern(
  db: Database,
  teacherId: string,
  pattern: SavedPattern,
  position: number,
): Promise<void> {
  await db.insert(patterns).values({ ...pattern, teacherId, position });
}

export async function updatePattern(
  db: Database,
  teacherId: string,
  patternId: string,
  edit: PatternEdit,
): Promise<void> {
  await db
    .update(patterns)
    .set(edit)
    .where(and(eq(patterns.id, patternId), eq(patterns.teacherId, teacherId)));
}

export async function removePattern(db: Database, teacherId: string, patternId: string): Promise<void> {
  await db.delete(patterns).where(and(eq(patterns.id, patternId), eq(patterns.teacherId, teacherId)));
  // Takes of this pattern stay, without the link; the lists they stand in have changed.
  await touchClasses(db, teacherId);
}
