import { type SQL, asc, eq, inArray, sql } from 'drizzle-orm';
import { unpackElements } from '../../core/records/heardElements.ts';
import { type DayOf, type ElementRecord, recordsOf, withTake } from '../../core/records/mastery.ts';
import type { ElementId } from '../../core/rhythm/elements.ts';
import type { Database } from '../database.ts';
import { childElements, childPatterns, children, classes, takes } from '../schema.ts';

type Take = typeof takes.$inferSelect;
type Recorded = Pick<Take, 'childId' | 'takenAt' | 'patternKey' | 'title' | 'mark' | 'elements'>;

/** The day at the server, which stands where the school is. */
const dayHere: DayOf = (moment) => Math.floor((moment - new Date(moment).getTimezoneOffset() * 60_000) / 86_400_000);

/**
 * Nobody else records for this child until the transaction is over; to be called before its takes are touched.
 * @returns when it was heard last, of what its records count; 0 where it was not
 */
export async function holdChild(db: Database, childId: string): Promise<number> {
  const newest = sql<number | null>`(select max(${childPatterns.lastAt}) from ${childPatterns}
    where ${childPatterns.childId} = ${children.id})`;
  const [row] = await db.select({ newest }).from(children).where(eq(children.id, childId)).for('update');
  return row?.newest ?? 0;
}

/** Many rows as they come: for a class the making of objects would take longer than the database does. */
async function plainRows<Row>(db: Database, question: SQL): Promise<Row[]> {
  const [rows] = (await db.execute(question)) as unknown as [Row[]];
  return rows;
}

const listed = (ids: readonly string[]) =>
  sql.join(
    ids.map((id) => sql`${id}`),
    sql`, `,
  );

/** How the children stand with each element. */
export async function elementRecords(
  db: Database,
  childIds: readonly string[],
): Promise<ReadonlyMap<string, ReadonlyMap<ElementId, ElementRecord>>> {
  const records = new Map<string, Map<ElementId, ElementRecord>>(childIds.map((id) => [id, new Map()]));
  if (childIds.length === 0) return records;
  const rows = await plainRows<ElementRecord & { readonly childId: string; readonly element: ElementId }>(
    db,
    sql`select child_id childId, element, measures, right_places \`right\`, misread, not_told notTold, known,
      right_part part, weight, days, last_seen lastSeen from ${childElements} where child_id in (${listed(childIds)})`,
  );
  for (const { childId, element, ...record } of rows) records.get(childId)!.set(element, record);
  return records;
}

type PatternRow = typeof childPatterns.$inferSelect;

/** The marks of the children in each pattern. */
export async function patternRecords(db: Database, childIds: readonly string[]): Promise<PatternRow[]> {
  if (childIds.length === 0) return [];
  return plainRows<PatternRow>(
    db,
    sql`select child_id childId, pattern_key patternKey, title, takes, best, last_mark \`last\`, mark_sum markSum,
      last_at lastAt from ${childPatterns} where child_id in (${listed(childIds)})`,
  );
}

/**
 * Enters a new take of a child that is held; one that is older than another is put where it belongs.
 * @param lastAt  when the child was heard last, as it was when it was held
 * @param termFrom  when the term of its class began
 */
export async function recordTake(db: Database, take: Recorded, lastAt: number, termFrom: number): Promise<void> {
  if (take.takenAt < Math.max(lastAt, termFrom)) return rebuildRecords(db, take.childId);
  const heard = unpackElements(take.elements);
  const known = (await elementRecords(db, [take.childId])).get(take.childId)!;
  await writeElements(
    db,
    take.childId,
    heard.map((one) => [one.element, withTake(known.get(one.element), one, take.takenAt, dayHere)] as const),
  );
  const { childId, patternKey, title, mark, takenAt } = take;
  await db
    .insert(childPatterns)
    .values({ childId, patternKey, title, takes: 1, best: mark, last: mark, markSum: mark, lastAt: takenAt })
    .onDuplicateKeyUpdate({
      set: {
        title,
        takes: sql`${childPatterns.takes} + 1`,
        best: sql`greatest(${childPatterns.best}, ${mark})`,
        last: mark,
        markSum: sql`${childPatterns.markSum} + ${mark}`,
        lastAt: takenAt,
      },
    });
}

async function writeElements(
  db: Database,
  childId: string,
  records: readonly (readonly [ElementId, ElementRecord])[],
): Promise<void> {
  if (records.length === 0) return;
  const value = (name: string) => sql.raw(`values(\`${name}\`)`);
  await db
    .insert(childElements)
    .values(records.map(([element, record]) => ({ childId, element, ...record })))
    .onDuplicateKeyUpdate({
      set: {
        measures: value('measures'),
        right: value('right_places'),
        misread: value('misread'),
        notTold: value('not_told'),
        known: value('known'),
        part: value('right_part'),
        weight: value('weight'),
        days: value('days'),
        lastSeen: value('last_seen'),
      },
    });
}

/** Makes all records of a child anew from its takes. */
export async function rebuildRecords(db: Database, childId: string): Promise<void> {
  await holdChild(db, childId);
  const [room] = await db
    .select({ termFrom: classes.termFrom })
    .from(classes)
    .innerJoin(children, eq(children.classId, classes.id))
    .where(eq(children.id, childId));
  // Of the index alone; the title is that of the newest take, and is read apart.
  const rows = await db
    .select({
      id: takes.id,
      takenAt: takes.takenAt,
      patternKey: takes.patternKey,
      mark: takes.mark,
      override: takes.override,
      elements: takes.elements,
    })
    .from(takes)
    .where(eq(takes.childId, childId))
    .orderBy(asc(takes.takenAt), asc(takes.id));
  const records = recordsOf(
    rows.map(({ elements, takenAt }) => ({ elements: unpackElements(elements), takenAt })),
    dayHere,
  );
  await db.delete(childElements).where(eq(childElements.childId, childId));
  await writeElements(db, childId, [...records]);
  await db.delete(childPatterns).where(eq(childPatterns.childId, childId));
  const byPattern = new Map<string, (typeof rows)[number][]>();
  for (const row of rows) {
    // What was heard before the term is in the terms that are over; what a child knows stays.
    if (room && row.takenAt < room.termFrom) continue;
    const own = byPattern.get(row.patternKey);
    if (own) own.push(row);
    else byPattern.set(row.patternKey, [row]);
  }
  if (byPattern.size === 0) return;
  const newest = [...byPattern.values()].map((own) => own.at(-1)!.id);
  const titles = new Map(
    (await db.select({ id: takes.id, title: takes.title }).from(takes).where(inArray(takes.id, newest))).map(
      ({ id, title }) => [id, title],
    ),
  );
  await db.insert(childPatterns).values(
    [...byPattern].map(([patternKey, own]) => {
      const marks = own.map(({ mark, override }) => override ?? mark);
      const last = own.at(-1)!;
      return {
        childId,
        patternKey,
        title: titles.get(last.id) ?? '',
        takes: own.length,
        best: Math.max(...marks),
        last: marks.at(-1)!,
        markSum: marks.reduce((a, b) => a + b, 0),
        lastAt: last.takenAt,
      };
    }),
  );
}
