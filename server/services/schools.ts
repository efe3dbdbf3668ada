import { perLanguage, t } from '../../core/words/say.ts';
import { GRACE_DAYS, type Retention, type School, type SchoolEdit, type SchoolSign } from '../../contract/school.ts';
import type { Teacher } from '../../contract/session.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { findSchool, holdSchool, listSchools, schoolNamed, updateSchool } from '../repository/schools.ts';

const NOT_ADMINISTRATOR = perLanguage(
  () =>
    new Problem(
      403,
      'not-administrator',
      t`Only an administrator of the school looks after accounts. Ask whoever runs the server.`,
    ),
);

/** Refuses who is not at a school; it is as if there were none. */
export function teacherAt({ schools }: Teacher, schoolId: string) {
  const own = schools.find(({ id }) => id === schoolId);
  if (!own) throw notFound('school');
  return own;
}

export function administratorOf(teacher: Teacher, schoolId: string): void {
  if (!teacherAt(teacher, schoolId).administrator) throw NOT_ADMINISTRATOR();
}

/** The schools of the installation, as anybody at the door sees them. */
export function schoolSigns(db: Database): Promise<SchoolSign[]> {
  return listSchools(db);
}

/** What a school has set: all who teach there may know how long things are kept. */
export async function schoolOf(db: Database, teacher: Teacher, schoolId: string): Promise<School> {
  teacherAt(teacher, schoolId);
  const found = await findSchool(db, schoolId);
  if (!found) throw notFound('school');
  return found;
}

function checkZone(zone: string): void {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
  } catch {
    throw new Problem(422, 'bad-zone', t`There is no time zone called ${zone}. Choose one of the list.`, {
      field: 'zone',
    });
  }
}

const DAY_MS = 24 * 3600 * 1000;
const TIMES = ['takes', 'recordings', 'terms', 'left'] as const;

/** Is anything kept for a shorter time than before? */
const isShorter = (now: Retention, before: Retention) =>
  TIMES.some((one) => (now[one] ?? Infinity) < (before[one] ?? Infinity));

/** A shorter time holds some days later, so that whoever needs something can hold it. */
export async function saveSchool(
  db: Database,
  teacher: Teacher,
  schoolId: string,
  { name, zone, language, retention }: SchoolEdit,
): Promise<School> {
  administratorOf(teacher, schoolId);
  checkZone(zone);
  return transacted(db, async (inside) => {
    await holdSchool(inside, schoolId);
    const known = await schoolOf(inside, teacher, schoolId);
    const same = await schoolNamed(inside, name.trim());
    if (same && same.id !== schoolId)
      throw new Problem(409, 'name-taken', t`There is a school called ${name.trim()} already. Choose another name.`, {
        field: 'name',
      });
    const shorter = isShorter(retention, known.retention);
    const retentionFrom = shorter ? Date.now() + GRACE_DAYS * DAY_MS : known.retentionFrom;
    const values = { id: schoolId, name: name.trim(), zone, language, retention, retentionFrom };
    await updateSchool(inside, values);
    return values;
  });
}
