import { type SQL, and, eq, getTableColumns, getTableName, inArray, is, like, sql } from 'drizzle-orm';
import { type MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { ClassRecords } from '../../contract/records.ts';
import type { Database } from '../database.ts';
import * as schema from '../schema.ts';
import { binnedRows, children, classes, practiceWeeks, recordingChunks, recordings, takes, terms } from '../schema.ts';
import { touchClass } from './classes.ts';
import { removeSoundsOf } from './recordings.ts';

type Row = Record<string, unknown>;

/** All tables there are. */
const TABLES: readonly MySqlTable[] = Object.values(schema).flatMap((one) => (is(one, MySqlTable) ? [one] : []));

/** What opens a door for the child: it is nothing of it. */
const SECRET = new Set(['token', 'tokenHash']);

/** Everything of a child, by the names of the tables. */
export async function everythingOf(db: Database, childId: string): Promise<Record<string, Row[]>> {
  const found: Record<string, Row[]> = {};
  const keep = (table: MySqlTable, rows: readonly Row[]) => {
    if (rows.length === 0) return;
    const open = rows.map((row) => Object.fromEntries(Object.entries(row).filter(([name]) => !SECRET.has(name))));
    found[getTableName(table)] = [...(found[getTableName(table)] ?? []), ...open];
  };
  keep(children, await db.select().from(children).where(eq(children.id, childId)));
  for (const table of TABLES) {
    const own = (getTableColumns(table) as Record<string, MySqlColumn>)['childId'];
    if (own) keep(table, await db.select().from(table).where(eq(own, childId)));
  }
  const own = db.select({ id: takes.id }).from(takes).where(eq(takes.childId, childId));
  keep(recordings, await db.select().from(recordings).where(inArray(recordings.takeId, own)));
  for (const chunk of await db.select().from(recordingChunks).where(inArray(recordingChunks.takeId, own)))
    keep(recordingChunks, [{ ...chunk, sound: chunk.sound.toString('base64') }]);
  for (const { id, title, names, records } of await termsWith(db, childId)) {
    const place = records.children.indexOf(childId);
    const mine = <T extends { readonly child: number }>(rows: readonly T[]) =>
      rows.filter((row) => row.child === place);
    const marks = mine(records.marks).map((row) => ({ ...row, pattern: records.patterns[row.pattern]?.title }));
    const paper = records.paper.flatMap((column) =>
      mine(column.points).map(({ points }) => ({ title: column.title, outOf: column.outOf, points })),
    );
    keep(terms, [{ id, title, name: names[place], marks, elements: mine(records.elements), paper }]);
  }
  return found;
}

/** Closed terms in which a child stands, also of a class it was in before. */
async function termsWith(db: Database, childId: string) {
  return db
    .select({
      id: terms.id,
      classId: terms.classId,
      title: terms.title,
      names: terms.names,
      records: terms.records,
    })
    .from(terms)
    .where(inClassesBeside(db, terms.classId, terms.records, childId));
}

/** Rows of the classes of a child's school in whose JSON it is named. */
function inClassesBeside(
  db: Database,
  classId: typeof terms.classId | typeof practiceWeeks.classId | typeof binnedRows.classId,
  text: typeof terms.records | typeof practiceWeeks.plan | typeof binnedRows.rows,
  childId: string,
) {
  const school = sql`(select c.school_id from ${children} k join ${classes} c on c.id = k.class_id
    where k.id = ${childId})`;
  const beside = db.select({ id: classes.id }).from(classes).where(eq(classes.schoolId, school));
  return and(inArray(classId, beside), like(text, `%${childId}%`));
}

/** The grid of a closed term without one of its children; the others move up. */
export function withoutChild(
  names: readonly string[],
  records: ClassRecords,
  childId: string,
): { readonly names: string[]; readonly records: ClassRecords } {
  const place = records.children.indexOf(childId);
  const others = <T extends { readonly child: number }>(rows: readonly T[]) =>
    rows.flatMap((row) =>
      row.child === place ? [] : [{ ...row, child: row.child > place ? row.child - 1 : row.child }],
    );
  if (place < 0) return { names: [...names], records };
  return {
    names: names.filter((_, i) => i !== place),
    records: {
      ...records,
      children: records.children.filter((_, i) => i !== place),
      marks: others(records.marks),
      elements: others(records.elements),
      paper: records.paper.map((column) => ({ ...column, points: others(column.points) })),
    },
  };
}

/**
 * Everything of a child is gone, wherever it is named: the rows that are its own, its columns in terms that were
 * closed, its name among those who practise, and what of others' rows in the bin is of it.
 */
export async function eraseChild(db: Database, childId: string): Promise<void> {
  const touched = new Set<string>();
  for (const { id, classId, names, records } of await termsWith(db, childId)) {
    await db
      .update(terms)
      .set(withoutChild(names, records, childId))
      .where(eq(terms.id, id));
    touched.add(classId);
  }
  const weeks = await db
    .select()
    .from(practiceWeeks)
    .where(inClassesBeside(db, practiceWeeks.classId, practiceWeeks.plan, childId));
  for (const { id, classId, plan } of weeks) {
    const left = plan.children?.filter((one) => one !== childId) ?? null;
    // A week for this child alone is nobody's any more.
    if (left?.length === 0) await db.delete(practiceWeeks).where(eq(practiceWeeks.id, id));
    else
      await db
        .update(practiceWeeks)
        .set({ plan: { ...plan, children: left } })
        .where(eq(practiceWeeks.id, id));
    touched.add(classId);
  }
  const binned = await db
    .select({ id: binnedRows.id, rows: binnedRows.rows })
    .from(binnedRows)
    .where(inClassesBeside(db, binnedRows.classId, binnedRows.rows, childId));
  for (const { id, rows } of binned) {
    const left = { rows: withoutMention(rows, childId) };
    // Put back, a week for nobody would be one that no page can read.
    const isNobodys = (left.rows.row['plan'] as { children?: unknown[] } | undefined)?.children?.length === 0;
    if (isNobodys) await db.delete(binnedRows).where(eq(binnedRows.id, id));
    else await db.update(binnedRows).set(left).where(eq(binnedRows.id, id));
  }
  await removeSoundsOf(db, childId);
  const [row] = await db.select({ classId: children.classId }).from(children).where(eq(children.id, childId));
  if (row) {
    touched.add(row.classId);
    await forgetBeside(db, row.classId, childId);
  }
  await db.delete(children).where(eq(children.id, childId));
  for (const classId of touched) await touchClass(db, classId);
}

/** A take that was played beside one of the child's stands alone now. */
async function forgetBeside(db: Database, classId: string, childId: string): Promise<void> {
  const own = await takeIdsOf(db, childId);
  if (own.length === 0) return;
  await db
    .update(takes)
    .set({ besideId: null })
    .where(and(eq(takes.classId, classId), inArray(takes.besideId, own)));
}

/** JSON without the entries of lists that are a child's or name it alone. */
function withoutMention<T>(value: T, childId: string): T {
  const isOf = (one: unknown) =>
    one === childId || (typeof one === 'object' && one !== null && (one as { childId?: unknown }).childId === childId);
  const clean = (one: unknown): unknown => {
    if (Array.isArray(one)) return one.filter((entry) => !isOf(entry)).map(clean);
    if (typeof one !== 'object' || one === null) return one;
    return Object.fromEntries(
      Object.entries(one).flatMap(([name, inner]) => (name === childId ? [] : [[name, clean(inner)]])),
    );
  };
  return clean(value) as T;
}

const CLASSES_AT_ONCE = 40;

interface Column {
  readonly table: string;
  readonly name: string;
  readonly type: string;
  readonly nullable: 'YES' | 'NO';
}

/**
 * In how many rows of each table a child or one of its takes stands: asked of the database itself, so that a table that
 * somebody adds is looked through too. In a table of which every row is one child's, by that; in any other in every
 * column of text, a table of classes some classes of the school after the other, so that no question takes long.
 * @param ids  of the child and of its takes
 */
export async function tracesOf(
  db: Database,
  schoolId: string,
  ids: { readonly child: string; readonly takes: readonly string[] },
): Promise<ReadonlyMap<string, number>> {
  const [columns] = (await db.execute(sql`
    select table_name as \`table\`, column_name as name, data_type as type, is_nullable as nullable
    from information_schema.columns
    where table_schema = database() and data_type in ('char', 'varchar', 'text', 'mediumtext', 'longtext')
    order by table_name, ordinal_position`)) as unknown as [Column[]];
  const rooms = await db.select({ id: classes.id }).from(classes).where(eq(classes.schoolId, schoolId));
  const found = new Map<string, number>();
  for (const table of new Set(columns.map((column) => column.table))) {
    const own = columns.filter((column) => column.table === table);
    const isOfChildren = own.some(({ name, nullable }) => name === 'child_id' && nullable === 'NO');
    if (isOfChildren) {
      found.set(table, await rowsIn(db, table, sql`child_id = ${ids.child}`));
      continue;
    }
    const isIn = sql.join(
      own.map(({ name, type }) => mentions(name, type, ids)),
      sql` or `,
    );
    const ofClasses = own.some(({ name }) => name === 'class_id');
    let n = 0;
    if (!ofClasses) n = await rowsIn(db, table, isIn);
    else
      for (let from = 0; from < rooms.length; from += CLASSES_AT_ONCE) {
        const some = rooms.slice(from, from + CLASSES_AT_ONCE).map(({ id }) => sql`${id}`);
        n += await rowsIn(db, table, sql`class_id in (${sql.join(some, sql`, `)}) and (${isIn})`);
      }
    found.set(table, n);
  }
  return found;
}

async function rowsIn(db: Database, table: string, where: SQL): Promise<number> {
  const question = sql`select count(*) as n from ${sql.identifier(table)} where ${where}`;
  const [[row]] = (await db.execute(question)) as unknown as [[{ n: number }]];
  return Number(row.n);
}

/** Where a column is an id it is one of these; in a longer text the child's stands somewhere. */
function mentions(name: string, type: string, { child, takes: own }: { child: string; takes: readonly string[] }) {
  const column = sql.identifier(name);
  const all = [child, ...own];
  if (type === 'varchar' || type === 'char')
    return sql`${column} in (${sql.join(
      all.map((id) => sql`${id}`),
      sql`, `,
    )})`;
  return sql`${column} like ${`%${child}%`}`;
}

/** The takes of a child, those in the bin too. */
export async function takeIdsOf(db: Database, childId: string): Promise<string[]> {
  const there = await db.select({ id: takes.id }).from(takes).where(eq(takes.childId, childId));
  const binned = await db
    .select({ id: binnedRows.id })
    .from(binnedRows)
    .where(and(eq(binnedRows.childId, childId), eq(binnedRows.kind, 'take')));
  return [...there, ...binned].map(({ id }) => id);
}
