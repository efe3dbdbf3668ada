import { type Request, Router } from 'express';
import { ChangePassword, ChooseLanguage, NewPasskey } from '../../contract/session.ts';
import { JoinSchool } from '../../contract/school.ts';
import type { DoorResources } from '../resources.ts';
import {
  accountOf,
  chooseLanguage,
  dropPasskey,
  endOtherSessions,
  endSession,
  forgetIdentity,
  keepPasskey,
  offerPasskey,
} from '../services/account.ts';
import { joinSchool } from '../services/invitations.ts';
import { changePassword } from '../services/session.ts';
import { bodyOf } from './body.ts';
import { originOf, sendAway, siteOf, teacherIn, tokenFrom } from './session.ts';

/** Whoever is signed in has a token. */
const token = (request: Request) => tokenFrom(request) ?? '';

export function accountRoutes(resources: DoorResources): Router {
  const { db } = resources;
  const [change, passkey] = [bodyOf(ChangePassword), bodyOf(NewPasskey)];
  const [language, school] = [bodyOf(ChooseLanguage), bodyOf(JoinSchool)];
  return Router()
    .get('/', async (request, response) => {
      response.json(await accountOf(resources, teacherIn(response).id, token(request)));
    })
    .put('/password', async (request, response) => {
      await changePassword(resources, teacherIn(response), change(request), token(request), originOf(request));
      response.status(204).end();
    })
    .put('/language', async (request, response) => {
      await chooseLanguage(db, teacherIn(response).id, language(request).language);
      response.status(204).end();
    })
    .post('/schools', async (request, response) => {
      await joinSchool(db, teacherIn(response), school(request));
      response.status(204).end();
    })
    .post('/sign-on', async (request, response) => {
      await sendAway(resources, request, response, teacherIn(response).id);
    })
    .delete('/sign-on', async (_request, response) => {
      await forgetIdentity(db, teacherIn(response).id);
      response.status(204).end();
    })
    .delete('/sessions/:sessionId', async (request, response) => {
      await endSession(db, teacherIn(response).id, String(request.params.sessionId));
      response.status(204).end();
    })
    .delete('/other-sessions', async (request, response) => {
      await endOtherSessions(db, teacherIn(response).id, token(request));
      response.status(204).end();
    })
    .post('/passkeys/options', async (request, response) => {
      response.json(await offerPasskey(db, teacherIn(response), siteOf(request)));
    })
    .post('/passkeys', async (request, response) => {
      await keepPasskey(db, teacherIn(response).id, passkey(request), siteOf(request));
      response.status(204).end();
    })
    .delete('/passkeys/:passkeyId', async (request, response) => {
      await dropPasskey(db, teacherIn(response).id, String(request.params.passkeyId));
      response.status(204).end();
    });
}
