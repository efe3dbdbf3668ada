import { t } from '../../core/words/say.ts';
import { format, parseISO, isValid } from 'date-fns';
import type { LessonEdit, SavedLesson } from '../../contract/lesson.ts';
import type { HeardWeeks, TermPlanEdit } from '../../contract/termPlan.ts';
import { daysBetween } from '../../core/planning/days.ts';
import { mondayOf } from '../../core/planning/picture.ts';
import { unpackElements } from '../../core/records/heardElements.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { binRow } from '../repository/binnedRows.ts';
import { holdClass } from '../repository/classes.ts';
import {
  elementsSince,
  findLesson,
  findTermPlan,
  listLessons,
  writeLesson,
  writeTermPlan,
} from '../repository/planning.ts';
import { classOf } from './classes.ts';
import { checkDay } from './days.ts';
import { merged } from './merge.ts';
import { readEach } from './patternText.ts';

/** Two school years of them. */
const MOST_SHOWN = 200;
/** A term, or a whole school year planned at once. */
const LONGEST_TERM = 400;

export async function lessonsOf(db: Database, teacherId: string, classId: string): Promise<SavedLesson[]> {
  await classOf(db, teacherId, classId, 'look');
  return listLessons(db, classId, MOST_SHOWN);
}

/** What fits its schema and makes no sense all the same. @param name  of the lesson, in what is sent */
export async function checkLesson({ day, blocks }: LessonEdit, name = ''): Promise<void> {
  if (day !== null) checkDay(day, `${name}day`);
  if (new Set(blocks.map(({ key }) => key)).size < blocks.length)
    throw new Problem(422, 'bad-request', t`blocks: two blocks have the same key.`, { field: `${name}blocks` });
  await readEach(
    blocks.flatMap(({ patterns }, b) =>
      patterns.map(({ text }, i) => [text, `${name}blocks.${b}.patterns.${i}.text`] as const),
    ),
  );
}

/** Makes or changes a lesson. */
export async function saveLesson(
  db: Database,
  teacherId: string,
  classId: string,
  lessonId: string,
  wanted: LessonEdit,
  was?: LessonEdit,
): Promise<{ readonly done: 'made' | 'changed'; readonly lesson: LessonEdit }> {
  await checkLesson(wanted);
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findLesson(inside, lessonId);
    if (known && known.classId !== classId) throw notFound('lesson');
    const lesson = known ? merged(was, known.lesson, wanted) : wanted;
    await writeLesson(inside, classId, lessonId, lesson);
    return { done: known ? 'changed' : 'made', lesson };
  });
}

export async function dropLesson(db: Database, teacherId: string, classId: string, lessonId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findLesson(inside, lessonId);
    if (known?.classId !== classId) throw notFound('lesson');
    await binRow(inside, 'lesson', classId, lessonId, known.lesson.title, Date.now());
  });
}

export async function termPlanOf(db: Database, teacherId: string, classId: string): Promise<TermPlanEdit | null> {
  await classOf(db, teacherId, classId, 'look');
  return (await findTermPlan(db, classId)) ?? null;
}

/** What fits its schema and makes no sense all the same. @param name  of the plan, in what is sent */
export function checkTermPlan({ from, until, holidays }: TermPlanEdit, name = ''): void {
  checkDay(from, `${name}from`);
  checkDay(until, `${name}until`);
  const days = daysBetween(from, until);
  if (days < 0)
    throw new Problem(422, 'bad-request', t`until: the term ends before it begins.`, { field: `${name}until` });
  if (days > LONGEST_TERM)
    throw new Problem(422, 'bad-request', t`until: a term has at most ${LONGEST_TERM} days.`, {
      field: `${name}until`,
    });
  for (const [i, one] of holidays.entries()) {
    checkDay(one.from, `${name}holidays.${i}.from`);
    checkDay(one.until, `${name}holidays.${i}.until`);
    if (one.until < one.from)
      throw new Problem(422, 'bad-request', t`holidays: these end before they begin.`, {
        field: `${name}holidays.${i}`,
      });
  }
}

/** Makes or changes what a class does in its term. */
export async function saveTermPlan(
  db: Database,
  teacherId: string,
  classId: string,
  wanted: TermPlanEdit,
  was?: TermPlanEdit,
): Promise<TermPlanEdit> {
  checkTermPlan(wanted);
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findTermPlan(inside, classId);
    const plan = known ? merged(was, known, wanted) : wanted;
    await writeTermPlan(inside, classId, plan);
    return plan;
  });
}

/** What a class was heard in, week by week, from a day on. */
export async function heardWeeksOf(
  db: Database,
  teacherId: string,
  classId: string,
  from: string | undefined,
): Promise<HeardWeeks> {
  await classOf(db, teacherId, classId, 'look');
  if (from === undefined || !/^\d{4}-\d\d-\d\d$/.test(from) || !isValid(parseISO(from)))
    throw new Problem(422, 'bad-request', t`from: say from which day on, as in ?from=2026-09-28.`, { field: 'from' });
  const weeks = new Map<string, { one: HeardWeeks[number]; children: Set<string> }>();
  for (const { childId, takenAt, elements } of await elementsSince(db, classId, +parseISO(from))) {
    const week = mondayOf(format(takenAt, 'yyyy-MM-dd'));
    for (const { element, right, misread } of unpackElements(elements)) {
      if (right + misread === 0) continue;
      const key = `${week} ${element}`;
      const known = weeks.get(key) ?? { one: { week, element, children: 0, right: 0, weight: 0 }, children: new Set() };
      weeks.set(key, known);
      known.children.add(childId);
      known.one.right += right;
      known.one.weight += right + misread;
    }
  }
  return [...weeks.values()].map(({ one, children }) => ({ ...one, children: children.size }));
}
