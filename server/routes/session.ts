import { type SerializeOptions, parse, serialize } from 'cookie';
import { type Request, type RequestHandler, type Response, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { Config } from '../config.ts';
import type { Database } from '../database.ts';
import { Problem } from '../problem.ts';
import { SESSION_MS, type Sessions, signIn, visit } from '../services/session.ts';
import { bodyOf } from './body.ts';
import { SignIn, type SessionState, type Teacher } from '../../contract/session.ts';

const COOKIE = 'clapboard_session';

function tokenFrom(request: Request): string | undefined {
  return parse(request.headers.cookie ?? '')[COOKIE];
}

function setCookie(request: Request, response: Response, token: string, maxAge: number): void {
  const options: SerializeOptions = { httpOnly: true, sameSite: 'strict', path: '/', secure: request.secure, maxAge };
  response.setHeader('Set-Cookie', serialize(COOKIE, token, options));
}

/** Lets only a signed-in teacher on; the teacher is then in `response.locals.teacher`. */
export function signedIn({ teacherOf }: Sessions): RequestHandler {
  return async (request, response, next) => {
    const teacher = await teacherOf(tokenFrom(request));
    if (!teacher)
      throw new Problem(
        401,
        'signed-out',
        'You are signed out. Sign in again; what you did is kept on this device until then.',
      );
    response.locals['teacher'] = teacher;
    next();
  };
}

export function teacherIn(response: Response): Teacher {
  return response.locals['teacher'] as Teacher;
}

const TRIES = 8;
const TRIES_MS = 15 * 60 * 1000;

export function sessionRoutes(db: Database, sessions: Sessions, config: Config): Router {
  const body = bodyOf(SignIn);
  const limited = rateLimit({
    windowMs: TRIES_MS,
    limit: TRIES,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw new Problem(429, 'too-many-tries', 'Too many wrong passwords. Wait a quarter of an hour, then try again.');
    },
  });
  const begin = (request: Request, response: Response, opened: { teacher: Teacher; token: string }) => {
    setCookie(request, response, opened.token, SESSION_MS / 1000);
    const state: SessionState = { teacher: opened.teacher, demo: config.demoTeacher !== undefined };
    response.json(state);
  };
  return Router()
    .get('/', async (request, response) => {
      const state: SessionState = {
        teacher: (await sessions.teacherOf(tokenFrom(request))) ?? null,
        demo: config.demoTeacher !== undefined,
      };
      response.json(state);
    })
    .post('/', limited, async (request, response) => begin(request, response, await signIn(db, body(request))))
    .post('/visit', limited, async (request, response) => {
      if (config.demoTeacher === undefined)
        throw new Problem(404, 'no-demo', 'There is no demo school here. Sign in with your name and password.');
      begin(request, response, await visit(db, config.demoTeacher));
    })
    .delete('/', async (request, response) => {
      const token = tokenFrom(request);
      if (token) await sessions.end(token);
      setCookie(request, response, '', 0);
      response.status(204).end();
    });
}
