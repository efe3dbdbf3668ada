import { type Request, Router } from 'express';
import { HoldEdit } from '../../contract/school.ts';
import type { Database } from '../database.ts';
import { childFile, deleteEverything } from '../services/childData.ts';
import { childHeld, classHeld, holdChildData, holdClassData } from '../services/retention.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

/** What is kept of a child: all of it in a file, all of it deleted, and kept for longer than the school keeps it. */
export function childDataRoutes(db: Database): Router {
  const hold = bodyOf(HoldEdit);
  const classIn = (request: Request) => idOf(request, 'classId', 'class');
  const ids = (request: Request) => [classIn(request), idOf(request, 'childId', 'child')] as const;
  return Router()
    .get('/:classId/children/:childId/everything', async (request, response) => {
      response.json(await childFile(db, teacherIn(response), ...ids(request)));
    })
    .delete('/:classId/children/:childId/everything', async (request, response) => {
      response.json(await deleteEverything(db, teacherIn(response), ...ids(request)));
    })
    .get('/:classId/hold', async (request, response) => {
      response.json(await classHeld(db, teacherIn(response), classIn(request)));
    })
    .put('/:classId/hold', async (request, response) => {
      await holdClassData(db, teacherIn(response), classIn(request), hold(request));
      response.status(204).end();
    })
    .get('/:classId/children/:childId/hold', async (request, response) => {
      response.json(await childHeld(db, teacherIn(response), ...ids(request)));
    })
    .put('/:classId/children/:childId/hold', async (request, response) => {
      await holdChildData(db, teacherIn(response), ...ids(request), hold(request));
      response.status(204).end();
    });
}
