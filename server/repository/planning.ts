import { and, desc, eq, gte, ne } from 'drizzle-orm';
import type { LessonEdit, SavedLesson } from '../../contract/lesson.ts';
import type { TermPlanEdit } from '../../contract/termPlan.ts';
import type { Database } from '../database.ts';
import { lessons, takes, termPlans } from '../schema.ts';
import { classWriter } from './classRows.ts';
import { touchClass } from './classes.ts';

/** The lessons of a class: those of no day first, then from the latest day back. */
export async function listLessons(db: Database, classId: string, most: number): Promise<SavedLesson[]> {
  const rows = await db
    .select({ id: lessons.id, lesson: lessons.lesson })
    .from(lessons)
    .where(eq(lessons.classId, classId))
    .orderBy(desc(eq(lessons.day, '')), desc(lessons.day), desc(lessons.changedAt), desc(lessons.id))
    .limit(most);
  return rows.map(({ id, lesson }) => ({ id, ...lesson }));
}

export async function findLesson(db: Database, id: string) {
  const [row] = await db
    .select({ classId: lessons.classId, lesson: lessons.lesson })
    .from(lessons)
    .where(eq(lessons.id, id))
    .limit(1);
  return row;
}

const writeRow = classWriter(lessons, 'lesson');

export const writeLesson = (db: Database, classId: string, id: string, lesson: LessonEdit) =>
  writeRow(db, classId, id, { lesson, day: lesson.day ?? '', changedAt: Date.now() });

/** What a class does in its term; undefined where nothing was planned. */
export async function findTermPlan(db: Database, classId: string): Promise<TermPlanEdit | undefined> {
  const [row] = await db
    .select({ plan: termPlans.plan })
    .from(termPlans)
    .where(eq(termPlans.classId, classId))
    .limit(1);
  return row?.plan;
}

export async function writeTermPlan(db: Database, classId: string, plan: TermPlanEdit): Promise<void> {
  await db.insert(termPlans).values({ classId, plan }).onDuplicateKeyUpdate({ set: { plan } });
  await touchClass(db, classId);
}

/** What the takes of a class since a moment say about elements, packed. @param since  milliseconds since 1970 */
export async function elementsSince(db: Database, classId: string, since: number) {
  return db
    .select({ childId: takes.childId, takenAt: takes.takenAt, elements: takes.elements })
    .from(takes)
    .where(and(eq(takes.classId, classId), gte(takes.takenAt, since), ne(takes.elements, '')));
}
