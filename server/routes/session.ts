import { t } from '../../core/words/say.ts';
import { type SerializeOptions, parse, serialize } from 'cookie';
import { type Request, type RequestHandler, type Response, Router } from 'express';
import type { Config } from '../config.ts';
import { Problem } from '../problem.ts';
import type { DoorResources } from '../resources.ts';
import { type Site, askForPasskey, signInWithPasskey } from '../services/account.ts';
import {
  DEVICE_MS,
  type Opened,
  type Origin,
  SESSION_MS,
  type Sessions,
  rememberDevice,
  resetPassword,
  signIn,
  visit,
} from '../services/session.ts';
import type { Logger } from 'pino';
import { doorBusy } from '../door/queue.ts';
import type { SignInTries } from '../services/signInTries.ts';
import { bodyOf } from './body.ts';
import { PasskeySignIn, ResetPassword, SignIn, type SessionState, type Teacher } from '../../contract/session.ts';

const COOKIE = 'clapboard_session';
const DEVICE_COOKIE = 'clapboard_device';

/** In which a page says whose it is: another tab of the same browser may have signed in somebody else. */
const PAGE_OF = 'clapboard-teacher';

export function tokenFrom(request: Request): string | undefined {
  return parse(request.headers.cookie ?? '')[COOKIE];
}

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

export function sessionRoutes(resources: DoorResources, sessions: Sessions, config: Config): Router {
  const { db } = resources;
  const [typed, reset, passkey] = [bodyOf(SignIn), bodyOf(ResetPassword), bodyOf(PasskeySignIn)];
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
      const state: SessionState = { teacher: (await sessions.teacherOf(tokenFrom(request))) ?? null, demo };
      response.json(state);
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
