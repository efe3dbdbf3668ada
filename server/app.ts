import { resolve } from 'node:path';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Config } from './config.ts';
import { loggable } from './driverErrors.ts';
import { Problem, problemOf } from './problem.ts';
import { type Metrics, mayRead } from './metrics.ts';
import type { DoorResources, Resources } from './resources.ts';
import { accountRoutes } from './routes/account.ts';
import { binRoutes } from './routes/bin.ts';
import { classRoutes } from './routes/classes.ts';
import { sameSite } from './routes/guards.ts';
import { patternRoutes } from './routes/patterns.ts';
import { homeRoutes } from './routes/home.ts';
import { keptRoutes } from './routes/kept.ts';
import { PLANS } from './services/plans.ts';
import { SHEETS } from './services/sheets.ts';
import { PlanEdit } from '../contract/plan.ts';
import { SheetEdit } from '../contract/sheet.ts';
import { doorGuard, sessionRoutes, signedIn } from './routes/session.ts';
import { schoolRoutes } from './routes/schools.ts';
import { takeRoutes } from './routes/takes.ts';
import { voiceRoutes } from './routes/voice.ts';
import { roomSeatRoutes } from './routes/roomSeats.ts';
import type { ClassNews } from './services/news.ts';
import { t } from '../core/words/say.ts';
import { inLanguageAsked } from './words.ts';
import type { RoomResources } from './services/rooms.ts';
import { sessionsOf } from './services/session.ts';

/** The largest request: a take of twenty thousand onsets. */
const LARGEST_BODY = '400kb';

/** Before anybody is known: a name, a password, the answer of a passkey. */
const LARGEST_AT_THE_DOOR = '32kb';

/** What a child claps in one round: some hundred onsets. */
const LARGEST_OF_CHILD = '64kb';

/**
 * Everything from this origin and nothing else; `data:` pictures are the small signs inside the style sheet, `blob:` is
 * sound that the page made itself.
 */
const CONTENT_POLICY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    imgSrc: ["'self'", 'data:'],
    mediaSrc: ["'self'", 'blob:'],
    objectSrc: ["'none'"],
    baseUri: ["'self'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
  },
};

/**
 * @param news  tells streams of changes
 * @param alive  asks the database for a sign of life, by a way of its own
 */
export function createApp(
  resources: Resources & DoorResources & { readonly rooms: Omit<RoomResources, 'db'> },
  config: Config,
  logger: Logger,
  alive: () => Promise<void>,
  news: ClassNews,
  metrics: Metrics,
): Express {
  const app = express();
  app.set('trust proxy', config.proxies);
  app.disable('x-powered-by');
  app.use('/api/session', doorGuard(resources.tries, logger));
  app.use(logged(logger), metrics.counted);
  app.use(
    helmet({
      contentSecurityPolicy: CONTENT_POLICY,
      strictTransportSecurity: config.proxies > 0,
      // For browsers that are gone: words that every answer would carry for nothing.
      xDownloadOptions: false,
      xPermittedCrossDomainPolicies: false,
      xDnsPrefetchControl: false,
    }),
  );
  signsOfLife(app, config, alive, metrics);
  app.use('/api', (_request, response, next) => {
    // Children's names and marks stay in no cache of a browser or a proxy. What is needed on a day without a network
    // the app keeps itself, and forgets when its teacher signs out.
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.use('/api', inLanguageAsked, sameSite);
  const sessions = sessionsOf(resources.db);
  const atTheDoor = express.json({ limit: LARGEST_AT_THE_DOOR, inflate: false });
  app.use('/api/session', atTheDoor, sessionRoutes(resources, sessions, config));
  const rooms = { ...resources.rooms, db: resources.db };
  // Children's devices: they know nothing of teachers, and no teacher's cookie is of use there.
  app.use(
    '/api/room',
    express.json({ limit: LARGEST_OF_CHILD, inflate: false }),
    roomSeatRoutes({ ...resources, ...rooms }),
  );
  app.use('/api/home', express.json({ limit: LARGEST_OF_CHILD, inflate: false }), homeRoutes(resources));
  // What a request says is read only when it is known who says it.
  app.use('/api', signedIn(sessions), express.json({ limit: LARGEST_BODY, inflate: false }));
  app.use('/api/account/voice', voiceRoutes(resources.db));
  app.use('/api/account', accountRoutes(resources));
  app.use('/api/bin', binRoutes(resources.db));
  app.use('/api/classes', classRoutes(resources, sessions, news, rooms));
  app.use('/api/schools', schoolRoutes(resources.db));
  app.use('/api/patterns', patternRoutes(resources.db));
  app.use('/api/plans', keptRoutes(resources.db, PlanEdit, PLANS));
  app.use('/api/sheets', keptRoutes(resources.db, SheetEdit, SHEETS));
  app.use('/api/takes', takeRoutes(resources));
  const nothing: RequestHandler = () => {
    throw new Problem(404, 'not-found', t`There is nothing at this address.`);
  };
  app.use('/api', nothing);
  app.get('/metrics', nothing);
  if (config.pages !== undefined) servePages(app, config.pages);
  app.use(nothing);
  app.use(errors(logger));
  return app;
}

/** What balancers and those who watch a server ask for. */
function signsOfLife(app: Express, config: Config, alive: () => Promise<void>, metrics: Metrics): void {
  app.get('/healthz', async (_request, response) => {
    await alive();
    response.json({ ok: true });
  });
  // Whether it runs at all, whatever the database does: what a balancer asks, for another server would fare no better.
  app.get('/livez', (_request, response) => void response.json({ ok: true }));
  app.get('/metrics', async (request, response, next) => {
    if (!mayRead(config.metrics, request.headers.authorization, request.ip ?? '')) next();
    else response.type(metrics.type).send(await metrics.text());
  });
}

/** Asked for all the time. */
const SIGNS_OF_LIFE = new Set(['/healthz', '/livez', '/metrics', '/api/room/clock']);

/** One line for each request that was answered, without what was in it. */
const logged =
  (logger: Logger): RequestHandler =>
  (request, response, next) => {
    const from = performance.now();
    const { method, path } = request;
    response.on('finish', () => {
      if (!SIGNS_OF_LIFE.has(path))
        logger.info({ method, path, status: response.statusCode, ms: Math.round(performance.now() - from) }, 'request');
    });
    next();
  };

/** Where children's devices come in: a page of its own, small. */
const CHILDREN = /^\/(join|home)\/?$/;

/**
 * Files with a hash in their name never change; every other address is a view of the one page. Texts were packed when
 * the pages were built.
 */
function servePages(app: Express, pages: string): void {
  const packed = { enableBrotli: true, orderPreference: ['br', 'gz'] };
  const forEver = { immutable: true, maxAge: '1y', fallthrough: false };
  app.use('/assets', staticGzip(resolve(pages, 'assets'), { ...packed, serveStatic: forEver }));
  const files = staticGzip(pages, { ...packed, index: false });
  app.use(files);
  app.get(/^\/(?!api\/)/, (request, response, next) => {
    response.setHeader('Cache-Control', 'no-cache');
    request.url = CHILDREN.test(request.path) ? '/join.html' : '/index.html';
    files(request, response, next);
  });
}

const errors =
  (logger: Logger): ErrorRequestHandler =>
  (error, request, response, _next) => {
    const problem = plainStatus(error) ?? problemOf(error);
    if (!problem) logger.error({ err: loggable(error), method: request.method, path: request.path }, 'request failed');
    const { status, code, message, detail } =
      problem ??
      new Problem(500, 'internal', 'Something went wrong here. Try again; if it stays, tell whoever runs the server.');
    if (response.headersSent) {
      // A recording that breaks off in the middle must not look like a whole one.
      response.destroy();
      return;
    }
    if ('retryAfter' in detail) response.setHeader('Retry-After', String(detail.retryAfter));
    response.status(status).json({ error: { code, message, ...detail } });
  };

/** Errors of the file server and the router carry a status of their own. */
function plainStatus(error: unknown): Problem | undefined {
  const { status, type } = error as { status?: number; type?: string };
  if (error instanceof Problem || type !== undefined || status === undefined || status >= 500) return undefined;
  return new Problem(status, status === 404 ? 'not-found' : 'bad-request', 'There is nothing at this address.');
}
