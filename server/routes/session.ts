import { t } from '../../core/words/say.ts';
import { type SerializeOptions, parse, serialize } from 'cookie';
import { type Request, type RequestHandler, type Response, Router } from 'express';
import type { Config } from '../config.ts';
import { Problem } from '../problem.ts';
import { schoolSigns } from '../services/schools.ts';
import type { DoorResources } from '../resources.ts';
import { type Site, askForPasskey, signInWithPasskey } from '../services/account.ts';
import {
  DEVICE_MS,
  type Opened,
  type Origin,
  SESSION_MS,
  type Sessions,
  acceptInvitation,
  rememberDevice,
  resetPassword,
  signIn,
  visit,
} from '../services/session.ts';
import type { Logger } from 'pino';
import { doorBusy } from '../door/queue.ts';
import type { SignOn } from '../door/signOnPlace.ts';
import { comeBack, leave, makeSignedOn } from '../services/signOn.ts';
import type { SignInTries } from '../services/signInTries.ts';
import { bodyOf } from './body.ts';
import {
  AcceptInvitation,
  PasskeySignIn,
  ResetPassword,
  SignOnAccount,
  SignOnAnswer,
  SignIn,
  type SessionState,
  type Teacher,
} from '../../contract/session.ts';

const COOKIE = 'clapboard_session';
const DEVICE_COOKIE = 'clapboard_device';
const SIGN_ON_COOKIE = 'clapboard_sign_on';

/** In which a page says whose it is: another tab of the same browser may have signed in somebody else. */
const PAGE_OF = 'clapboard-teacher';

export function tokenFrom(request: Request): string | undefined {
  return parse(request.headers.cookie ?? '')[COOKIE];
}

const cookieIn = (request: Request, name: string) => parse(request.headers.cookie ?? '')[name] ?? '';

export function siteOf(request: Request): Site {
  return { host: request.hostname, origin: `${request.protocol}://${request.host}` };
}

function setCookie(request: Request, response: Response, name: string, token: string, maxAge: number): void {
  const options: SerializeOptions = { httpOnly: true, sameSite: 'strict', path: '/', secure: request.secure, maxAge };
  response.append('Set-Cookie', serialize(name, token, options));
}

/** Lets only a signed-in teacher on, to the teacher's own pages; the teacher is then in `response.locals.teacher`. */
export function signedIn({ teacherOf }: Sessions): RequestHandler {
  return async (request, response, next) => {
    const teacher = await teacherOf(tokenFrom(request));
    if (!teacher)
      throw new Problem(
        401,
        'signed-out',
        t`You are signed out. Sign in again; what you did is kept on this device until then.`,
      );
    const pageOf = request.headers[PAGE_OF];
    if (pageOf !== undefined && pageOf !== teacher.id)
      throw new Problem(
        401,
        'other-teacher',
        t`Another teacher has signed in in this browser. Sign in again to go on; what you
          did is kept until then.`,
      );
    response.locals['teacher'] = teacher;
    next();
  };
}

export function teacherIn(response: Response): Teacher {
  return response.locals['teacher'] as Teacher;
}

const browserOf = (request: Request) => request.headers['user-agent'] ?? '';

export function originOf(request: Request): Origin {
  const leaving = new AbortController();
  request.res?.once('close', () => leaving.abort());
  return {
    signal: leaving.signal,
    address: request.ip ?? '',
    device: parse(request.headers.cookie ?? '')[DEVICE_COOKIE],
    browser: browserOf(request),
  };
}

const REFUSED_SAID_MS = 10_000;

/**
 * Strangers of a place that is full are sent away before anything else is done for them: a flood of them costs next to
 * nothing. How many there were is said now and then, not for each.
 */
export function doorGuard(tries: SignInTries, logger: Logger): RequestHandler {
  let [refused, saidAt] = [0, 0];
  return (request, _response, next) => {
    const seconds = request.method === 'POST' && !request.headers.cookie ? tries.fullFor(request.ip ?? '') : 0;
    if (seconds === 0) return next();
    refused++;
    if (Date.now() - saidAt > REFUSED_SAID_MS) {
      logger.warn({ refused }, 'too many at the door');
      [refused, saidAt] = [0, Date.now()];
    }
    next(doorBusy(seconds));
  };
}

/** Where who was sent to the other place comes back to; a page of the app. */
const signOnPage = (request: Request) => `${siteOf(request).origin}/sign-on`;
const SIGN_ON_S = 15 * 60;

function signOnOf({ signOn }: DoorResources): SignOn {
  if (!signOn)
    throw new Problem(404, 'no-sign-on', t`No other place vouches for teachers here. Sign in with your password.`);
  return signOn;
}

/** Tells a browser where to go to say who it is. @param teacherId  who is in already */
export async function sendAway(
  resources: DoorResources,
  request: Request,
  response: Response,
  teacherId: string | null,
): Promise<void> {
  const { url, token } = await leave(resources.db, signOnOf(resources), signOnPage(request), teacherId);
  setCookie(request, response, SIGN_ON_COOKIE, token, SIGN_ON_S);
  response.json({ url });
}

type Begin = (request: Request, response: Response, opened: Opened) => Promise<void>;

/** In by the place that vouches for teachers. */
function signOnRoutes(resources: DoorResources, sessions: Sessions, begin: Begin): Router {
  const [answer, account] = [bodyOf(SignOnAnswer), bodyOf(SignOnAccount)];
  return Router()
    .post('/', async (request, response) => {
      await sendAway(resources, request, response, null);
    })
    .post('/answer', async (request, response) => {
      const teacher = await sessions.teacherOf(tokenFrom(request));
      const back = await comeBack(
        resources.db,
        signOnOf(resources),
        signOnPage(request),
        answer(request),
        cookieIn(request, SIGN_ON_COOKIE),
        teacher?.id,
        browserOf(request),
      );
      if (back.kind === 'in') await begin(request, response, back.opened);
      else response.json(back);
    })
    .post('/account', async (request, response) => {
      const body = account(request);
      signOnOf(resources);
      const opened = await makeSignedOn(resources, body, cookieIn(request, SIGN_ON_COOKIE), originOf(request));
      await begin(request, response, opened);
    });
}

/** What somebody who is not in needs to know. */
async function atTheDoor({ db, signOn }: DoorResources, demo: boolean): Promise<SessionState> {
  const schools = await schoolSigns(db);
  return {
    teacher: null,
    demo,
    ...(schools.length > 1 ? { schools } : {}),
    ...(signOn ? { signOn: { name: signOn.name } } : {}),
  };
}

export function sessionRoutes(resources: DoorResources, sessions: Sessions, config: Config): Router {
  const { db } = resources;
  const [typed, reset, passkey] = [bodyOf(SignIn), bodyOf(ResetPassword), bodyOf(PasskeySignIn)];
  const invited = bodyOf(AcceptInvitation);
  const demo = config.demoTeacher !== undefined;
  const begin = async (request: Request, response: Response, opened: Opened, asGuest = false) => {
    const before = tokenFrom(request);
    if (before) await sessions.end(before);
    setCookie(request, response, COOKIE, opened.token, SESSION_MS / 1000);
    if (!asGuest) {
      const device = await rememberDevice(db, opened.teacher.id, originOf(request).device);
      setCookie(request, response, DEVICE_COOKIE, device, DEVICE_MS / 1000);
    }
    const state: SessionState = { teacher: opened.teacher, demo };
    response.json(state);
  };
  return Router()
    .get('/', async (request, response) => {
      const teacher = await sessions.teacherOf(tokenFrom(request));
      response.json(teacher ? { teacher, demo } : await atTheDoor(resources, demo));
    })
    .post('/', async (request, response) => {
      await begin(request, response, await signIn(resources, typed(request), originOf(request)));
    })
    .post('/visit', async (request, response) => {
      if (config.demoTeacher === undefined)
        throw new Problem(404, 'no-demo', t`There is no demo school here. Sign in with your name and password.`);
      await begin(request, response, await visit(db, config.demoTeacher, browserOf(request)), true);
    })
    .post('/reset', async (request, response) => {
      await begin(request, response, await resetPassword(resources, reset(request), originOf(request)));
    })
    .post('/invitation', async (request, response) => {
      await begin(request, response, await acceptInvitation(resources, invited(request), originOf(request)));
    })
    .use('/sign-on', signOnRoutes(resources, sessions, begin))
    .post('/passkey/options', async (request, response) => {
      response.json(await askForPasskey(db, siteOf(request)));
    })
    .post('/passkey', async (request, response) => {
      await begin(
        request,
        response,
        await signInWithPasskey(db, passkey(request), siteOf(request), browserOf(request)),
      );
    })
    .delete('/', async (request, response) => {
      const token = tokenFrom(request);
      if (token) await sessions.end(token);
      setCookie(request, response, COOKIE, '', 0);
      response.status(204).end();
    });
}
