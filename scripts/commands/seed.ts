import { addDays, format, getYear, parseISO, startOfWeek, subWeeks } from 'date-fns';
import { v4 as uuid } from 'uuid';
import { classHeard } from '../../core/ensemble/classHeard.ts';
import { strikesOfTakes } from '../../core/ensemble/strikes.ts';
import { judgeTake } from '../../core/judging/judgeTake.ts';
import type { BlockKind } from '../../core/planning/lesson.ts';
import { lessonSlots } from '../../core/planning/slots.ts';
import { type TermStep, spread } from '../../core/planning/term.ts';
import { type Random, randomFrom } from '../../core/random.ts';
import { type SimulatedChild, simulateTake } from '../../core/judging/simulatedChild.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import {
  CLASSES,
  type DemoClass,
  PATTERNS,
  PATTERNS_IN_PARTS,
  SCHOOL,
  TEACHER,
  TEMPOS,
  WEEKS,
} from '../../demo/school.ts';
import { COLLEAGUE, SHELF } from './demoShelf.ts';
import { type Database, openDatabase } from '../../server/database.ts';
import { judgedColumns } from '../../server/judging/judgedColumns.ts';
import { migrateDatabase } from '../../server/migrate.ts';
import { hashPassword } from '../../server/password.ts';
import { rebuildRecords } from '../../server/repository/childRecords.ts';
import { writeLesson, writeTermPlan } from '../../server/repository/planning.ts';
import { eq } from 'drizzle-orm';
import { addTeacher, findTeacherByName } from '../../server/repository/teachers.ts';
import { children, classes, hearings, patterns, schools, shelfItems, takes } from '../../server/schema.ts';
import { FIRST_SCHOOL } from '../../contract/school.ts';

const DAY_MS = 24 * 3600 * 1000;
const SEED = 1884;
/** For so many weeks the class was heard as one. */
const WEEKS_TOGETHER = 4;

/** Each child has a steadiness of its own, and some have one thing they struggle with. */
function habitsOf(random: Random, ages: DemoClass['ages']): SimulatedChild {
  const spread = (ages === '7-8' ? 0.03 : 0.022) + 0.02 * random.next();
  const child = {
    spread,
    lead: 0.02 + 0.04 * random.next(),
    drift: random.normal() * 0.012,
    leavesOut: random.next() < 0.2 ? 0.12 : 0.015,
  };
  switch (random.below(7)) {
    case 0:
      return { ...child, habits: { 'rest-clapped': 0.45 } };
    case 1:
      return { ...child, habits: { 'hold-pulsed': 0.35, 'dot-too-short': 0.25 } };
    case 2:
      return { ...child, habits: { 'tie-restruck': 0.6, 'sixteenths-slow': 0.3 } };
    case 3:
      return { ...child, drift: 0.09 };
    case 4:
      return { ...child, habits: { 'rest-skipped': 0.2, 'upbeat-on-beat': 0.25 } };
    default:
      return child;
  }
}

/** A child makes fewer slips each week. */
function practised(child: SimulatedChild, week: number): SimulatedChild {
  const left = 1 - (0.6 * week) / (WEEKS - 1);
  const chance = (value = 0) => value * left;
  return {
    ...child,
    spread: child.spread * (0.75 + 0.25 * left),
    habits: Object.fromEntries(Object.entries(child.habits ?? {}).map(([code, value]) => [code, chance(value)])),
    leavesOut: chance(child.leavesOut),
  };
}

/** The same day, within one lesson in the morning. */
function inSchoolHours(time: number, random: Random): number {
  return new Date(time).setHours(9, 40, 0, 0) + random.below(40 * 60 * 1000);
}

type PatternRow = typeof patterns.$inferInsert;
type TakeRow = typeof takes.$inferInsert;

/** Each week a class hears two patterns, and each child claps one or two takes of each. */
function takesOf(
  random: Random,
  { id: childId, classId }: { readonly id: string; readonly classId: string },
  child: SimulatedChild,
  demo: DemoClass,
  rows: readonly PatternRow[],
  now: number,
): TakeRow[] {
  return Array.from({ length: WEEKS }, (_, week) => week).flatMap((week) => {
    const newest = Math.max(1, Math.round(((week + 1) * demo.patterns) / WEEKS) - 1);
    return [newest - 1, newest].flatMap((which, k) => {
      if (random.next() < 0.06) return []; // away that day
      const row = rows[which]!;
      const parsed = parseRhythm(row.text);
      if (!parsed.ok) throw new Error(`demo pattern: ${row.text}`);
      const bpm = TEMPOS[Math.min(TEMPOS.length - 1, Math.floor(week / 2))]!;
      const takenAt = inSchoolHours(now - (WEEKS - week) * 7 * DAY_MS + (k * 2 + 1) * DAY_MS, random);
      const onsets = simulateTake(parsed.pattern, bpm, practised(child, week), random.below(2 ** 31)).map(
        (t) => Math.round(t * 1e4) / 1e4,
      );
      const judged = judgeTake({ patternText: row.text, bpm, onsets }, { ages: demo.ages });
      if (!judged.ok) throw new Error(`demo take: ${judged.trouble.code}`);
      return [
        {
          id: uuid(),
          childId,
          classId,
          patternId: row.id,
          patternKey: row.id,
          title: row.title,
          patternText: row.text,
          bpm,
          onsets,
          takenAt,
          ...judgedColumns(judged, demo.ages),
        },
      ];
    });
  });
}

/** Lately the class clapped its newest pattern as one, twice a lesson; each child as it claps alone. */
function heardTogether(classId: string, all: readonly SimulatedChild[], row: PatternRow, now: number) {
  const random = randomFrom(SEED + all.length);
  const parsed = parseRhythm(row.text);
  if (!parsed.ok) throw new Error(`demo pattern: ${row.text}`);
  const { pattern } = parsed;
  return Array.from({ length: 2 * WEEKS_TOGETHER }, (_, i) => {
    const week = WEEKS - WEEKS_TOGETHER + Math.floor(i / 2);
    const bpm = TEMPOS[Math.min(TEMPOS.length - 1, Math.floor(week / 2))]!;
    const claps = all.map((child) => simulateTake(pattern, bpm, practised(child, week), random.below(2 ** 31)));
    return {
      id: uuid(),
      classId,
      takenAt: inSchoolHours(now - (WEEKS - week) * 7 * DAY_MS + DAY_MS, random),
      title: row.title,
      patternText: row.text,
      bpm,
      from: 'microphone' as const,
      heard: classHeard(pattern, bpm, strikesOfTakes(claps), { hands: all.length }),
    };
  });
}

/** Puts the demo school into an empty database; where its teacher is already, nothing changes. */
export async function seedDemo(url: string, now = Date.now()): Promise<void> {
  await migrateDatabase(url);
  const { db, pool } = openDatabase(url, { connections: 2, statementMs: 60_000 });
  try {
    if (!(await findTeacherByName(db, TEACHER.name))) await fill(db, now);
  } finally {
    await pool.end();
  }
}

async function fill(db: Database, now: number): Promise<void> {
  const teacherId = uuid();
  const passwordHash = await hashPassword(TEACHER.password);
  const rows: PatternRow[] = PATTERNS.map((pattern, i) => ({
    id: uuid(),
    teacherId,
    ...pattern,
    position: now - (PATTERNS.length - i) * 1000,
  }));
  await db.transaction(async (tx) => {
    await addTeacher(tx as unknown as Database, {
      id: teacherId,
      name: TEACHER.name,
      passwordHash,
      administrator: true,
    });
    await tx.update(schools).set({ name: SCHOOL }).where(eq(schools.id, FIRST_SCHOOL));
    await layOut(tx as unknown as Database, now);
    await tx.insert(patterns).values(rows);
    await tx.insert(patterns).values(
      PATTERNS_IN_PARTS.map((pattern, i) => ({
        id: uuid(),
        teacherId,
        ...pattern,
        folder: 'In parts',
        position: now + i,
      })),
    );
    for (const [i, demo] of CLASSES.entries()) {
      const classId = uuid();
      const random = randomFrom(SEED + i);
      const childRows = demo.children.map((name, k) => ({ id: uuid(), classId, name, position: k }));
      await tx
        .insert(classes)
        .values({ id: classId, teacherId, name: demo.name, ages: demo.ages, school: demo.school });
      await tx.insert(children).values(childRows);
      const habits: SimulatedChild[] = [];
      const takeRows = childRows.flatMap((row) => {
        const child = habitsOf(random, demo.ages);
        habits.push(child);
        return takesOf(random, row, child, demo, rows, now);
      });
      for (let from = 0; from < takeRows.length; from += 100)
        await tx.insert(takes).values(takeRows.slice(from, from + 100));
      for (const row of childRows) await rebuildRecords(tx as unknown as Database, row.id);
      await tx.insert(hearings).values(heardTogether(classId, habits, rows[demo.patterns - 1]!, now));
      await plan(tx as unknown as Database, classId, demo, rows, now);
    }
  });
}

/** The shelf of the school, by a colleague into whose account nobody gets. */
async function layOut(db: Database, now: number): Promise<void> {
  const teacherId = uuid();
  await addTeacher(db, { id: teacherId, name: COLLEAGUE, passwordHash: 'none' });
  const from = `${COLLEAGUE}, ${SCHOOL}`;
  await db.insert(shelfItems).values(
    SHELF.map((item, i) => ({
      id: uuid(),
      schoolId: FIRST_SCHOOL,
      teacherId,
      from,
      ...item,
      putAt: now - (i + 1) * 4 * DAY_MS,
    })),
  );
}

const TERM_WEEKS = 14;
const dayIn = (weeks: number, monday: Date, days = 0) => format(addDays(monday, weeks * 7 + days), 'yyyy-MM-dd');

/** A week in the middle, and two over the turn of the year where the term has one. */
function holidaysOf(monday: Date) {
  const year = getYear(monday);
  const turn = { from: `${year}-12-21`, until: `${year + 1}-01-03` };
  const week = { from: dayIn(9, monday), until: dayIn(9, monday, 6) };
  const inTerm = turn.from <= dayIn(TERM_WEEKS - 1, monday, 4);
  if (!inTerm) return [week];
  // Where both would meet, the turn of the year is it.
  return week.until < turn.from || week.from > turn.until ? [week, turn] : [turn];
}

/** The term of a class: it began with the first takes, and what is new in it is what is new in its patterns. */
async function plan(db: Database, classId: string, demo: DemoClass, rows: readonly PatternRow[], now: number) {
  const monday = startOfWeek(subWeeks(now, WEEKS), { weekStartsOn: 1 });
  const term = {
    from: dayIn(0, monday),
    until: dayIn(TERM_WEEKS - 1, monday, 4),
    slots: demo.slots.map((slot) => ({ ...slot })),
    holidays: holidaysOf(monday),
    order: [...demo.order],
  };
  const slots = lessonSlots(term);
  await writeTermPlan(db, classId, { ...term, ...spread(demo.order, slots.length) });
  const last = slots.findLastIndex(({ day }) => day < format(now, 'yyyy-MM-dd'));
  const { contents } = spread(demo.order, slots.length);
  const { day, starts, minutes } = slots[last]!;
  const pattern = rows[demo.patterns - 1]!;
  const block = (key: number, kind: BlockKind, steps: readonly TermStep[] = []) => ({
    key,
    kind,
    steps: [...steps],
    patterns: PLAYED.includes(kind) ? [{ patternId: pattern.id, title: pattern.title, text: pattern.text }] : [],
  });
  const at = +parseISO(`${day}T${starts}`);
  await writeLesson(db, classId, uuid(), {
    title: pattern.title,
    minutes,
    day,
    starts,
    blocks: [
      block(0, 'warm-up'),
      block(1, 'read', contents[last]),
      block(2, 'lead'),
      block(3, 'ear'),
      block(4, 'close'),
    ],
    held: { at, seconds: 60 * (minutes - 2), leftOut: [3] },
  });
}

const PLAYED: readonly BlockKind[] = ['warm-up', 'read', 'lead', 'ear'];
