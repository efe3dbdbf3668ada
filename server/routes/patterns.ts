import { Router } from 'express';
import { PatternEdit } from '../../contract/school.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import {
  addPattern,
  findPattern,
  listPatterns,
  patternIdTaken,
  removePattern,
  updatePattern,
} from '../repository/patterns.ts';
import { readPatternText } from '../services/patternText.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

export function patternRoutes(db: Database): Router {
  const edit = bodyOf(PatternEdit);
  return Router()
    .get('/', async (_request, response) => {
      response.json(await listPatterns(db, teacherIn(response).id));
    })
    .put('/:patternId', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const id = idOf(request, 'patternId', 'pattern');
      const values = edit(request);
      readPatternText(values.text, 'text');
      const known = await findPattern(db, teacherId, id);
      if (!known && (await patternIdTaken(db, id))) throw notFound('pattern');
      if (known) await updatePattern(db, teacherId, id, values);
      else await addPattern(db, teacherId, { id, ...values }, Date.now());
      response.status(known ? 200 : 201).json({ id, ...values });
    })
    .delete('/:patternId', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const id = idOf(request, 'patternId', 'pattern');
      if (!(await findPattern(db, teacherId, id))) throw notFound('pattern');
      await removePattern(db, teacherId, id);
      response.status(204).end();
    });
}
