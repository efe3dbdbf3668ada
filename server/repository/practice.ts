import { and, desc, eq, gte, inArray, lt } from 'drizzle-orm';
import type { Database } from '../database.ts';
import { practiceWeeks, takes } from '../schema.ts';
import { classWriter } from './classRows.ts';

/** The practice weeks of a class, newest first. */
export async function listPractice(db: Database, classId: string, most: number) {
  return db
    .select({ id: practiceWeeks.id, starts: practiceWeeks.starts, plan: practiceWeeks.plan })
    .from(practiceWeeks)
    .where(eq(practiceWeeks.classId, classId))
    .orderBy(desc(practiceWeeks.starts), desc(practiceWeeks.id))
    .limit(most);
}

export async function findPractice(db: Database, weekId: string) {
  const [row] = await db
    .select({ classId: practiceWeeks.classId, starts: practiceWeeks.starts, plan: practiceWeeks.plan })
    .from(practiceWeeks)
    .where(eq(practiceWeeks.id, weekId))
    .limit(1);
  return row;
}

export const writePractice = classWriter(practiceWeeks, 'practice week');

/** When the children of a class were heard with some patterns. @param from, until  milliseconds since 1970 */
export async function heardBetween(
  db: Database,
  classId: string,
  patternKeys: readonly string[],
  from: number,
  until: number,
) {
  return db
    .select({ childId: takes.childId, patternKey: takes.patternKey, takenAt: takes.takenAt })
    .from(takes)
    .where(
      and(
        eq(takes.classId, classId),
        gte(takes.takenAt, from),
        lt(takes.takenAt, until),
        inArray(takes.patternKey, [...patternKeys]),
      ),
    );
}
