import { Router } from 'express';
import { edited } from '../../contract/edited.ts';
import { PatternEdit, ShelfEdit } from '../../contract/pattern.ts';
import type { Database } from '../database.ts';
import { dropPattern, patternsOf, savePattern, setShelf } from '../services/patterns.ts';
import { bodyOf, idOf, statusOf } from './body.ts';
import { teacherIn } from './session.ts';

export function patternRoutes(db: Database): Router {
  const edit = bodyOf(edited(PatternEdit));
  const shelf = bodyOf(edited(ShelfEdit));
  return Router()
    .get('/', async (_request, response) => {
      response.json(await patternsOf(db, teacherIn(response).id));
    })
    .put('/shelf', async (request, response) => {
      const { was, patterns } = shelf(request);
      await setShelf(db, teacherIn(response).id, patterns, was?.patterns);
      response.status(204).end();
    })
    .put('/:patternId', async (request, response) => {
      const id = idOf(request, 'patternId', 'pattern');
      const { was, ...wanted } = edit(request);
      const { done, values } = await savePattern(db, teacherIn(response).id, id, wanted, was);
      response.status(statusOf(done)).json({ id, ...values });
    })
    .delete('/:patternId', async (request, response) => {
      await dropPattern(db, teacherIn(response).id, idOf(request, 'patternId', 'pattern'));
      response.status(204).end();
    });
}
