import { and, count, desc, eq, isNull, sql } from 'drizzle-orm';
import type { ShelfItem, ShelfKind, ShelfThing } from '../../contract/schoolShelf.ts';
import type { Database } from '../database.ts';
import { children, classes, shelfItems } from '../schema.ts';

const listed = {
  id: shelfItems.id,
  title: shelfItems.title,
  about: shelfItems.about,
  from: shelfItems.from,
  putAt: shelfItems.putAt,
  teacherId: shelfItems.teacherId,
  kind: sql<ShelfKind>`json_value(thing, '$.kind')`,
};

const asItem = <Row extends { readonly teacherId: string | null }>(
  { teacherId, ...row }: Row,
  whoAsks: string,
  mayAll: boolean,
) => ({ ...row, mine: mayAll || teacherId === whoAsks });

/** What lies on the shelf of a school, the newest first. @param mayAll  who asks may take away everything */
export async function listShelf(
  db: Database,
  schoolId: string,
  teacherId: string,
  mayAll: boolean,
): Promise<ShelfItem[]> {
  const rows = await db
    .select(listed)
    .from(shelfItems)
    .where(eq(shelfItems.schoolId, schoolId))
    .orderBy(desc(shelfItems.putAt), desc(shelfItems.id));
  return rows.map((row) => asItem(row, teacherId, mayAll));
}

export async function findOnShelf(db: Database, schoolId: string, id: string) {
  const [row] = await db
    .select({ ...listed, thing: shelfItems.thing })
    .from(shelfItems)
    .where(and(eq(shelfItems.id, id), eq(shelfItems.schoolId, schoolId)))
    .limit(1);
  return row;
}

export async function shelfIdTaken(db: Database, id: string): Promise<boolean> {
  return (await db.select({ id: shelfItems.id }).from(shelfItems).where(eq(shelfItems.id, id)).limit(1)).length > 0;
}

export async function countOnShelf(db: Database, schoolId: string): Promise<number> {
  const [row] = await db.select({ n: count() }).from(shelfItems).where(eq(shelfItems.schoolId, schoolId));
  return row?.n ?? 0;
}

export async function putOnShelf(
  db: Database,
  item: {
    readonly id: string;
    readonly schoolId: string;
    readonly teacherId: string;
    readonly title: string;
    readonly about: string;
    readonly from: string;
    readonly thing: ShelfThing;
    readonly putAt: number;
  },
): Promise<void> {
  const { title, about, from, thing, putAt } = item;
  await db.insert(shelfItems).values(item).onDuplicateKeyUpdate({ set: { title, about, from, thing, putAt } });
}

export async function takeFromShelf(db: Database, id: string): Promise<void> {
  await db.delete(shelfItems).where(eq(shelfItems.id, id));
}

/** The names of the children in a teacher's classes, with the class of each. */
export async function namesInClassesOf(db: Database, teacherId: string) {
  return db
    .select({ name: children.name, className: classes.name })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(eq(classes.teacherId, teacherId), isNull(classes.binnedAt)));
}
