import { isDeepStrictEqual } from 'node:util';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { patterns } from '../schema.ts';
import { teachersOf } from './access.ts';
import { touchClasses } from './classes.ts';
import type { Bracket, PatternEdit, SavedPattern, ShelfEdit } from '../../contract/pattern.ts';

/** A pattern by itself; where it lies is its own teacher's affair. */
const bare = { id: patterns.id, title: patterns.title, text: patterns.text, brackets: patterns.brackets };
const shown = { ...bare, folder: patterns.folder, from: patterns.from, archived: patterns.archived };

interface Row extends Pick<SavedPattern, 'id' | 'title' | 'text'> {
  readonly brackets: readonly Bracket[] | null;
  readonly folder?: string | null;
  readonly from?: string | null;
  readonly archived?: boolean;
}

/** There is no word of what is not there. */
function saved({ brackets, folder = null, from = null, archived, ...pattern }: Row): SavedPattern {
  return {
    ...pattern,
    ...(brackets && brackets.length > 0 ? { brackets: [...brackets] } : {}),
    ...(folder === null ? {} : { folder }),
    ...(from === null ? {} : { from }),
    ...(archived ? { archived } : {}),
  };
}

export async function listPatterns(db: Database, teacherId: string): Promise<SavedPattern[]> {
  const rows = await db
    .select(shown)
    .from(patterns)
    .where(eq(patterns.teacherId, teacherId))
    .orderBy(asc(patterns.position), asc(patterns.title));
  return rows.map(saved);
}

/**
 * Patterns by their ids, of whose class it is and of those it is shared with now: for who hears a line-up in which they
 * stand, for copies of the class. An id is no key to what anybody else has.
 */
export async function patternsInClass(db: Database, classId: string, ids: readonly string[]): Promise<SavedPattern[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select(bare)
    .from(patterns)
    .where(and(inArray(patterns.id, [...ids]), inArray(patterns.teacherId, teachersOf(db, classId))));
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

/**
 * Puts patterns of a teacher where they are to be, the first one first; whose they are not stays as it is. Only those
 * that lie elsewhere are written: who drags one by a place moves two.
 */
export async function shelvePatterns(db: Database, teacherId: string, shelf: ShelfEdit['patterns']): Promise<void> {
  const { id, position, folder, archived } = patterns;
  const rows = await db
    .select({ id, position, folder, archived })
    .from(patterns)
    .where(eq(patterns.teacherId, teacherId));
  const lying = new Map(rows.map((row) => [row.id, row]));
  for (const [at, wanted] of shelf.entries()) {
    const now = lying.get(wanted.id);
    const place = { position: at, folder: wanted.folder ?? null, archived: wanted.archived ?? false };
    if (!now || isDeepStrictEqual(now, { id: wanted.id, ...place })) continue;
    await db.update(patterns).set(place).where(eq(patterns.id, wanted.id));
  }
}

export async function removePattern(db: Database, teacherId: string, patternId: string): Promise<void> {
  await db.delete(patterns).where(and(eq(patterns.id, patternId), eq(patterns.teacherId, teacherId)));
  // Takes of this pattern stay, without the link; the lists they stand in have changed.
  await touchClasses(db, teacherId);
}
