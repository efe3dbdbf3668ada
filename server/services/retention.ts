import { BIN_DAYS } from '../../contract/bin.ts';
import type { Cleared, HoldEdit, Retention, RetentionTrial } from '../../contract/school.ts';
import type { Teacher } from '../../contract/session.ts';
import { type Database, transacted } from '../database.ts';
import {
  childrenWithOld,
  countOld,
  listCleared,
  removeOldSounds,
  removeOldTakes,
  removeOldTerms,
  sayCleared,
  schoolsToClear,
  setChildHeld,
  setClassHeld,
  takeNight,
  whyChild,
  whyClass,
} from '../repository/retention.ts';
import { emptyBin } from './bin.ts';
import { ownChild } from './childData.ts';
import { classOf } from './classes.ts';
import { administratorOf, teacherAt } from './schools.ts';

const DAY_MS = 24 * 3600 * 1000;

/** From then on it is night: nobody teaches. */
const NIGHT_FROM = 2;

/** The day at a school, as in 2026-12-01, and the hour. */
export function dayAt(zone: string, now: number): { readonly day: string; readonly hour: number } {
  const parts = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    hourCycle: 'h23',
  }).formatToParts(now);
  const part = (type: string) => parts.find((one) => one.type === type)?.value ?? '';
  return { day: `${part('year')}-${part('month')}-${part('day')}`, hour: Number(part('hour')) };
}

/**
 * Removes at every school what has had its time there, once a night; a server that was off at night does it when it
 * runs again. What is left when one dies in the middle goes the night after.
 */
export async function clearSchools(db: Database, now = Date.now()): Promise<void> {
  for (const { id, zone, retention, retentionFrom, clearedNight } of await schoolsToClear(db)) {
    const { day, hour } = dayAt(zone, now);
    if (day === clearedNight || hour < NIGHT_FROM || now < retentionFrom) continue;
    if (await takeNight(db, id, day)) await clearSchool(db, id, retention, day, now);
  }
}

const AT_ONCE = 20;

async function clearSchool(
  db: Database,
  schoolId: string,
  retention: Retention,
  night: string,
  now: number,
): Promise<void> {
  const before = (days: number) => now - days * DAY_MS;
  const say = async (kind: Cleared['kind'], removed: number) => {
    if (removed > 0) await sayCleared(db, schoolId, { night, kind, removed });
  };
  const { takes, recordings, terms, left } = retention;
  // Child by child: many takes in one go would hold up everybody.
  for (let old; takes !== null && (old = await childrenWithOld(db, schoolId, before(takes), AT_ONCE)).length > 0;)
    for (const child of old)
      await say('takes', await transacted(db, (inside) => removeOldTakes(inside, child, before(takes))));
  if (recordings !== null)
    await say('recordings', await transacted(db, (inside) => removeOldSounds(inside, schoolId, before(recordings))));
  if (terms !== null)
    await say('terms', await transacted(db, (inside) => removeOldTerms(inside, schoolId, before(terms))));
  const gone = await emptyBin(db, schoolId, before(left ?? BIN_DAYS));
  await say('children', gone.child);
  await say('classes', gone.class);
}

/** What was removed at the nights of a school: all who teach there may know. */
export async function clearedOf(db: Database, teacher: Teacher, schoolId: string): Promise<Cleared[]> {
  teacherAt(teacher, schoolId);
  return listCleared(db, schoolId);
}

/** What would go if the school kept things so long. */
export async function wouldGo(
  db: Database,
  teacher: Teacher,
  schoolId: string,
  { takes, recordings, terms }: Pick<Retention, 'takes' | 'recordings' | 'terms'>,
): Promise<RetentionTrial> {
  administratorOf(teacher, schoolId);
  const now = Date.now();
  const before = (days: number | null) => (days === null ? null : now - days * DAY_MS);
  return countOld(db, schoolId, { takes: before(takes), recordings: before(recordings), terms: before(terms) });
}

/** Why a class is kept beyond the school's time; null where it is not. */
export async function classHeld(db: Database, teacher: Teacher, classId: string): Promise<HoldEdit> {
  await classOf(db, teacher.id, classId, 'owner');
  return { why: await whyClass(db, classId) };
}

/** The same of one child. */
export async function childHeld(db: Database, teacher: Teacher, classId: string, childId: string): Promise<HoldEdit> {
  await ownChild(db, teacher, classId, childId);
  return { why: await whyChild(db, childId) };
}

/** Keeps a class beyond the school's time, or lets it go. */
export async function holdClassData(db: Database, teacher: Teacher, classId: string, { why }: HoldEdit): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacher.id, classId, 'owner');
    await setClassHeld(inside, classId, why);
  });
}

/** The same for one child. */
export async function holdChildData(
  db: Database,
  teacher: Teacher,
  classId: string,
  childId: string,
  { why }: HoldEdit,
): Promise<void> {
  await transacted(db, async (inside) => {
    await ownChild(inside, teacher, classId, childId);
    await setChildHeld(inside, classId, childId, why);
  });
}
