import { perLanguage, t } from '../../core/words/say.ts';
import { randomBytes } from 'node:crypto';
import { v4 as uuid } from 'uuid';
import { setTimeout as wait } from 'node:timers/promises';
import { type Database, retried, transacted } from '../database.ts';
import { hashPassword, passwordFits, passwordTrouble, pretendPassword } from '../password.ts';
import { Problem } from '../problem.ts';
import {
  addSession,
  forgetDevice,
  forgetDevices,
  isKnownDevice,
  isReset,
  keepDevice,
  findTeacherById,
  findTeacherByName,
  putReset,
  removePasskeys,
  removeSession,
  removeSessions,
  sessionFinder,
  setPassword,
  takeReset,
  teacherAtSchools,
} from '../repository/teachers.ts';
import type { AcceptInvitation, ChangePassword, ResetPassword, SignIn, Teacher } from '../../contract/session.ts';
import { removeIdentities } from '../repository/signOns.ts';
import { listSchools } from '../repository/schools.ts';
import { addInvited, invitedTo } from './invitations.ts';
import { codeHash, drawCode, tokenHash } from './codes.ts';
import { browserName } from '../browserName.ts';
import type { DoorResources } from '../resources.ts';

/** A school day and the evening after it, for two weeks. */
export const SESSION_MS = 14 * 24 * 3600 * 1000;

/** A code that was given out is good for a school day. */
const RESET_MS = 24 * 3600 * 1000;

export interface Opened {
  readonly teacher: Teacher;
  /** For the cookie. */
  readonly token: string;
}

const CLOSED = perLanguage(
  () => new Problem(403, 'account-closed', t`This account is closed. Ask the administrator of your school.`),
);

/** Begins a session of a teacher. @param browser  what it says of itself */
export async function openSession(db: Database, { id }: Pick<Teacher, 'id'>, browser: string): Promise<Opened> {
  const teacher = await teacherAtSchools(db, id);
  if (!teacher) throw CLOSED();
  const token = randomBytes(32).toString('base64url');
  const startedAt = Date.now();
  const session = { tokenHash: tokenHash(token), teacherId: id, expiresAt: startedAt + SESSION_MS, startedAt };
  await retried(() => addSession(db, { ...session, device: browserName(browser) }));
  return { teacher, token };
}

/** Where a request comes from. */
export interface Origin {
  readonly address: string;
  /** The token of a browser that was here before. */
  readonly device: string | undefined;
  /** What the browser says of itself. */
  readonly browser: string;
  /** Tells when it has left. */
  readonly signal?: AbortSignal;
}

/** A browser is kept in mind for a school year. */
export const DEVICE_MS = 370 * 24 * 3600 * 1000;

/**
 * Whose door is knocked at. Names are looked up as the database compares them: however one is spelled, what finds a
 * teacher is counted as hers. A browser in which she has been before is counted by itself: whoever guesses from that
 * building does not hold it up.
 * @param found  is told who it is
 */
function trying(
  db: Database,
  { name, school }: { readonly name: string; readonly school?: string | undefined },
  { address, device, signal }: Origin,
  found: (teacher: Known) => void,
) {
  const isToken = device !== undefined && device.length <= 100;
  const token = isToken ? tokenHash(device) : '';
  const who = async () => {
    const at = school ?? (await onlySchool(db));
    const teacher = await findTeacherByName(db, name.trim(), at);
    if (!teacher) return { account: `nobody ${at} ${name.normalize('NFKC').trim().toLowerCase()}` };
    found(teacher);
    const isKnown = isToken && (await isKnownDevice(db, teacher.id, token));
    return { account: teacher.id, device: isKnown ? token : undefined };
  };
  return { address, claims: isToken, who, signal };
}
type Known = NonNullable<Awaited<ReturnType<typeof findTeacherByName>>>;

/** Where an installation has one school, nobody has to say which. */
async function onlySchool(db: Database): Promise<string> {
  const [first, second] = await listSchools(db);
  if (first && !second) return first.id;
  throw new Problem(422, 'which-school', t`Choose your school.`, { field: 'school' });
}

/** Keeps in mind that a teacher has been in with this browser. @returns a new token for its cookie */
export async function rememberDevice(db: Database, teacherId: string, before: string | undefined): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  const usedAt = Date.now();
  await retried(async () => {
    await keepDevice(db, { tokenHash: tokenHash(token), teacherId, usedAt }, usedAt - DEVICE_MS);
    if (before !== undefined) await forgetDevice(db, teacherId, tokenHash(before));
  });
  return token;
}

/** Names that are nobody's are let through so far apart, for each is counted all the same. */
const NOBODY_MS = 20;

export async function signIn(door: DoorResources, { password, ...whose }: SignIn, from: Origin): Promise<Opened> {
  let teacher: Known | undefined;
  const one = trying(door.db, whose, from, (found) => (teacher = found));
  return door.tries.look(one, async (letOn) => {
    // A name that is nobody's takes as long, but holds up nobody else.
    if (!teacher) void wait(NOBODY_MS).then(letOn);
    const fits = teacher ? await passwordFits(password, teacher.passwordHash) : await pretendPassword(password);
    if (!teacher || !fits)
      throw new Problem(401, 'wrong-password', t`Name and password do not belong together. Check both and try again.`, {
        field: 'password',
      });
    return openSession(door.db, teacher, from.browser);
  });
}

/** For the visitor of a demo: signs in the demo's own teacher. */
export async function visit(db: Database, demoTeacher: string, browser: string): Promise<Opened> {
  const teacher = await findTeacherByName(db, demoTeacher);
  if (!teacher) throw new Problem(503, 'no-demo', t`The demo school is not there yet. Start the demo again.`);
  return openSession(db, teacher, browser);
}

function refuseWeak(password: string, name: string): void {
  const trouble = passwordTrouble(password, name);
  if (trouble) throw new Problem(422, 'weak-password', t`Choose another one: ${trouble}.`, { field: 'password' });
}

/** A new password; every other device is signed out. */
export async function changePassword(
  { db, tries }: DoorResources,
  { id, name }: Teacher,
  { current, password }: ChangePassword,
  token: string,
  { address, signal }: Origin,
): Promise<void> {
  refuseWeak(password, name);
  // Whoever is in has been let in: the session is what is known of this browser.
  const who = () => Promise.resolve({ account: id, device: tokenHash(token) });
  await tries.look({ address, claims: true, who, signal }, async () => {
    const teacher = await findTeacherById(db, id);
    if (!teacher || !(await passwordFits(current, teacher.passwordHash)))
      throw new Problem(422, 'wrong-password', t`This is not your password of now. Check it and try again.`, {
        field: 'current',
      });
  });
  const hash = await hashPassword(password);
  await transacted(db, async (inside) => {
    await setPassword(inside, id, hash);
    await removeSessions(inside, id, tokenHash(token));
  });
}

/** Lets a teacher choose a new password once. @returns the code, to be handed over in person */
export async function allowReset(db: Database, teacherId: string): Promise<string> {
  const code = drawCode();
  await retried(() => putReset(db, { teacherId, codeHash: codeHash(code), expiresAt: Date.now() + RESET_MS }));
  return code;
}

/**
 * The code is used up, and whoever was in is out: other devices, and passkeys and sign-ins elsewhere that somebody else
 * may have added.
 */
export async function resetPassword(
  door: DoorResources,
  { code, password, ...whose }: ResetPassword,
  from: Origin,
): Promise<Opened> {
  refuseWeak(password, whose.name);
  let teacher: Known | undefined;
  const one = trying(door.db, whose, from, (found) => (teacher = found));
  const hashOfCode = codeHash(code);
  return door.tries.look(one, async () => {
    // A code is long and drawn by lot: a wrong one is found out without the cost of a password.
    const hash = teacher && (await isReset(door.db, teacher.id, hashOfCode)) ? await hashPassword(password) : undefined;
    const done =
      hash !== undefined &&
      (await transacted(door.db, async (inside) => {
        if (!(await takeReset(inside, teacher!.id, hashOfCode))) return false;
        await setPassword(inside, teacher!.id, hash);
        await removeSessions(inside, teacher!.id, '');
        await removePasskeys(inside, teacher!.id);
        await removeIdentities(inside, teacher!.id);
        await forgetDevices(inside, teacher!.id);
        return true;
      }));
    if (!teacher || !done)
      throw new Problem(
        401,
        'wrong-code',
        t`Name and code do not belong together, or the code was used or is too old.`,
        {
          field: 'code',
        },
      );
    return openSession(door.db, teacher, from.browser);
  });
}

/** Somebody with an invitation becomes a teacher of its school, and is in. */
export async function acceptInvitation(
  { db, tries }: DoorResources,
  { name, code, password }: AcceptInvitation,
  { address, browser, signal }: Origin,
): Promise<Opened> {
  refuseWeak(password, name);
  const id = uuid();
  // Guesses at codes count like guesses at a password.
  const who = () => Promise.resolve({ account: 'invitation' });
  return tries.look({ address, claims: false, who, signal }, async () => {
    await invitedTo(db, code);
    const passwordHash = await hashPassword(password);
    await transacted(db, (inside) => addInvited(inside, code, { id, name: name.trim(), passwordHash }));
    return openSession(db, { id }, browser);
  });
}

export interface Sessions {
  /** The teacher of a token from the cookie, as the database has it at this moment. */
  readonly teacherOf: (token: string | undefined) => Promise<Teacher | undefined>;
  readonly end: (token: string) => Promise<void>;
}

export function sessionsOf(db: Database): Sessions {
  const find = sessionFinder(db);
  return {
    teacherOf: async (token) => (token === undefined || token.length > 100 ? undefined : find(tokenHash(token))),
    end: (token) => retried(() => removeSession(db, tokenHash(token))),
  };
}
