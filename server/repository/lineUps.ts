import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { LineUp, NewLineUp, TurnEdit } from '../../contract/lineUp.ts';
import type { Database } from '../database.ts';
import { children, lineUpTurns, lineUps, takes } from '../schema.ts';
import { touchClass } from './classes.ts';

/** The line-ups of a class, newest first, their turns in order; children in the bin are left out. */
export async function listLineUps(db: Database, classId: string, most: number): Promise<Omit<LineUp, 'patterns'>[]> {
  const rows = await db
    .select()
    .from(lineUps)
    .where(eq(lineUps.classId, classId))
    .orderBy(desc(lineUps.startedAt), desc(lineUps.id))
    .limit(most);
  if (rows.length === 0) return [];
  const turns = await db
    .select({
      lineUpId: lineUpTurns.lineUpId,
      childId: lineUpTurns.childId,
      patternId: lineUpTurns.patternId,
      state: lineUpTurns.state,
      mark: lineUpTurns.mark,
      takeId: lineUpTurns.takeId,
    })
    .from(lineUpTurns)
    .innerJoin(
      children,
      and(eq(children.id, lineUpTurns.childId), eq(children.classId, classId), isNull(children.binnedAt)),
    )
    .where(
      inArray(
        lineUpTurns.lineUpId,
        rows.map(({ id }) => id),
      ),
    )
    .orderBy(asc(lineUpTurns.position), asc(lineUpTurns.childId));
  return rows.map(({ classId: _class, ...row }) => ({
    ...row,
    turns: turns.flatMap(({ lineUpId, ...turn }) => (lineUpId === row.id ? [turn] : [])),
  }));
}

export async function findLineUp(db: Database, classId: string, lineUpId: string) {
  const [row] = await db
    .select()
    .from(lineUps)
    .where(and(eq(lineUps.id, lineUpId), eq(lineUps.classId, classId)))
    .limit(1);
  return row;
}

export async function lineUpIdTaken(db: Database, lineUpId: string): Promise<boolean> {
  return (await db.select({ id: lineUps.id }).from(lineUps).where(eq(lineUps.id, lineUpId)).limit(1)).length > 0;
}

export async function addLineUp(db: Database, classId: string, id: string, values: NewLineUp): Promise<void> {
  await writeLineUp(db, classId, id, values);
  await touchClass(db, classId);
}

/** A line-up with what became of its turns, as it was elsewhere. */
export async function writeLineUp(
  db: Database,
  classId: string,
  id: string,
  { turns, ...lineUp }: NewLineUp | Omit<LineUp, 'id' | 'patterns'>,
): Promise<void> {
  await db.insert(lineUps).values({ id, classId, ...lineUp });
  if (turns.length > 0)
    await db.insert(lineUpTurns).values(turns.map((turn, position) => ({ lineUpId: id, position, ...turn })));
}

export async function removeLineUp(db: Database, classId: string, id: string): Promise<void> {
  await db.delete(lineUps).where(eq(lineUps.id, id));
  await touchClass(db, classId);
}

/** A child who is not in line yet comes last. @param patternId  for whoever comes new */
export async function writeTurn(
  db: Database,
  lineUpId: string,
  childId: string,
  { state, mark = null }: TurnEdit,
  patternId: string,
): Promise<void> {
  const [last] = await db
    .select({ position: sql<number | null>`max(${lineUpTurns.position})` })
    .from(lineUpTurns)
    .where(eq(lineUpTurns.lineUpId, lineUpId));
  await db
    .insert(lineUpTurns)
    .values({ lineUpId, childId, patternId, state, mark, position: (last?.position ?? -1) + 1 })
    .onDuplicateKeyUpdate({ set: { state, mark, takeId: null } });
}

/** A take of a line-up came in: its child was heard. Of several tries the better mark stays where the best counts. */
export async function turnHeard(
  db: Database,
  lineUpId: string,
  take: { readonly id: string; readonly childId: string; readonly classId: string; readonly mark: number },
): Promise<void> {
  await db.execute(sql`
    update ${lineUpTurns} t
    join ${lineUps} l on l.id = t.line_up_id
    join classes c on c.id = l.class_id
    set t.take_id = if(c.counts = 'best' and t.state = 'heard' and t.mark > ${take.mark}, t.take_id, ${take.id}),
        t.mark = if(c.counts = 'best' and t.state = 'heard', greatest(coalesce(t.mark, 0), ${take.mark}), ${take.mark}),
        t.state = 'heard'
    where t.line_up_id = ${lineUpId} and t.child_id = ${take.childId} and l.class_id = ${take.classId}`);
}

/** The mark of a take is another now: also in the line-up in which it was heard. */
export async function turnMarked(db: Database, takeId: string): Promise<void> {
  await db.execute(sql`
    update ${lineUpTurns} t join ${takes} k on k.id = t.take_id
    set t.mark = coalesce(k.override_mark, k.mark) where t.take_id = ${takeId}`);
}
