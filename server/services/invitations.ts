import { v4 as uuid } from 'uuid';
import { perLanguage, t } from '../../core/words/say.ts';
import { type Invitation, INVITED_DAYS, type JoinSchool, type NewInvitation } from '../../contract/school.ts';
import type { Teacher } from '../../contract/session.ts';
import type { OneTimeCode } from '../../contract/staff.ts';
import { type Database, retried, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import {
  addInvitation,
  addMember,
  findInvitation,
  findMember,
  listInvitations,
  memberNamed,
  removeInvitation,
  countInvitation,
} from '../repository/schools.ts';
import { addTeacher } from '../repository/teachers.ts';
import { codeHash, drawCode } from './codes.ts';
import { administratorOf } from './schools.ts';

const DAY_MS = 24 * 3600 * 1000;

/** A code with which so many people may become teachers of the school. */
export async function invite(
  db: Database,
  teacher: Teacher,
  schoolId: string,
  { administrator, uses }: NewInvitation,
): Promise<OneTimeCode> {
  administratorOf(teacher, schoolId);
  return makeInvitation(db, schoolId, administrator, uses);
}

/** The same for whoever runs the server. */
export async function makeInvitation(
  db: Database,
  schoolId: string,
  administrator: boolean,
  uses: number,
): Promise<OneTimeCode> {
  const code = drawCode();
  const madeAt = Date.now();
  const expiresAt = madeAt + INVITED_DAYS * DAY_MS;
  const invitation = { id: uuid(), schoolId, codeHash: codeHash(code), administrator, left: uses, madeAt, expiresAt };
  await retried(() => addInvitation(db, invitation));
  return { code };
}

export async function invitationsOf(db: Database, teacher: Teacher, schoolId: string): Promise<Invitation[]> {
  administratorOf(teacher, schoolId);
  return listInvitations(db, schoolId, Date.now());
}

/** Nobody comes in with it any more. */
export async function takeInvitationBack(db: Database, teacher: Teacher, schoolId: string, id: string): Promise<void> {
  administratorOf(teacher, schoolId);
  if (!(await retried(() => removeInvitation(db, schoolId, id)))) throw notFound('invitation');
}

/** Refuses a name that somebody at the school has already. */
export async function refuseTaken(db: Database, schoolId: string, name: string): Promise<void> {
  if (await memberNamed(db, schoolId, name))
    throw new Problem(409, 'name-taken', t`There is a teacher called ${name} already. Choose another name.`, {
      field: 'name',
    });
}

const NO_INVITATION = perLanguage(
  () =>
    new Problem(401, 'wrong-code', t`This invitation does not fit, was used, or is too old. Ask for a new one.`, {
      field: 'code',
    }),
);

/** Where an invitation leads; refuses one that cannot be used. */
export async function invitedTo(db: Database, code: string) {
  const found = await findInvitation(db, codeHash(code), Date.now());
  if (!found) throw NO_INVITATION();
  return found;
}

/** Uses it up by one. */
async function takeInvitation(db: Database, code: string): Promise<void> {
  if (!(await countInvitation(db, codeHash(code), Date.now()))) throw NO_INVITATION();
}

/** A teacher who is in becomes one of another school too. */
export async function joinSchool(db: Database, teacher: Teacher, { code, name }: JoinSchool): Promise<void> {
  await transacted(db, async (inside) => {
    const { schoolId, administrator } = await invitedTo(inside, code);
    const known = await findMember(inside, schoolId, teacher.id);
    // A school that has closed an account opens it itself.
    if (known)
      throw known.closed
        ? new Problem(403, 'account-closed', t`This account is closed. Ask the administrator of your school.`)
        : new Problem(409, 'at-this-school', t`You are at this school already.`);
    await refuseTaken(inside, schoolId, name.trim());
    await takeInvitation(inside, code);
    await addMember(inside, { schoolId, teacherId: teacher.id, name: name.trim(), administrator });
  });
}

/** An account by an invitation, which is used up by one. */
export async function addInvited(
  db: Database,
  code: string,
  account: { readonly id: string; readonly name: string; readonly passwordHash: string },
): Promise<void> {
  const { schoolId: school, administrator } = await invitedTo(db, code);
  await refuseTaken(db, school, account.name);
  await takeInvitation(db, code);
  await addTeacher(db, { ...account, school, administrator });
}
