import { and, asc, desc, eq, gt, inArray, isNull, lt, sql } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { children, classes, homeDays, homeLinks, homeTakes, practiceWeeks } from '../schema.ts';

/** A way home by its token, with its week, child and class; undefined where it is over or called back. */
export async function homeOf(db: Database, token: string, now: number) {
  const [row] = await db
    .select({
      weekId: homeLinks.weekId,
      childId: homeLinks.childId,
      untilAt: homeLinks.untilAt,
      starts: practiceWeeks.starts,
      plan: practiceWeeks.plan,
      classId: practiceWeeks.classId,
      adaptations: children.adaptations,
    })
    .from(homeLinks)
    .innerJoin(practiceWeeks, eq(practiceWeeks.id, homeLinks.weekId))
    .innerJoin(children, and(eq(children.id, homeLinks.childId), isNull(children.binnedAt)))
    .innerJoin(classes, and(eq(classes.id, practiceWeeks.classId), isNull(classes.binnedAt)))
    .where(and(eq(homeLinks.token, token), gt(homeLinks.untilAt, now)))
    .limit(1);
  return row;
}

export async function putLink(db: Database, link: typeof homeLinks.$inferInsert): Promise<void> {
  const { token, untilAt } = link;
  await db.insert(homeLinks).values(link).onDuplicateKeyUpdate({ set: { token, untilAt } });
}

/** @returns whether there was one */
export async function dropLink(db: Database, weekId: string, childId: string): Promise<boolean> {
  const [{ affectedRows }] = await db
    .delete(homeLinks)
    .where(and(eq(homeLinks.weekId, weekId), eq(homeLinks.childId, childId)));
  return affectedRows > 0;
}

export async function linksOf(db: Database, weekId: string, now: number) {
  return db
    .select({ childId: homeLinks.childId, token: homeLinks.token })
    .from(homeLinks)
    .where(and(eq(homeLinks.weekId, weekId), gt(homeLinks.untilAt, now)));
}

const shown = {
  id: homeTakes.id,
  childId: homeTakes.childId,
  item: homeTakes.item,
  accuracy: homeTakes.accuracy,
  takenAt: homeTakes.takenAt,
  source: homeTakes.source,
};

export async function homeTakesOf(db: Database, weekId: string) {
  return db
    .select(shown)
    .from(homeTakes)
    .where(eq(homeTakes.weekId, weekId))
    .orderBy(asc(homeTakes.childId), asc(homeTakes.item), desc(homeTakes.accuracy));
}

export async function homeTakesBy(db: Database, weekId: string, ids: readonly string[]) {
  return db
    .select()
    .from(homeTakes)
    .where(and(eq(homeTakes.weekId, weekId), inArray(homeTakes.id, [...ids])));
}

export async function addHomeTake(db: Database, take: typeof homeTakes.$inferInsert): Promise<void> {
  await db.insert(homeTakes).ignore().values(take);
}

/** Only so many of a child's takes of a pattern wait: the best, and of those that are as good the newest. */
export async function keepBest(db: Database, weekId: string, childId: string, item: number, most: number) {
  const own = and(eq(homeTakes.weekId, weekId), eq(homeTakes.childId, childId), eq(homeTakes.item, item));
  const rows = await db
    .select({ id: homeTakes.id })
    .from(homeTakes)
    .where(own)
    .orderBy(desc(homeTakes.accuracy), desc(homeTakes.takenAt));
  const over = rows.slice(most).map(({ id }) => id);
  if (over.length > 0) await db.delete(homeTakes).where(inArray(homeTakes.id, over));
}

export async function dropHomeTakes(db: Database, weekId: string, ids: readonly string[]): Promise<void> {
  await db.delete(homeTakes).where(and(eq(homeTakes.weekId, weekId), inArray(homeTakes.id, [...ids])));
}

export async function daysOf(db: Database, weekId: string) {
  return db
    .select({ childId: homeDays.childId, item: homeDays.item, day: homeDays.day, times: homeDays.times })
    .from(homeDays)
    .where(eq(homeDays.weekId, weekId));
}

/** Once more; beyond `most` it is not counted. */
export async function countDay(db: Database, day: Omit<typeof homeDays.$inferInsert, 'times'>, most: number) {
  await db
    .insert(homeDays)
    .values({ ...day, times: 1 })
    .onDuplicateKeyUpdate({ set: { times: sql`least(${homeDays.times} + 1, ${most})` } });
}

/** Ways that are over. */
export async function dropLinksBefore(db: Database, now: number): Promise<void> {
  await db.delete(homeLinks).where(lt(homeLinks.untilAt, now));
}
