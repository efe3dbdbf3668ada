import { type Request, Router } from 'express';
import { NewInvitation, SchoolEdit } from '../../contract/school.ts';
import { ShelfItemEdit } from '../../contract/schoolShelf.ts';
import { NewTeacher, StaffEdit } from '../../contract/staff.ts';
import type { Database } from '../database.ts';
import { invitationsOf, invite, takeInvitationBack } from '../services/invitations.ts';
import { clearedOf, wouldGo } from '../services/retention.ts';
import { saveSchool, schoolOf } from '../services/schools.ts';
import { layOut, onShelf, shelfOf, takeAway } from '../services/schoolShelf.ts';
import { changeAccount, giveCode, makeAccount, staffOf } from '../services/staff.ts';
import { bodyOf, idOf, statusOf, wordIn } from './body.ts';
import { teacherIn } from './session.ts';

/** Days of a question; anything that is no number of them is none. */
const daysIn = (word: string | undefined) => (/^\d{1,4}$/.test(word ?? '') ? Number(word) : null);

const schoolIn = (request: Request) => idOf(request, 'schoolId', 'school');

/** A school, for those who teach there; most of it for its administrators. */
export function schoolRoutes(db: Database): Router {
  const edit = bodyOf(SchoolEdit);
  return Router()
    .get('/:schoolId', async (request, response) => {
      response.json(await schoolOf(db, teacherIn(response), schoolIn(request)));
    })
    .put('/:schoolId', async (request, response) => {
      response.json(await saveSchool(db, teacherIn(response), schoolIn(request), edit(request)));
    })
    .get('/:schoolId/cleared', async (request, response) => {
      response.json(await clearedOf(db, teacherIn(response), schoolIn(request)));
    })
    .get('/:schoolId/would-go', async (request, response) => {
      const days = (kind: string) => daysIn(wordIn(request, kind));
      const times = { takes: days('takes'), recordings: days('recordings'), terms: days('terms') };
      response.json(await wouldGo(db, teacherIn(response), schoolIn(request), times));
    })
    .use(staffRoutes(db))
    .use(invitationRoutes(db))
    .use(shelfRoutes(db));
}

/** What colleagues lay out for each other. */
function shelfRoutes(db: Database): Router {
  const edit = bodyOf(ShelfItemEdit);
  const ids = (request: Request) => [schoolIn(request), idOf(request, 'itemId', 'thing on the shelf')] as const;
  return Router()
    .get('/:schoolId/shelf', async (request, response) => {
      response.json(await shelfOf(db, teacherIn(response), schoolIn(request)));
    })
    .get('/:schoolId/shelf/:itemId', async (request, response) => {
      response.json(await onShelf(db, teacherIn(response), ...ids(request)));
    })
    .put('/:schoolId/shelf/:itemId', async (request, response) => {
      const done = await layOut(db, teacherIn(response), ...ids(request), edit(request));
      response.status(statusOf(done)).json({ id: ids(request)[1] });
    })
    .delete('/:schoolId/shelf/:itemId', async (request, response) => {
      await takeAway(db, teacherIn(response), ...ids(request));
      response.status(204).end();
    });
}

function staffRoutes(db: Database): Router {
  const [account, edit] = [bodyOf(NewTeacher), bodyOf(StaffEdit)];
  return Router()
    .get('/:schoolId/staff', async (request, response) => {
      response.json(await staffOf(db, teacherIn(response), schoolIn(request)));
    })
    .post('/:schoolId/staff', async (request, response) => {
      response.status(201).json(await makeAccount(db, teacherIn(response), schoolIn(request), account(request)));
    })
    .put('/:schoolId/staff/:teacherId', async (request, response) => {
      const teacherId = idOf(request, 'teacherId', 'teacher');
      await changeAccount(db, teacherIn(response), schoolIn(request), teacherId, edit(request));
      response.status(204).end();
    })
    .post('/:schoolId/staff/:teacherId/code', async (request, response) => {
      const teacherId = idOf(request, 'teacherId', 'teacher');
      response.json(await giveCode(db, teacherIn(response), schoolIn(request), teacherId));
    });
}

function invitationRoutes(db: Database): Router {
  const wanted = bodyOf(NewInvitation);
  return Router()
    .get('/:schoolId/invitations', async (request, response) => {
      response.json(await invitationsOf(db, teacherIn(response), schoolIn(request)));
    })
    .post('/:schoolId/invitations', async (request, response) => {
      response.status(201).json(await invite(db, teacherIn(response), schoolIn(request), wanted(request)));
    })
    .delete('/:schoolId/invitations/:invitationId', async (request, response) => {
      const id = idOf(request, 'invitationId', 'invitation');
      await takeInvitationBack(db, teacherIn(response), schoolIn(request), id);
      response.status(204).end();
    });
}
