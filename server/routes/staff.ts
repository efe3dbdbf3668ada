import { Router } from 'express';
import { NewTeacher, StaffEdit } from '../../contract/staff.ts';
import type { Database } from '../database.ts';
import { changeAccount, giveCode, makeAccount, staffOf } from '../services/staff.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

/** For the administrator of the school. */
export function staffRoutes(db: Database): Router {
  const [account, edit] = [bodyOf(NewTeacher), bodyOf(StaffEdit)];
  return Router()
    .get('/', async (_request, response) => {
      response.json(await staffOf(db, teacherIn(response)));
    })
    .post('/', async (request, response) => {
      response.status(201).json(await makeAccount(db, teacherIn(response), account(request)));
    })
    .put('/:teacherId', async (request, response) => {
      await changeAccount(db, teacherIn(response), idOf(request, 'teacherId', 'teacher'), edit(request));
      response.status(204).end();
    })
    .post('/:teacherId/code', async (request, response) => {
      response.json(await giveCode(db, teacherIn(response), idOf(request, 'teacherId', 'teacher')));
    });
}
