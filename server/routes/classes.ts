import { Router } from 'express';
import { ChildEdit, ClassSettings, JudgingTrial } from '../../contract/school.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { addChild, childIdTaken, findChild, removeChild, renameChild } from '../repository/children.ts';
import { addClass, classIdTaken, findClass, listClasses, removeClass, updateClass } from '../repository/classes.ts';
import { checkClassSettings } from '../services/classSettings.ts';
import { classReader } from '../services/classes.ts';
import { judgesAlike, previewJudging, rejudgeClass } from '../services/judging.ts';
import { masteryOfChild } from '../services/mastery.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

export function classRoutes(db: Database): Router {
  const settings = bodyOf(ClassSettings);
  const childEdit = bodyOf(ChildEdit);
  const trial = bodyOf(JudgingTrial);
  const readClass = classReader(db);
  return Router()
    .get('/', async (_request, response) => {
      response.json(await listClasses(db, teacherIn(response).id));
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
      const teacherId = teacherIn(response).id;
      const classId = idOf(request, 'classId', 'class');
      const values = settings(request);
      checkClassSettings(values);
      const known = await findClass(db, teacherId, classId);
      if (!known && (await classIdTaken(db, classId))) throw notFound('class');
      await (known ? updateClass : addClass)(db, teacherId, classId, values);
      // What is on time, or what a mark needs, is another now: every take is judged anew from its onsets.
      if (known && !judgesAlike(known, values)) await rejudgeClass(db, classId, values);
      response.status(known ? 200 : 201).json({ id: classId, ...values });
    })
    .post('/:classId/judging-preview', async (request, response) => {
      const classId = idOf(request, 'classId', 'class');
      const known = await findClass(db, teacherIn(response).id, classId);
      if (!known) throw notFound('class');
      const wanted = trial(request);
      checkClassSettings({ ...known, borders: wanted.borders });
      response.json(await previewJudging(db, classId, known, wanted));
    })
    .delete('/:classId', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const classId = idOf(request, 'classId', 'class');
      if (!(await findClass(db, teacherId, classId))) throw notFound('class');
      await removeClass(db, teacherId, classId);
      response.status(204).end();
    })
    .put('/:classId/children/:childId', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const classId = idOf(request, 'classId', 'class');
      const child = { id: idOf(request, 'childId', 'child'), name: childEdit(request).name.trim() };
      if (!(await findClass(db, teacherId, classId))) throw notFound('class');
      const known = await findChild(db, teacherId, child.id);
      if (known ? known.classId !== classId : await childIdTaken(db, child.id)) throw notFound('child');
      await (known ? renameChild : addChild)(db, classId, child);
      response.status(known ? 200 : 201).json(child);
    })
    .get('/:classId/children/:childId/mastery', async (request, response) => {
      response.json(
        await masteryOfChild(
          db,
          teacherIn(response).id,
          idOf(request, 'classId', 'class'),
          idOf(request, 'childId', 'child'),
        ),
      );
    })
    .delete('/:classId/children/:childId', async (request, response) => {
      const child = await findChild(db, teacherIn(response).id, idOf(request, 'childId', 'child'));
      if (!child || child.classId !== idOf(request, 'classId', 'class')) throw notFound('child');
      await removeChild(db, child.classId, child.id);
      response.status(204).end();
    });
}
