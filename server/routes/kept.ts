import type { Static, TObject } from '@sinclair/typebox';
import { Router } from 'express';
import { edited } from '../../contract/edited.ts';
import type { Database } from '../database.ts';
import { type KeptService, dropKept, saveKept } from '../services/kept.ts';
import { bodyOf, idOf, statusOf } from './body.ts';
import { teacherIn } from './session.ts';

/** Listing, saving and removing of things that are kept whole. */
export function keptRoutes<S extends TObject, Saved>(
  db: Database,
  schema: S,
  service: KeptService<Static<S>, Saved>,
): Router {
  const edit = bodyOf(edited(schema));
  const { list, word } = service.store;
  return Router()
    .get('/', async (_request, response) => {
      response.json(await list(db, teacherIn(response).id));
    })
    .put('/:id', async (request, response) => {
      const id = idOf(request, 'id', word);
      const { was, ...wanted } = edit(request) as Static<S> & { readonly was?: Static<S> };
      const { done, value } = await saveKept(db, service, teacherIn(response).id, id, wanted as Static<S>, was);
      response.status(statusOf(done)).json({ id, ...value });
    })
    .delete('/:id', async (request, response) => {
      await dropKept(db, service, teacherIn(response).id, idOf(request, 'id', word));
      response.status(204).end();
    });
}
