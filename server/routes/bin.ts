import { type Request, Router } from 'express';
import { BIN_KINDS } from '../../contract/bin.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { binOf, takeOut, throwAway } from '../services/bin.ts';
import { idOf } from './body.ts';
import { teacherIn } from './session.ts';

function thing(request: Request) {
  const kind = BIN_KINDS.find((one) => one === request.params['kind']);
  if (!kind) throw notFound('thing');
  return [kind, idOf(request, 'id', kind)] as const;
}

export function binRoutes(db: Database): Router {
  return Router()
    .get('/', async (_request, response) => {
      response.json(await binOf(db, teacherIn(response).id));
    })
    .post('/:kind/:id/out', async (request, response) => {
      await takeOut(db, teacherIn(response).id, ...thing(request));
      response.status(204).end();
    })
    .delete('/:kind/:id', async (request, response) => {
      await throwAway(db, teacherIn(response).id, ...thing(request));
      response.status(204).end();
    });
}
