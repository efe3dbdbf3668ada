import type { RequestHandler } from 'express';
import { turnsOf } from '../turns.ts';
import { teacherIn } from './session.ts';

/** Beyond so many a request is to be sent again later. */
const MOST_WAITING = 500;
const turns = turnsOf(1, MOST_WAITING);

/**
 * What one teacher changes in a class is done one after the other. All of it goes through the row of the class, and so
 * whoever waits for it holds no connection to the database, which others could use.
 */
export const inTurn: RequestHandler = (request, response, next) => {
  if (request.method === 'GET' || request.method === 'HEAD') return next();
  const answered = () =>
    new Promise<void>((done) => {
      response.once('finish', done).once('close', done);
      next();
    });
  turns(`${teacherIn(response).id} ${String(request.params['classId'])}`, answered).catch(next);
};
