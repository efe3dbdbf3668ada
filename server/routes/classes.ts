import { Router } from 'express';
import { ChildEdit } from '../../contract/child.ts';
import { JudgingTrial } from '../../contract/judging.ts';
import { ClassSettings } from '../../contract/schoolClass.ts';
import type { Resources } from '../resources.ts';
import { dropChild, saveChild } from '../services/children.ts';
import { classReader, classesOf, dropClass, rejudgingOf, saveClass, tryJudging } from '../services/classes.ts';
import { masteryOfChild } from '../services/mastery.ts';
import { bodyOf, idOf, statusOf } from './body.ts';
import { teacherIn } from './session.ts';

export function classRoutes(resources: Resources): Router {
  const { db } = resources;
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
      const tag = `"${revision}"`;
      response.setHeader('ETag', tag);
      if (request.headers['if-none-match'] === tag) {
        response.status(304).end();
        return;
      }
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
      response.json(await tryJudging(resources, teacherIn(response).id, classId, trial(request)));
    })
    .get('/:classId/rejudging', async (request, response) => {
      response.json(await rejudgingOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .delete('/:classId', async (request, response) => {
      await dropClass(db, teacherIn(response).id, idOf(request, 'classId', 'class'));
      response.status(204).end();
    })
    .use(childRoutes(resources));
}

/** The children of a class, under its address. */
function childRoutes(resources: Resources): Router {
  const { db } = resources;
  const childEdit = bodyOf(ChildEdit);
  return Router()
    .put('/:classId/children/:childId', async (request, response) => {
      const child = { id: idOf(request, 'childId', 'child'), name: childEdit(request).name.trim() };
      const done = await saveChild(db, teacherIn(response).id, idOf(request, 'classId', 'class'), child);
      response.status(statusOf(done)).json(child);
    })
    .get('/:classId/children/:childId/mastery', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      response.json(await masteryOfChild(resources, teacherIn(response).id, classId, childId));
    })
    .delete('/:classId/children/:childId', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      await dropChild(db, teacherIn(response).id, classId, childId);
      response.status(204).end();
    });
}
