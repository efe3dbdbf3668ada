import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { LineUp, NewLineUp } from '../../contract/lineUp.ts';
import { type Scale, carried, highestOf } from '../../core/judging/scale.ts';
import { type Seen, type StandingTurn, afterTake, markByHand, withoutTake } from '../../core/records/turns.ts';
import type { Database } from '../database.ts';
import { children, classes, lineUpTurns, lineUps, paperMarks, takes } from '../schema.ts';
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
      slower: lineUpTurns.slower,
      clash: lineUpTurns.clash,
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

/** In which class a line-up is, whoever asks; undefined where there is none of this id. */
export async function classOfLineUp(db: Database, lineUpId: string): Promise<{ readonly classId: string } | undefined> {
  const [row] = await db.select({ classId: lineUps.classId }).from(lineUps).where(eq(lineUps.id, lineUpId)).limit(1);
  return row;
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

const standing = {
  state: lineUpTurns.state,
  mark: lineUpTurns.mark,
  takeId: lineUpTurns.takeId,
  clash: lineUpTurns.clash,
};
const isTurn = (lineUpId: string, childId: string) =>
  and(eq(lineUpTurns.lineUpId, lineUpId), eq(lineUpTurns.childId, childId));

/** What stands of a child, held until the end of the transaction; undefined when it is not in line. */
export async function holdTurn(db: Database, lineUpId: string, childId: string): Promise<StandingTurn | undefined> {
  const [turn] = await db.select(standing).from(lineUpTurns).where(isTurn(lineUpId, childId)).limit(1).for('update');
  return turn;
}

/** A child who is not in line yet comes last. @param patternId  for whoever comes new */
export async function writeTurn(
  db: Database,
  lineUpId: string,
  childId: string,
  turn: StandingTurn & { readonly slower?: number | undefined },
  patternId: string,
): Promise<void> {
  const [last] = await db
    .select({ position: sql<number | null>`max(${lineUpTurns.position})` })
    .from(lineUpTurns)
    .where(eq(lineUpTurns.lineUpId, lineUpId));
  await db
    .insert(lineUpTurns)
    .values({ lineUpId, childId, patternId, ...turn, position: (last?.position ?? -1) + 1 })
    .onDuplicateKeyUpdate({ set: turn });
}

/** A take of a line-up came in: its child was heard. @param seen  what stood when the child began */
export async function turnHeard(
  db: Database,
  lineUpId: string,
  take: { readonly id: string; readonly childId: string; readonly classId: string; readonly mark: number },
  seen: Seen | undefined,
): Promise<void> {
  const [found] = await db
    .select({ ...standing, counts: classes.counts })
    .from(lineUpTurns)
    // A child that has moved still stands in the line-ups of its class of before.
    .innerJoin(lineUps, and(eq(lineUps.id, lineUpTurns.lineUpId), eq(lineUps.classId, take.classId)))
    .innerJoin(classes, eq(classes.id, lineUps.classId))
    .where(isTurn(lineUpId, take.childId))
    .limit(1)
    .for('update');
  if (!found) return;
  const { counts, ...now } = found;
  const after = afterTake(now, take, counts, seen);
  await db.update(lineUpTurns).set(after).where(isTurn(lineUpId, take.childId));
  // The grid says what the line-up says: a mark by hand that counts no more is not in its column either.
  if (markByHand(now) !== null && markByHand(after) === null)
    await db.delete(paperMarks).where(and(eq(paperMarks.columnId, lineUpId), eq(paperMarks.childId, take.childId)));
}

/** A take is removed: its turn waits again, or is what else was said of it. */
export async function turnWithoutTake(db: Database, takeId: string): Promise<void> {
  const turns = await db
    .select({ ...standing, lineUpId: lineUpTurns.lineUpId, childId: lineUpTurns.childId })
    .from(lineUpTurns)
    .where(eq(lineUpTurns.takeId, takeId));
  for (const { lineUpId, childId, ...now } of turns)
    await db.update(lineUpTurns).set(withoutTake(now)).where(isTurn(lineUpId, childId));
}

/**
 * Marks by hand were changed in the column that a line-up has in the grid; null takes one back.
 * @param from  the scale of the column
 * @param to  that of the class
 */
export async function turnsByHand(
  db: Database,
  classId: string,
  lineUpId: string,
  marks: Readonly<Record<string, number | null>>,
  from: Scale,
  to: Scale,
): Promise<void> {
  if (!(await findLineUp(db, classId, lineUpId))) return;
  for (const [childId, given] of Object.entries(marks)) {
    // Another number of points than a line-up gives is no mark of it.
    if (given !== null && (!Number.isInteger(given) || given > highestOf(from))) continue;
    const mark = given === null ? null : carried(given, from, to);
    const said = mark === null ? { state: 'waiting' as const, mark } : { state: 'heard' as const, mark };
    const had = mark === null ? eq(lineUpTurns.state, 'heard') : undefined;
    await db
      .update(lineUpTurns)
      .set({ ...said, clash: null })
      .where(and(isTurn(lineUpId, childId), isNull(lineUpTurns.takeId), had));
  }
}

/** The mark of a take is another now: also in the line-up in which it was heard. */
export async function turnMarked(db: Database, takeId: string): Promise<void> {
  await db.execute(sql`
    update ${lineUpTurns} t join ${lineUps} l on l.id = t.line_up_id
      join ${takes} k on k.id = t.take_id and k.class_id = l.class_id
    set t.mark = coalesce(k.override_mark, k.mark) where t.take_id = ${takeId}`);
}
