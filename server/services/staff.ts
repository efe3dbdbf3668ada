import { perLanguage, t } from '../../core/words/say.ts';
import { randomBytes } from 'node:crypto';
import { v4 as uuid } from 'uuid';
import type { Teacher } from '../../contract/session.ts';
import type { NewTeacher, OneTimeCode, StaffEdit, StaffMember } from '../../contract/staff.ts';
import { type Database, transacted } from '../database.ts';
import { hashPassword } from '../password.ts';
import { Problem, notFound } from '../problem.ts';
import {
  addTeacher,
  closeTeacher,
  findTeacherById,
  findTeacherByName,
  listTeachers,
  removeSessions,
} from '../repository/teachers.ts';
import { allowReset } from './session.ts';

const NOT_ADMINISTRATOR = perLanguage(
  () =>
    new Problem(
      403,
      'not-administrator',
      t`Only an administrator of the school looks after accounts. Ask whoever runs the server.`,
    ),
);

function administratorOnly({ administrator }: Teacher): void {
  if (!administrator) throw NOT_ADMINISTRATOR();
}

/** The accounts of the school; nothing of what is in them. */
export async function staffOf(db: Database, teacher: Teacher): Promise<StaffMember[]> {
  administratorOnly(teacher);
  return listTeachers(db);
}

/** Makes an account. @returns the code with which its teacher chooses a password */
export async function makeAccount(db: Database, teacher: Teacher, { name }: NewTeacher): Promise<OneTimeCode> {
  administratorOnly(teacher);
  const id = uuid();
  // Nobody knows it: the way in is the code.
  const passwordHash = await hashPassword(randomBytes(32).toString('base64url'));
  await transacted(db, async (inside) => {
    if (await findTeacherByName(inside, name.trim()))
      throw new Problem(409, 'name-taken', t`There is a teacher called ${name.trim()} already. Choose another name.`, {
        field: 'name',
      });
    await addTeacher(inside, { id, name: name.trim(), passwordHash });
  });
  return { code: await allowReset(db, id) };
}

/** Lets a teacher who forgot the password choose a new one. @returns the code, to be handed over in person */
export async function giveCode(db: Database, teacher: Teacher, teacherId: string): Promise<OneTimeCode> {
  administratorOnly(teacher);
  if (!(await findTeacherById(db, teacherId))) throw notFound('teacher');
  return { code: await allowReset(db, teacherId) };
}

/** Closes an account, or opens it again; whoever is in is out at once, and what is in it stays. */
export async function changeAccount(
  db: Database,
  teacher: Teacher,
  teacherId: string,
  { closed }: StaffEdit,
): Promise<void> {
  administratorOnly(teacher);
  if (closed && teacherId === teacher.id)
    throw new Problem(422, 'own-account', t`You cannot close your own account. Let another administrator do it.`);
  await transacted(db, async (inside) => {
    if (!(await findTeacherById(inside, teacherId))) throw notFound('teacher');
    await closeTeacher(inside, teacherId, closed);
    if (closed) await removeSessions(inside, teacherId, '');
  });
}
