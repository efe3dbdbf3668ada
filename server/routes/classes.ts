import { Router } from 'express';
import { ChildEdit } from '../../contract/child.ts';
import { JudgingTrial } from '../../contract/judging.ts';
import { ClassSettings } from '../../contract/schoolClass.ts';
import type { Database } from '../database.ts';
import { dropChild, saveChild } from '../services/children.ts';
import { classReader, classesOf, dropClass, saveClass, tryJudging } from '../services/classes.ts';
import { masteryOfChild } from '../services/mastery.ts';
import { bodyOf, idOf, statusOf } from './body.ts';
import { teacherIn } from './session.ts';

export function classRoutes(db: Database): Router {
  const settings = bodyOf(ClassSettings);
  const trial = bodyOf(JudgingTrial);
  const readClass = classReader(db);
  return Router()
    .get('/', async (_request, response) => {
      response.json(await classesOf(db, teacherIn(response).id));
    })
    .get('/:classId', async (request, response) => {
      const { revision, json, gzip } = await readClass(teacherIn(response).id, idOf(request, 'classId', 'class'));
      const compressed = request.acceptsEncodings('gzip') !== false;
      response.setHeader('ETag', `"${revision}"`);
      response.setHeader('Vary', 'Accept-Encoding');
      if (compressed) response.setHeader('Content-Encoding', 'gzip');
      response.type('json').send(compressed ? gzip : json);
    })
    .put('/:classId', async (request, response) => {
      const classId = idOf(request, 'classId', 'class');
      const values = settings(request);
      const done = await saveClass(db, teacherIn(response).id, classId, values);
      response.status(statusOf(done)).json({ id: classId, ...values });
    })
    .post('/:classId/judging-preview', async (request, response) => {
      const classId = idOf(request, 'classId', 'class');
      response.json(await tryJudging(db, teacherIn(response).id, classId, trial(request)));
    })
    .delete('/:classId', async (request, response) => {
      await dropClass(db, teacherIn(response).id, idOf(request, 'classId', 'class'));
      response.status(204).end();
    })
    .use(childRoutes(db));
}

/** The children of a class, under its address. */
function childRoutes(db: Database): Router {
  const childEdit = bodyOf(ChildEdit);
  return Router()
    .put('/:classId/children/:childId', async (request, response) => {
      const child = { id: idOf(request, 'childId', 'child'), name: childEdit(request).name.trim() };
      const done = await saveChild(db, teacherIn(response).id, idOf(request, 'classId', 'class'), child);
      response.status(statusOf(done)).json(child);
    })
    .get('/:classId/children/:childId/mastery', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      response.json(await masteryOfChild(db, teacherIn(response).id, classId, childId));
    })
    .delete('/:classId/children/:childId', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      await dropChild(db, teacherIn(response).id, classId, childId);
      response.status(204).end();
    });
}
