import { type Request, Router } from 'express';
import { ChildEdit } from '../../contract/child.ts';
import { JudgingTrial } from '../../contract/judging.ts';
import { NewLineUp, TurnEdit } from '../../contract/lineUp.ts';
import { PaperColumnEdit } from '../../contract/records.ts';
import { ClassSettings } from '../../contract/schoolClass.ts';
import type { Database } from '../database.ts';
import type { Resources } from '../resources.ts';
import { dropChild, saveChild } from '../services/children.ts';
import { classDetail, classesOf, dropClass, rejudgingOf, saveClass, tryJudging } from '../services/classes.ts';
import { dropLineUp, lineUpsOf, setTurn, startLineUp } from '../services/lineUps.ts';
import { dropPaperColumn, masteryOfChild, recordsReader, savePaperColumn, takesPage } from '../services/records.ts';
import { bodyOf, idOf, statusOf, wordIn } from './body.ts';
import { teacherIn } from './session.ts';

export function classRoutes(resources: Resources): Router {
  const { db } = resources;
  const settings = bodyOf(ClassSettings);
  const trial = bodyOf(JudgingTrial);
  return Router()
    .get('/', async (_request, response) => {
      response.json(await classesOf(db, teacherIn(response).id));
    })
    .get('/:classId', async (request, response) => {
      response.json(await classDetail(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
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
    .use(childRoutes(db))
    .use(recordRoutes(db))
    .use(lineUpRoutes(db));
}

/** The children of a class, under its address. */
function childRoutes(db: Database): Router {
  const childEdit = bodyOf(ChildEdit);
  return Router()
    .put('/:classId/children/:childId', async (request, response) => {
      const { name, ...values } = childEdit(request);
      const edit = { id: idOf(request, 'childId', 'child'), name: name.trim(), ...values };
      const { done, child } = await saveChild(db, teacherIn(response).id, idOf(request, 'classId', 'class'), edit);
      response.status(statusOf(done)).json(child);
    })
    .get('/:classId/children/:childId/mastery', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      response.json(await masteryOfChild(db, teacherIn(response).id, classId, childId));
    })
    .get('/:classId/children/:childId/takes', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      const [after, pattern] = [wordIn(request, 'after'), wordIn(request, 'pattern')];
      response.json(await takesPage(db, teacherIn(response).id, classId, childId, after, pattern));
    })
    .delete('/:classId/children/:childId', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      await dropChild(db, teacherIn(response).id, classId, childId);
      response.status(204).end();
    });
}

/** What a class has shown so far. */
function recordRoutes(db: Database): Router {
  const read = recordsReader(db);
  const column = bodyOf(PaperColumnEdit);
  return Router()
    .get('/:classId/records', async (request, response) => {
      const { tag, json, gzip } = await read(teacherIn(response).id, idOf(request, 'classId', 'class'));
      const compressed = request.acceptsEncodings('gzip') !== false;
      response.setHeader('ETag', `"${tag}"`);
      if (request.headers['if-none-match'] === `"${tag}"`) {
        response.status(304).end();
        return;
      }
      response.setHeader('Vary', 'Accept-Encoding');
      if (compressed) response.setHeader('Content-Encoding', 'gzip');
      response.type('json').send(compressed ? gzip : json);
    })
    .put('/:classId/paper/:columnId', async (request, response) => {
      const [classId, columnId] = [idOf(request, 'classId', 'class'), idOf(request, 'columnId', 'column')];
      const done = await savePaperColumn(db, teacherIn(response).id, classId, columnId, column(request));
      response.status(statusOf(done)).json({ id: columnId });
    })
    .delete('/:classId/paper/:columnId', async (request, response) => {
      const [classId, columnId] = [idOf(request, 'classId', 'class'), idOf(request, 'columnId', 'column')];
      await dropPaperColumn(db, teacherIn(response).id, classId, columnId);
      response.status(204).end();
    });
}

function lineUpRoutes(db: Database): Router {
  const [started, turn] = [bodyOf(NewLineUp), bodyOf(TurnEdit)];
  const at = '/:classId/line-ups/:lineUpId';
  const ids = (request: Request) => [idOf(request, 'classId', 'class'), idOf(request, 'lineUpId', 'line-up')] as const;
  return Router()
    .get('/:classId/line-ups', async (request, response) => {
      response.json(await lineUpsOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .put(at, async (request, response) => {
      const [classId, lineUpId] = ids(request);
      const done = await startLineUp(db, teacherIn(response).id, classId, lineUpId, started(request));
      response.status(statusOf(done)).json({ id: lineUpId });
    })
    .put(`${at}/turns/:childId`, async (request, response) => {
      const childId = idOf(request, 'childId', 'child');
      await setTurn(db, teacherIn(response).id, ...ids(request), childId, turn(request));
      response.status(204).end();
    })
    .delete(at, async (request, response) => {
      await dropLineUp(db, teacherIn(response).id, ...ids(request));
      response.status(204).end();
    });
}
