import { addDays, differenceInCalendarDays, parseISO } from 'date-fns';
import { DAYS_A_WEEK, type PracticeEdit, type PracticeWeek } from '../../contract/practice.ts';
import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { binRow } from '../repository/binnedRows.ts';
import { holdClass } from '../repository/classes.ts';
import { findPractice, heardBetween, listPractice, writePractice } from '../repository/practice.ts';
import { classOf } from './classes.ts';
import { checkDay } from './days.ts';
import { merged } from './merge.ts';
import { readEach } from './patternText.ts';

/** A school year of them. */
const MOST_SHOWN = 60;

/** The practice weeks of a class, newest first, each with what was heard in it. */
export async function practiceOf(db: Database, teacherId: string, classId: string): Promise<PracticeWeek[]> {
  await classOf(db, teacherId, classId, 'look');
  const weeks = await listPractice(db, classId, MOST_SHOWN);
  return Promise.all(
    weeks.map(async (week) => {
      const from = parseISO(week.starts);
      const keys = week.plan.items.map(({ patternId }) => patternId);
      const heard = await heardBetween(db, classId, keys, +from, +addDays(from, DAYS_A_WEEK));
      const counted = new Map<string, PracticeWeek['practised'][number]>();
      for (const { childId, patternKey, takenAt } of heard) {
        const day = differenceInCalendarDays(takenAt, from);
        week.plan.items.forEach(({ patternId }, item) => {
          if (patternId !== patternKey) return;
          const key = `${childId} ${item} ${day}`;
          const known = counted.get(key);
          counted.set(key, { childId, item, day, times: (known?.times ?? 0) + 1 });
        });
      }
      return { ...week, practised: [...counted.values()] };
    }),
  );
}

/** Makes or changes a practice week. */
export async function savePractice(
  db: Database,
  teacherId: string,
  classId: string,
  weekId: string,
  wanted: PracticeEdit,
  was?: PracticeEdit,
): Promise<{ readonly done: 'made' | 'changed'; readonly week: PracticeEdit }> {
  checkDay(wanted.starts, 'starts');
  await readEach(wanted.plan.items.map(({ text }, i) => [text, `plan.items.${i}.text`] as const));
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findPractice(inside, weekId);
    if (known && known.classId !== classId) throw notFound('practice week');
    const week = known ? merged(was, { starts: known.starts, plan: known.plan }, wanted) : wanted;
    await writePractice(inside, classId, weekId, week);
    return { done: known ? 'changed' : 'made', week };
  });
}

export async function dropPractice(db: Database, teacherId: string, classId: string, weekId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findPractice(inside, weekId);
    if (known?.classId !== classId) throw notFound('practice week');
    await binRow(inside, 'practice', classId, weekId, known.plan.title, Date.now());
  });
}
