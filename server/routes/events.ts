import { t } from '../../core/words/say.ts';
import { Router } from 'express';
import { Problem } from '../problem.ts';
import { classOf } from '../services/classes.ts';
import type { ClassNews } from '../services/news.ts';
import type { Sessions } from '../services/session.ts';
import type { Database } from '../database.ts';
import { idOf } from './body.ts';
import { teacherIn, tokenFrom } from './session.ts';

/** A sign of life, so that no proxy in between takes the silence for an end. */
const ALIVE_MS = 15_000;

/** A teacher has so many views open at once at most. */
const MOST_OPEN = 20;

/**
 * `GET /:classId/events`: a stream that names the revision of a class, at once and whenever anything in it has changed.
 * What has changed is fetched by whoever wants it, by the usual ways with their usual checks.
 */
export function eventRoutes(db: Database, sessions: Sessions, news: ClassNews): Router {
  const open = new Map<string, number>();
  return Router().get('/:classId/events', async (request, response) => {
    const { id } = teacherIn(response);
    const token = tokenFrom(request);
    const classId = idOf(request, 'classId', 'class');
    const { revision } = await classOf(db, id, classId, 'look');
    if ((open.get(id) ?? 0) >= MOST_OPEN)
      throw new Problem(429, 'too-many', t`Too many views are open at once. Close some of them.`);
    open.set(id, (open.get(id) ?? 0) + 1);
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no' });
    const tell = (word: string) => response.write(`data: ${word}\n\n`);
    tell(revision);
    /** Whoever is signed out, or may not see the class any more, hears nothing more of it. */
    const still = async () => {
      const teacher = await sessions.teacherOf(token);
      if (teacher?.id !== id) throw new Error('signed out');
      return classOf(db, id, classId, 'look');
    };
    const goOn = (word: string | undefined) => {
      if (word === undefined) response.end();
      else
        still().then(
          () => tell(word),
          () => response.end(),
        );
    };
    const unwatch = news.watch(classId, revision, goOn);
    const alive = setInterval(() => {
      still().then(
        () => response.write(':\n\n'),
        () => response.end(),
      );
    }, ALIVE_MS);
    response.on('close', () => {
      clearInterval(alive);
      unwatch();
      open.set(id, (open.get(id) ?? 1) - 1);
    });
  });
}
