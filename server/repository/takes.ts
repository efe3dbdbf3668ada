import { and, asc, count, desc, eq, gt, inArray, like, lt, lte, or, gte, isNull, ne, sql } from 'drizzle-orm';
import type { ListedTake } from '../../contract/records.ts';
import type { MarkOverride } from '../../contract/take.ts';
import { MISREADINGS, type MisreadingCode } from '../../core/judging/misreadings/table.ts';
import type { ElementId } from '../../core/rhythm/elements.ts';
import { type Database, once } from '../database.ts';
import { children, classes, patterns, recordings, takes } from '../schema.ts';
import { reached, roleOf } from './access.ts';
import { holdChild, holdChildren, rebuildRecords, recordTakes } from './childRecords.ts';
import { binRow } from './binnedRows.ts';
import { outOfBin } from './children.ts';
import { enterLate } from './lateTakes.ts';
import type { Seen } from '../../core/records/turns.ts';
import { turnHeard, turnMarked, turnWithoutTake } from './lineUps.ts';
import { touchClass, touchIfJudgedSo } from './classes.ts';

const summary = {
  id: takes.id,
  childId: takes.childId,
  patternId: takes.patternId,
  patternKey: takes.patternKey,
  title: takes.title,
  bpm: takes.bpm,
  takenAt: takes.takenAt,
  accuracy: takes.accuracy,
  mark: takes.mark,
  override: takes.override,
  given: takes.given,
  source: takes.source,
  corrected: takes.corrected,
};

/** How the class judges, and for whom it is made easier; for results that have to be judged again. */
const judgingColumns = {
  adaptations: children.adaptations,
  judgingRevision: classes.judgingRevision,
  onTimeMs: classes.onTimeMs,
  borders: classes.borders,
  scale: classes.scale,
  clickCounts: classes.clickCounts,
  naming: classes.naming,
};

export async function findTake(db: Database, teacherId: string, takeId: string) {
  const [row] = await db
    .select({
      ...summary,
      classId: takes.classId,
      patternText: takes.patternText,
      ages: takes.ages,
      windows: takes.windows,
      free: takes.free,
      onsets: takes.onsets,
      feet: takes.feet,
      releases: takes.releases,
      part: takes.part,
      besideId: takes.besideId,
      result: takes.result,
      resultVersion: takes.resultVersion,
      ...judgingColumns,
      overrideReason: takes.overrideReason,
      recordingUntil: recordings.expiresAt,
      role: roleOf(teacherId),
    })
    .from(takes)
    .innerJoin(classes, eq(classes.id, takes.classId))
    .innerJoin(children, eq(children.id, takes.childId))
    .leftJoin(recordings, eq(recordings.takeId, takes.id))
    .where(and(eq(takes.id, takeId), outOfBin))
    .limit(1);
  return reached(row);
}

export type NewTake = typeof takes.$inferInsert;
export type StoredTake = typeof takes.$inferSelect;
type StoredTakePart = Pick<StoredTake, 'patternKey' | 'elements'>;

/**
 * Children of classes that are the teacher's or shared with her, by their ids, with how their class judges, and whether
 * the pattern is there.
 */
export async function judgingOfChildren(
  db: Database,
  teacherId: string,
  childIds: readonly string[],
  patternId: string | null,
) {
  const rows = await db
    .select({
      childId: children.id,
      classId: children.classId,
      ages: classes.ages,
      termFrom: classes.termFrom,
      ...judgingColumns,
      patternId: patterns.id,
      role: roleOf(teacherId),
    })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    // Of the teacher who hears, or of the one whose line-up she goes on with.
    .leftJoin(
      patterns,
      and(
        eq(patterns.id, patternId ?? ''),
        or(eq(patterns.teacherId, teacherId), eq(patterns.teacherId, classes.teacherId)),
      ),
    )
    .where(and(inArray(children.id, [...childIds]), outOfBin));
  return new Map(rows.map((row) => [row.childId, reached(row)]));
}

/** A take to be stored, and the turn of a line-up that it is. */
export interface Arriving {
  readonly take: NewTake & StoredTakePart;
  readonly lineUp: { readonly id: string; readonly seen: Seen | undefined } | undefined;
}

/** How a class judged the takes, and where its term begins. */
export interface JudgedAs {
  readonly judgingRevision: number;
  readonly termFrom: number;
}

/**
 * Stores new takes of one class, in one transaction. Throws, with none of them stored, when the id of one is taken, or
 * the class judges otherwise by now.
 */
export async function addTakes(
  db: Database,
  arriving: readonly Arriving[],
  { judgingRevision, termFrom }: JudgedAs,
): Promise<void> {
  const heard = arriving.map(({ take }) => take);
  const { classId } = heard[0]!;
  await once(db, async (inside) => {
    const lastAts = await holdChildren(inside, [...new Set(heard.map(({ childId }) => childId))]);
    await inside.insert(takes).values(heard);
    await recordTakes(inside, heard, lastAts, termFrom);
    for (const { take, lineUp } of arriving) {
      if (take.takenAt < termFrom) await enterLate(inside, take);
      if (lineUp) await turnHeard(inside, lineUp.id, take, lineUp.seen);
    }
    await touchIfJudgedSo(inside, classId, judgingRevision);
  });
}

export async function takeIdTaken(db: Database, takeId: string): Promise<boolean> {
  return (await db.select({ id: takes.id }).from(takes).where(eq(takes.id, takeId)).limit(1)).length > 0;
}

/** What judging needs of a take. */
const playedColumns = {
  id: takes.id,
  patternText: takes.patternText,
  bpm: takes.bpm,
  onsets: takes.onsets,
  feet: takes.feet,
  releases: takes.releases,
  free: takes.free,
  mark: takes.mark,
};

/** A place in the takes of a class, newest first. */
export interface TakePlace {
  readonly takenAt: number;
  readonly id: string;
}

/** In a list that has the newest first. */
export const beyond = ({ takenAt, id }: TakePlace) =>
  and(lte(takes.takenAt, takenAt), or(lt(takes.takenAt, takenAt), lt(takes.id, id)));

/** What judging needs of the takes of a class, newest first, from after a place on. */
export async function takesToJudge(db: Database, classId: string, after: TakePlace | undefined, most: number) {
  return db
    .select({ ...playedColumns, takenAt: takes.takenAt, adaptations: children.adaptations })
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .where(and(eq(takes.classId, classId), ...(after ? [beyond(after)] : [])))
    .orderBy(desc(takes.takenAt), desc(takes.id))
    .limit(most);
}

export async function countTakes(db: Database, classId: string): Promise<number> {
  const [row] = await db.select({ takes: count() }).from(takes).where(eq(takes.classId, classId));
  return row?.takes ?? 0;
}

const judgedColumns = {
  ...playedColumns,
  childId: takes.childId,
  classId: takes.classId,
  ages: takes.ages,
  accuracy: takes.accuracy,
  result: takes.result,
  resultVersion: takes.resultVersion,
  takenAt: takes.takenAt,
  ...judgingColumns,
};

/** Takes whose result is of an older version, by id, from after one on. */
export async function outdatedTakes(db: Database, version: number, after: string, most: number) {
  return db
    .select(judgedColumns)
    .from(takes)
    .innerJoin(classes, eq(classes.id, takes.classId))
    .innerJoin(children, eq(children.id, takes.childId))
    .where(and(lt(takes.resultVersion, version), gt(takes.id, after)))
    .orderBy(asc(takes.id))
    .limit(most);
}

/** The columns that judging fills. */
export type Judgement = Pick<
  StoredTake,
  'ages' | 'windows' | 'accuracy' | 'mark' | 'result' | 'resultVersion' | 'elements' | 'hardest' | 'misread'
>;
type Rejudged = Judgement & Partial<Pick<NewTake, 'onsets' | 'releases' | 'corrected'>>;

/**
 * @param of  the onsets that were judged: nothing is written where the take has others by now, for whoever corrected
 *            them has judged them too
 * @returns whether it was written
 */
export async function updateJudgement(
  db: Database,
  takeId: string,
  judged: Rejudged,
  of: readonly number[],
): Promise<boolean> {
  const [{ affectedRows }] = await db
    .update(takes)
    .set(judged)
    .where(and(eq(takes.id, takeId), eq(takes.onsets, of)));
  return affectedRows > 0;
}

/** The teacher's own mark of a take, held until the end of the transaction. */
export async function ownMarkOf(db: Database, { id }: TakeKey): Promise<MarkOverride> {
  const [row] = await db
    .select({ mark: takes.override, reason: takes.overrideReason })
    .from(takes)
    .where(eq(takes.id, id))
    .for('update');
  return row ?? { mark: null };
}

const isTake = ({ id, childId, classId }: TakeKey) =>
  and(eq(takes.id, id), eq(takes.childId, childId), eq(takes.classId, classId));

export async function overrideMark(
  db: Database,
  key: TakeKey,
  override: number | null,
  overrideReason: string,
): Promise<void> {
  const { classId, childId, id } = key;
  await holdChild(db, childId);
  await db.update(takes).set({ override, overrideReason, given: null }).where(isTake(key));
  await turnMarked(db, id);
  await rebuildRecords(db, childId);
  await touchClass(db, classId);
}

/** Into the bin, with its sound. */
export async function removeTake(db: Database, key: TakeKey): Promise<void> {
  const { classId, childId, id } = key;
  await holdChild(db, childId);
  const [named] = await db
    .select({ title: takes.title, child: children.name })
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .where(isTake(key));
  await binRow(db, 'take', classId, id, `${named?.child ?? ''}: ${named?.title ?? ''}`, Date.now());
  await turnWithoutTake(db, id);
  await rebuildRecords(db, childId);
}

/** A take with what its records hang on. */
export type TakeKey = Pick<StoredTake, 'id' | 'childId' | 'classId'>;

const isMisreading = (code: string): code is MisreadingCode => Object.hasOwn(MISREADINGS, code);

/** What each child of a class misread since a moment, each code once. */
export async function misreadSince(
  db: Database,
  classId: string,
  since: number,
): Promise<{ readonly childId: string; readonly code: MisreadingCode }[]> {
  const rows = await db
    .selectDistinct({ childId: takes.childId, misread: takes.misread })
    .from(takes)
    .where(and(eq(takes.classId, classId), gte(takes.takenAt, since), ne(takes.misread, '')));
  const seen = new Map<string, { readonly childId: string; readonly code: MisreadingCode }>();
  for (const { childId, misread } of rows)
    for (const code of misread.split(',').filter(isMisreading)) seen.set(`${childId} ${code}`, { childId, code });
  return [...seen.values()];
}

/** The newest takes of a child in whose patterns an element stands, with what was judged. */
export async function takesWith(db: Database, childId: string, element: ElementId, most: number) {
  return db
    .select({
      id: takes.id,
      title: takes.title,
      takenAt: takes.takenAt,
      patternText: takes.patternText,
      bpm: takes.bpm,
      result: takes.result,
    })
    .from(takes)
    .where(
      and(eq(takes.childId, childId), or(like(takes.elements, `${element} %`), like(takes.elements, `%,${element} %`))),
    )
    .orderBy(desc(takes.takenAt), desc(takes.id))
    .limit(most);
}

/** Takes of one pattern in a class, newest first: what their children clapped. A practice child is nobody. */
export async function takesOfPattern(db: Database, classId: string, patternKey: string, most: number) {
  return db
    .select({
      id: takes.id,
      childId: takes.childId,
      takenAt: takes.takenAt,
      title: takes.title,
      patternText: takes.patternText,
      bpm: takes.bpm,
      free: takes.free,
      onsets: takes.onsets,
      accuracy: takes.accuracy,
      mark: sql<number>`coalesce(${takes.override}, ${takes.mark})`.mapWith(Number),
      result: takes.result,
    })
    .from(takes)
    .innerJoin(children, eq(children.id, takes.childId))
    .where(
      and(
        eq(takes.classId, classId),
        eq(takes.patternKey, patternKey),
        ne(takes.source, 'practice'),
        isNull(children.binnedAt),
      ),
    )
    .orderBy(desc(takes.takenAt), desc(takes.id))
    .limit(most);
}

/** Takes of a child, newest first, from after a place on; of one pattern where `patternKey` is given. */
export async function takesOfChild(
  db: Database,
  childId: string,
  after: TakePlace | undefined,
  most: number,
  patternKey?: string,
): Promise<ListedTake[]> {
  const rows = await db
    .select({ ...summary, hardest: takes.hardest, misread: takes.misread })
    .from(takes)
    .where(
      and(
        eq(takes.childId, childId),
        ...(after ? [beyond(after)] : []),
        ...(patternKey === undefined ? [] : [eq(takes.patternKey, patternKey)]),
      ),
    )
    .orderBy(desc(takes.takenAt), desc(takes.id))
    .limit(most);
  return rows.map(({ misread, ...row }) => ({ ...row, misread: misread.split(',').filter(isMisreading) }));
}
