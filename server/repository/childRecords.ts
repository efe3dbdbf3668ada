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
 * Nobody else records for these children until the transaction is over; to be called before their takes are touched.
 * @returns when each was heard last, of what its records count; 0 where it was not
 */
export async function holdChildren(db: Database, childIds: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const newest = sql<number | null>`(select max(${childPatterns.lastAt}) from ${childPatterns}
    where ${childPatterns.childId} = ${children.id})`;
  const rows = await db
    .select({ id: children.id, newest })
    .from(children)
    .where(inArray(children.id, [...childIds]))
    // Two who hold several take them in the same order.
    .orderBy(asc(children.id))
    .for('update');
  return new Map(rows.map(({ id, newest: at }) => [id, at ?? 0]));
}

/** The same for one child. */
export async function holdChild(db: Database, childId: string): Promise<void> {
  await holdChildren(db, [childId]);
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
 * Brings the records of children on by takes that were just stored, in order. Where one is older than what is known, or
 * from before the term, all of its child is worked out anew.
 * @param lastAts  when each child was heard last before, from `holdChildren`
 */
export async function recordTakes(
  db: Database,
  heard: readonly Recorded[],
  lastAts: ReadonlyMap<string, number>,
  termFrom: number,
): Promise<void> {
  const anew = new Set<string>();
  const newest = new Map(lastAts);
  for (const { childId, takenAt } of heard) {
    if (takenAt < Math.max(newest.get(childId) ?? 0, termFrom)) anew.add(childId);
    else newest.set(childId, takenAt);
  }
  const inOrder = heard.filter(({ childId }) => !anew.has(childId));
  if (inOrder.length > 0) {
    await writeElements(db, await elementsAfter(db, inOrder));
    await writePatterns(db, inOrder);
  }
  for (const childId of anew) await rebuildRecords(db, childId);
}

interface ElementRow {
  readonly childId: string;
  readonly element: ElementId;
  readonly record: ElementRecord;
}

/** How the children stand with the elements of these takes, once they are counted. */
async function elementsAfter(db: Database, heard: readonly Recorded[]): Promise<ElementRow[]> {
  const before = await elementRecords(db, [...new Set(heard.map(({ childId }) => childId))]);
  const after = new Map<string, ElementRow>();
  for (const { childId, elements, takenAt } of heard)
    for (const one of unpackElements(elements)) {
      const key = `${childId} ${one.element}`;
      const known = after.get(key)?.record ?? before.get(childId)?.get(one.element);
      after.set(key, { childId, element: one.element, record: withTake(known, one, takenAt, dayHere) });
    }
  return [...after.values()];
}

/** What would be written where a row is there already. */
const written = (column: string) => sql.raw(`values(\`${column}\`)`);

async function writePatterns(db: Database, heard: readonly Recorded[]): Promise<void> {
  await db
    .insert(childPatterns)
    .values(
      heard.map(({ childId, patternKey, title, mark, takenAt }) => {
        return { childId, patternKey, title, takes: 1, best: mark, last: mark, markSum: mark, lastAt: takenAt };
      }),
    )
    .onDuplicateKeyUpdate({
      set: {
        title: written('title'),
        takes: sql`${childPatterns.takes} + 1`,
        best: sql`greatest(${childPatterns.best}, ${written('best')})`,
        last: written('last_mark'),
        markSum: sql`${childPatterns.markSum} + ${written('mark_sum')}`,
        lastAt: written('last_at'),
      },
    });
}

async function writeElements(db: Database, rows: readonly ElementRow[]): Promise<void> {
  if (rows.length === 0) return;
  await db
    .insert(childElements)
    .values(rows.map(({ childId, element, record }) => ({ childId, element, ...record })))
    .onDuplicateKeyUpdate({
      set: {
        measures: written('measures'),
        right: written('right_places'),
        misread: written('misread'),
        notTold: written('not_told'),
        known: written('known'),
        part: written('right_part'),
        weight: written('weight'),
        days: written('days'),
        lastSeen: written('last_seen'),
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
  await writeElements(
    db,
    [...records].map(([element, record]) => ({ childId, element, record })),
  );
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
