import { randomBytes } from 'node:crypto';
import { v4 as uuid } from 'uuid';
import { t } from '../../core/words/say.ts';
import type { Teacher } from '../../contract/session.ts';
import type { NewTeacher, OneTimeCode, StaffEdit, StaffMember } from '../../contract/staff.ts';
import { type Database, transacted } from '../database.ts';
import { hashPassword } from '../password.ts';
import { Problem, notFound } from '../problem.ts';
import { closeMember, findMember, listMembers, schoolsOf } from '../repository/schools.ts';
import { addTeacher, removeSessions } from '../repository/teachers.ts';
import { refuseTaken } from './invitations.ts';
import { administratorOf } from './schools.ts';
import { allowReset } from './session.ts';

/** The accounts of a school; nothing of what is in them. */
export async function staffOf(db: Database, teacher: Teacher, schoolId: string): Promise<StaffMember[]> {
  administratorOf(teacher, schoolId);
  return listMembers(db, schoolId);
}

/** Makes an account. @returns the code with which its teacher chooses a password */
export async function makeAccount(
  db: Database,
  teacher: Teacher,
  school: string,
  { name }: NewTeacher,
): Promise<OneTimeCode> {
  administratorOf(teacher, school);
  const id = uuid();
  // Nobody knows it: the way in is the code.
  const passwordHash = await hashPassword(randomBytes(32).toString('base64url'));
  await transacted(db, async (inside) => {
    await refuseTaken(inside, school, name.trim());
    await addTeacher(inside, { id, name: name.trim(), passwordHash, school });
  });
  return { code: await allowReset(db, id) };
}

/**
 * Lets a teacher who forgot the password choose a new one. Whoever has that code is in all that is the teacher's: for
 * somebody who teaches at another school too, it is not for one of them to give out.
 * @returns the code, to be handed over in person
 */
export async function giveCode(
  db: Database,
  teacher: Teacher,
  schoolId: string,
  teacherId: string,
): Promise<OneTimeCode> {
  administratorOf(teacher, schoolId);
  if (!(await findMember(db, schoolId, teacherId))) throw notFound('teacher');
  if ((await schoolsOf(db, teacherId)) > 1)
    throw new Problem(
      409,
      'at-several-schools',
      t`This teacher is at another school too, and a code would let whoever has it into both. Ask whoever runs the
        server for one.`,
    );
  return { code: await allowReset(db, teacherId) };
}

/** Closes an account at a school, or opens it again; whoever is in is out at once, and what is in it stays. */
export async function changeAccount(
  db: Database,
  teacher: Teacher,
  schoolId: string,
  teacherId: string,
  { closed }: StaffEdit,
): Promise<void> {
  administratorOf(teacher, schoolId);
  if (closed && teacherId === teacher.id)
    throw new Problem(422, 'own-account', t`You cannot close your own account. Let another administrator do it.`);
  await transacted(db, async (inside) => {
    if (!(await findMember(inside, schoolId, teacherId))) throw notFound('teacher');
    await closeMember(inside, schoolId, teacherId, closed);
    if (closed && (await schoolsOf(inside, teacherId)) === 1) await removeSessions(inside, teacherId, '');
  });
}
