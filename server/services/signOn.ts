import { createHash, randomBytes } from 'node:crypto';
import { v4 as uuid } from 'uuid';
import {
  authorizationCodeGrant,
  buildAuthorizationUrl,
  calculatePKCECodeChallenge,
  randomNonce,
  randomPKCECodeVerifier,
  randomState,
} from 'openid-client';
import { perLanguage, t } from '../../core/words/say.ts';
import type { SignOnAccount, SignOnAnswer } from '../../contract/session.ts';
import { type Database, retried, transacted } from '../database.ts';
import { hashPassword } from '../password.ts';
import { Problem, busy } from '../problem.ts';
import type { SignOn } from '../door/signOnPlace.ts';
import type { DoorResources } from '../resources.ts';
import {
  addIdentity,
  addSignOn,
  countSignOns,
  findIdentity,
  findSignOn,
  keepIdentity,
  takeSignOn,
} from '../repository/signOns.ts';
import { tokenHash } from './codes.ts';
import { addInvited } from './invitations.ts';
import { type Opened, type Origin, openSession } from './session.ts';

/** A flood of people who never come back fills no table: so many teachers are not on their way at once. */
const MOST_AWAY = 5_000;

/** So long somebody may take at the other place, and then with the invitation. */
const AWAY_MS = 15 * 60_000;

function noAnswer({ name }: SignOn): Problem {
  return new Problem(503, 'sign-on-away', t`${name} does not answer now. Sign in with your password, or try again.`);
}

const REFUSED = perLanguage(
  () => new Problem(401, 'sign-on-refused', t`This sign-in did not come back as it went, or took too long. Try again.`),
);

/** Sends somebody there. @param teacherId  who is in already and says who she is there; null at the door */
export async function leave(
  db: Database,
  signOn: SignOn,
  redirect: string,
  teacherId: string | null,
): Promise<{ readonly url: string; readonly token: string }> {
  if ((await countSignOns(db)) >= MOST_AWAY) throw busy();
  const place = await signOn.place().catch(() => Promise.reject(noAnswer(signOn)));
  const [state, nonce, verifier] = [randomState(), randomNonce(), randomPKCECodeVerifier()];
  const url = buildAuthorizationUrl(place, {
    redirect_uri: redirect,
    scope: 'openid profile',
    state,
    nonce,
    code_challenge: await calculatePKCECodeChallenge(verifier),
    code_challenge_method: 'S256',
  });
  const token = randomBytes(32).toString('base64url');
  const sent = { stateHash: tokenHash(state), browserHash: tokenHash(token), nonce, verifier, teacherId };
  await retried(() => addSignOn(db, { ...sent, expiresAt: Date.now() + AWAY_MS }));
  return { url: url.href, token };
}

/** Who somebody is elsewhere: neither the issuer nor its name for the person is kept. */
const keyOf = (issuer: string, subject: string) =>
  createHash('sha256')
    .update(JSON.stringify([issuer, subject]))
    .digest('hex');

export type CameBack =
  | { readonly kind: 'in'; readonly opened: Opened }
  | { readonly kind: 'linked' }
  /** Nobody here yet: an invitation makes an account of it. */
  | { readonly kind: 'new'; readonly name: string };

/** Somebody comes back from there. @param inside  who is signed in in this browser */
export async function comeBack(
  db: Database,
  signOn: SignOn,
  redirect: string,
  { query }: SignOnAnswer,
  token: string,
  inside: string | undefined,
  browser: string,
): Promise<CameBack> {
  const state = new URLSearchParams(query).get('state') ?? '';
  const sent = await findSignOn(db, tokenHash(state), tokenHash(token), Date.now());
  if (!sent || sent.identity !== null || (sent.teacherId !== null && sent.teacherId !== inside)) throw REFUSED();
  const place = await signOn.place().catch(() => Promise.reject(noAnswer(signOn)));
  const tokens = await authorizationCodeGrant(place, new URL(`${redirect}?${query}`), {
    pkceCodeVerifier: sent.verifier,
    expectedState: state,
    expectedNonce: sent.nonce,
    idTokenExpected: true,
  }).catch(() => undefined);
  const claims = tokens?.claims();
  if (!claims) throw REFUSED();
  const key = keyOf(claims.iss, claims.sub);
  const known = await findIdentity(db, key);
  if (sent.teacherId !== null) {
    const { teacherId } = sent;
    if (known !== undefined && known !== teacherId)
      throw new Problem(
        409,
        'sign-on-taken',
        t`This sign-in belongs to another account here. Sign in with it instead.`,
      );
    await transacted(db, async (inside_) => {
      if (!(await takeSignOn(inside_, tokenHash(state)))) throw REFUSED();
      if (known === undefined) await addIdentity(inside_, key, teacherId);
    });
    return { kind: 'linked' };
  }
  if (known === undefined) {
    await retried(() => keepIdentity(db, tokenHash(state), key));
    return { kind: 'new', name: typeof claims['name'] === 'string' ? claims['name'].slice(0, 60) : '' };
  }
  if (!(await retried(() => takeSignOn(db, tokenHash(state))))) throw REFUSED();
  return { kind: 'in', opened: await openSession(db, { id: known }, browser) };
}

/** Whom the other place vouched for becomes a teacher by an invitation, without a password. */
export async function makeSignedOn(
  { db, tries }: DoorResources,
  { name, code, state }: SignOnAccount,
  token: string,
  { address, browser, signal }: Origin,
): Promise<Opened> {
  const id = uuid();
  const who = () => Promise.resolve({ account: 'invitation' });
  // Nobody knows it: the way in is the other place.
  const passwordHash = await hashPassword(randomBytes(32).toString('base64url'));
  return tries.look({ address, claims: false, who, signal }, async () => {
    await transacted(db, async (inside) => {
      const sent = await findSignOn(inside, tokenHash(state), tokenHash(token), Date.now());
      if (!sent?.identity) throw REFUSED();
      await addInvited(inside, code, { id, name: name.trim(), passwordHash });
      await addIdentity(inside, sent.identity, id);
      await takeSignOn(inside, tokenHash(state));
    });
    return openSession(db, { id }, browser);
  });
}
