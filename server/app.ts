import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { sql } from 'drizzle-orm';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Config } from './config.ts';
import type { Database } from './database.ts';
import { Problem, problemOf } from './problem.ts';
import { classRoutes } from './routes/classes.ts';
import { patternRoutes } from './routes/patterns.ts';
import { planRoutes } from './routes/plans.ts';
import { sessionRoutes, signedIn } from './routes/session.ts';
import { takeRoutes } from './routes/takes.ts';
import { sessionsOf } from './services/session.ts';

/** The largest request: a take of twenty thousand onsets. */
const LARGEST_BODY = '400kb';

/** A recording of a take: three minutes of plain sound. */
const LARGEST_RECORDING = '15mb';

/** Everything from this origin and nothing else; `data:` pictures are the small signs inside the style sheet. */
const CONTENT_POLICY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    imgSrc: ["'self'", 'data:'],
    objectSrc: ["'none'"],
    baseUri: ["'self'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
  },
};

export function createApp(db: Database, config: Config, logger: Logger): Express {
  const app = express();
  app.set('trust proxy', config.proxies);
  app.disable('x-powered-by');
  app.use(logged(logger));
  app.use(helmet({ contentSecurityPolicy: CONTENT_POLICY, strictTransportSecurity: config.proxies > 0 }));
  app.get('/healthz', async (_request, response) => {
    await db.execute(sql`select 1`);
    response.json({ ok: true });
  });
  app.use('/api/takes/:takeId/recording', express.raw({ type: 'audio/*', limit: LARGEST_RECORDING }));
  app.use('/api', express.json({ limit: LARGEST_BODY }), (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-cache');
    next();
  });
  const sessions = sessionsOf(db);
  app.use('/api/session', sessionRoutes(db, sessions, config));
  app.use('/api', signedIn(sessions));
  app.use('/api/classes', classRoutes(db));
  app.use('/api/patterns', patternRoutes(db));
  app.use('/api/plans', planRoutes(db));
  app.use('/api/takes', takeRoutes(db));
  app.use('/api', () => {
    throw new Problem(404, 'not-found', 'There is nothing at this address.');
  });
  if (config.pages !== undefined && existsSync(config.pages)) servePages(app, config.pages);
  app.use(errors(logger));
  return app;
}

/** One line for each request that was answered, without what was in it. */
const logged =
  (logger: Logger): RequestHandler =>
  (request, response, next) => {
    const from = performance.now();
    const { method, path } = request;
    response.on('finish', () => {
      if (path !== '/healthz')
        logger.info({ method, path, status: response.statusCode, ms: Math.round(performance.now() - from) }, 'request');
    });
    next();
  };

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
    request.url = '/index.html';
    files(request, response, next);
  });
}

const errors =
  (logger: Logger): ErrorRequestHandler =>
  (error, request, response, _next) => {
    const problem = problemOf(error) ?? plainStatus(error);
    if (!problem) logger.error({ err: error as unknown, method: request.method, path: request.path }, 'request failed');
    const { status, code, message, detail } =
      problem ??
      new Problem(500, 'internal', 'Something went wrong here. Try again; if it stays, tell whoever runs the server.');
    if (!response.headersSent) response.status(status).json({ error: { code, message, ...detail } });
  };

/** Errors of the file server and the router carry a status of their own. */
function plainStatus(error: unknown): Problem | undefined {
  const status = (error as { status?: number }).status;
  if (status === undefined || status >= 500) return undefined;
  return new Problem(status, status === 404 ? 'not-found' : 'bad-request', 'There is nothing at this address.');
}
