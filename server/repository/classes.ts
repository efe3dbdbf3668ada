import { t } from '../../core/words/say.ts';
import { randomBytes } from 'node:crypto';
import { and, asc, count, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import type { ClassSettings, ClassSummary } from '../../contract/schoolClass.ts';
import { type Database, Overtaken } from '../database.ts';
import { children, classes } from '../schema.ts';
import { ownerName, reached, roleOf, sharedWith } from './access.ts';

const settings = {
  name: classes.name,
  ages: classes.ages,
  school: classes.school,
  rests: classes.rests,
  naming: classes.naming,
  language: classes.language,
  houseWords: classes.houseWords,
  wordSet: classes.wordSet,
  onTimeMs: classes.onTimeMs,
  borders: classes.borders,
  scale: classes.scale,
  clickCounts: classes.clickCounts,
  counts: classes.counts,
  recordingDays: classes.recordingDays,
};

/** A row as the contract has it: no words of its own are an empty table, borders a list of their own. */
function asSettings<Row extends Pick<typeof classes.$inferSelect, 'houseWords' | 'borders'>>(row: Row) {
  return { ...row, houseWords: row.houseWords ?? {}, borders: row.borders ? [...row.borders] : null };
}

/** A teacher's own classes, and those that are shared with her. */
export async function listClasses(db: Database, teacherId: string): Promise<ClassSummary[]> {
  const shared = await sharedWith(db, teacherId);
  const own = eq(classes.teacherId, teacherId);
  const rows = await db
    .select({
      id: classes.id,
      schoolId: classes.schoolId,
      ...settings,
      role: roleOf(teacherId),
      owner: ownerName,
      children: count(children.id),
    })
    .from(classes)
    .leftJoin(children, and(eq(children.classId, classes.id), isNull(children.binnedAt)))
    .where(and(shared.length === 0 ? own : or(own, inArray(classes.id, shared)), isNull(classes.binnedAt)))
    .groupBy(classes.id)
    .orderBy(asc(classes.name));
  return rows.flatMap((row) => reached(row) ?? []).map(asSettings);
}

/** A class that is a teacher's or shared with her, with what she may do. */
export async function findClass(db: Database, teacherId: string, classId: string) {
  return classFinder(db)(teacherId, classId);
}

/** `findClass`, prepared once for those who ask often. */
export function classFinder(db: Database) {
  const query = db
    .select({
      id: classes.id,
      schoolId: classes.schoolId,
      revision: classes.revision,
      judgingRevision: classes.judgingRevision,
      termFrom: classes.termFrom,
      role: roleOf(sql.placeholder('teacherId')),
      owner: ownerName,
      ...settings,
    })
    .from(classes)
    .where(and(eq(classes.id, sql.placeholder('classId')), isNull(classes.binnedAt)))
    .limit(1)
    .prepare();
  return async (teacherId: string, classId: string) => {
    const row = reached((await query.execute({ teacherId, classId }))[0]);
    return row && asSettings(row);
  };
}

/** When the term of a class began, and its revision; of the same moment as what is read with it. */
export async function momentOfClass(db: Database, classId: string) {
  const [row] = await db
    .select({ revision: classes.revision, termFrom: classes.termFrom })
    .from(classes)
    .where(and(eq(classes.id, classId), isNull(classes.binnedAt)))
    .limit(1);
  return row;
}

/** A class whoever it belongs to; for the server's own work. */
export async function classById(db: Database, classId: string) {
  const [row] = await db
    .select({ judgingRevision: classes.judgingRevision, ...settings })
    .from(classes)
    .where(eq(classes.id, classId))
    .limit(1);
  return row && asSettings(row);
}

/** The revisions of classes by their ids; one that is gone or in the bin has none. */
export async function revisionsOf(db: Database, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: classes.id, revision: classes.revision })
    .from(classes)
    .where(and(inArray(classes.id, [...ids]), isNull(classes.binnedAt)));
  return new Map(rows.map(({ id, revision }) => [id, revision]));
}

export async function ownerOf(db: Database, classId: string): Promise<string> {
  const [row] = await db.select({ teacherId: classes.teacherId }).from(classes).where(eq(classes.id, classId)).limit(1);
  return row?.teacherId ?? '';
}

export async function classIdTaken(db: Database, classId: string): Promise<boolean> {
  const rows = await db.select({ id: classes.id }).from(classes).where(eq(classes.id, classId)).limit(1);
  return rows.length > 0;
}

export async function addClass(
  db: Database,
  { id: teacherId, schoolId }: { readonly id: string; readonly schoolId: string },
  classId: string,
  values: ClassSettings,
): Promise<void> {
  await db.insert(classes).values({ id: classId, teacherId, schoolId, ...values, revision: anotherRevision() });
}

/** Waits until nobody else changes the class; for the start of a transaction that does. */
export async function holdClass(db: Database, classId: string): Promise<void> {
  await db.select({ id: classes.id }).from(classes).where(eq(classes.id, classId)).for('update');
}

export async function updateClass(
  db: Database,
  classId: string,
  values: ClassSettings & { readonly judgingRevision?: number },
): Promise<void> {
  await db
    .update(classes)
    .set({ ...values, revision: anotherRevision() })
    .where(eq(classes.id, classId));
}

/** Puts a class into the bin, or takes it out again. */
export async function binClass(db: Database, classId: string, binnedAt: number | null): Promise<void> {
  await db.update(classes).set({ binnedAt, revision: anotherRevision() }).where(eq(classes.id, classId));
}

/** The class judges otherwise than before. */
export async function raiseJudging(db: Database, classId: string): Promise<void> {
  await db
    .update(classes)
    .set({ judgingRevision: sql`${classes.judgingRevision} + 1`, revision: anotherRevision() })
    .where(eq(classes.id, classId));
}

const anotherRevision = () => randomBytes(12).toString('base64url');

/** Says that something in the class has changed. */
export async function touchClass(db: Database, classId: string): Promise<void> {
  await db.update(classes).set({ revision: anotherRevision() }).where(eq(classes.id, classId));
}

/** The same for all classes of a teacher. */
export async function touchClasses(db: Database, teacherId: string): Promise<void> {
  await db.update(classes).set({ revision: anotherRevision() }).where(eq(classes.teacherId, teacherId));
}

/**
 * Says that something in the class has changed which was judged as the class judged at `judgingRevision`. Throws
 * Overtaken when it judges otherwise by now, or is gone: the transaction is then to be done again.
 */
export async function touchIfJudgedSo(db: Database, classId: string, judgingRevision: number): Promise<void> {
  const [{ affectedRows }] = await db
    .update(classes)
    .set({ revision: anotherRevision() })
    .where(and(eq(classes.id, classId), eq(classes.judgingRevision, judgingRevision)));
  if (affectedRows === 0) throw new Overtaken(t`the class judges otherwise now`);
}
