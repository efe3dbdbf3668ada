import { Router } from 'express';
import { MarkOverride, TakeUpload } from '../../contract/take.ts';
import type { Database } from '../database.ts';
import { overrideMark, removeTake } from '../repository/takes.ts';
import { storeTake, takeOf } from '../services/takes.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

export function takeRoutes(db: Database): Router {
  const upload = bodyOf(TakeUpload);
  const override = bodyOf(MarkOverride);
  return Router()
    .get('/:takeId', async (request, response) => {
      response.json(await takeOf(db, teacherIn(response).id, idOf(request, 'takeId', 'take')));
    })
    .put('/:takeId', async (request, response) => {
      const take = await storeTake(db, teacherIn(response).id, idOf(request, 'takeId', 'take'), upload(request));
      response.json(take);
    })
    .put('/:takeId/override', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const { mark, reason = '' } = override(request);
      const { classId, id } = await takeOf(db, teacherId, idOf(request, 'takeId', 'take'));
      await overrideMark(db, classId, id, mark, mark === null ? '' : reason);
      response.json(await takeOf(db, teacherId, id));
    })
    .delete('/:takeId', async (request, response) => {
      const { classId, id } = await takeOf(db, teacherIn(response).id, idOf(request, 'takeId', 'take'));
      await removeTake(db, classId, id);
      response.status(204).end();
    });
}
