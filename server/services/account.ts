import { type Language, perLanguage, t } from '../../core/words/say.ts';
import { createHash } from 'node:crypto';
import {
  type AuthenticationResponseJSON,
  type RegistrationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import { v4 as uuid } from 'uuid';
import type { Account, NewPasskey, PasskeyRequest, PasskeySignIn, Teacher } from '../../contract/session.ts';
import { type Database, retried } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import {
  addChallenge,
  addPasskey,
  countPasskeyUse,
  findPasskey,
  findTeacherById,
  listPasskeys,
  listSessions,
  removePasskey,
  removeSessionOf,
  removeSessions,
  setLanguage,
  takeChallenge,
} from '../repository/teachers.ts';
import { identityOf, removeIdentities } from '../repository/signOns.ts';
import type { DoorResources } from '../resources.ts';
import { tokenHash } from './codes.ts';
import { type Opened, openSession } from './session.ts';

/** Where the page stands, as the browser sees it. */
export interface Site {
  readonly host: string;
  readonly origin: string;
}

const CHALLENGE_MS = 5 * 60 * 1000;
const MOST_PASSKEYS = 10;

export async function accountOf({ db, signOn }: DoorResources, teacherId: string, token: string): Promise<Account> {
  const keys = await listPasskeys(db, teacherId);
  const since = (signOn && (await identityOf(db, teacherId))) ?? null;
  return {
    ...(signOn ? { signOn: { name: signOn.name, since } } : {}),
    devices: (await listSessions(db, teacherId)).map(({ tokenHash: id, device, startedAt }) => ({
      id,
      name: device,
      startedAt,
      here: id === tokenHash(token),
    })),
    passkeys: keys.map(({ id, name, createdAt }) => ({ id, name, createdAt })),
  };
}

/** The other place vouches for this teacher no more. */
export async function forgetIdentity(db: Database, teacherId: string): Promise<void> {
  await retried(() => removeIdentities(db, teacherId));
}

/** @param language  null is as the browser has it */
export async function chooseLanguage(db: Database, teacherId: string, language: Language | null): Promise<void> {
  await retried(() => setLanguage(db, teacherId, language));
}

export async function endOtherSessions(db: Database, teacherId: string, token: string): Promise<void> {
  await retried(() => removeSessions(db, teacherId, tokenHash(token)));
}

/** Signs one browser out. */
export async function endSession(db: Database, teacherId: string, id: string): Promise<void> {
  if (!(await retried(() => removeSessionOf(db, teacherId, id)))) throw notFound('device');
}

async function challenged(
  db: Database,
  teacherId: string | null,
  options: PasskeyRequest['options'] & { challenge: string },
): Promise<PasskeyRequest> {
  const challengeId = uuid();
  const { challenge } = options;
  await addChallenge(db, { id: challengeId, teacherId, challenge, expiresAt: Date.now() + CHALLENGE_MS });
  return { challengeId, options };
}

/** What a browser needs to make a passkey for this teacher. */
export async function offerPasskey(db: Database, { id, name }: Teacher, site: Site): Promise<PasskeyRequest> {
  const known = await listPasskeys(db, id);
  if (known.length >= MOST_PASSKEYS)
    throw new Problem(409, 'too-many', t`${MOST_PASSKEYS} passkeys are enough. Remove one first.`);
  const options = await generateRegistrationOptions({
    rpName: 'Clapboard',
    rpID: site.host,
    userName: name,
    userID: new TextEncoder().encode(id),
    attestationType: 'none',
    excludeCredentials: known.map(({ credentialId }) => ({ id: credentialId })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  return challenged(db, id, options);
}

const REFUSED = perLanguage(
  () =>
    new Problem(
      401,
      'passkey-refused',
      t`This passkey does not fit, or it took too long. Try again, or sign in with your password.`,
    ),
);

/** Checks what was answered; the library throws at whatever does not fit. */
async function fitting<T extends { readonly verified: boolean }>(check: () => Promise<T>): Promise<T> {
  const checked = await check().catch(() => undefined);
  if (!checked?.verified) throw REFUSED();
  return checked;
}

const keyId = (credentialId: string) => createHash('sha256').update(credentialId).digest('hex');

export async function keepPasskey(
  db: Database,
  teacherId: string,
  { challengeId, name, answer }: NewPasskey,
  site: Site,
): Promise<void> {
  const asked = await takeChallenge(db, challengeId);
  if (!asked || asked.teacherId !== teacherId) throw REFUSED();
  const { registrationInfo } = await fitting(() =>
    verifyRegistrationResponse({
      response: answer as RegistrationResponseJSON,
      expectedChallenge: asked.challenge,
      expectedOrigin: site.origin,
      expectedRPID: site.host,
    }),
  );
  if (!registrationInfo) throw REFUSED();
  const { id: credentialId, publicKey, counter } = registrationInfo.credential;
  await addPasskey(db, {
    id: keyId(credentialId),
    teacherId,
    credentialId,
    publicKey: Buffer.from(publicKey).toString('base64url'),
    counter,
    transports: answer.response.transports ?? null,
    name: name.trim(),
    createdAt: Date.now(),
  });
}

export async function dropPasskey(db: Database, teacherId: string, id: string): Promise<void> {
  if (!(await removePasskey(db, teacherId, id))) throw notFound('passkey');
}

/** What a browser needs to find a passkey of whoever sits there. */
export async function askForPasskey(db: Database, site: Site): Promise<PasskeyRequest> {
  return challenged(db, null, await generateAuthenticationOptions({ rpID: site.host, userVerification: 'required' }));
}

export async function signInWithPasskey(
  db: Database,
  { challengeId, answer }: PasskeySignIn,
  site: Site,
  browser: string,
): Promise<Opened> {
  const asked = await takeChallenge(db, challengeId);
  const passkey = await findPasskey(db, keyId(answer.id));
  const teacher = passkey && (await findTeacherById(db, passkey.teacherId));
  if (!asked || asked.teacherId !== null || !teacher) throw REFUSED();
  const { authenticationInfo } = await fitting(() =>
    verifyAuthenticationResponse({
      response: answer as AuthenticationResponseJSON,
      expectedChallenge: asked.challenge,
      expectedOrigin: site.origin,
      expectedRPID: site.host,
      credential: {
        id: passkey.credentialId,
        publicKey: new Uint8Array(Buffer.from(passkey.publicKey, 'base64url')),
        counter: passkey.counter,
      },
    }),
  );
  await countPasskeyUse(db, passkey.id, authenticationInfo.newCounter);
  return openSession(db, teacher, browser);
}
