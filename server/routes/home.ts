import { type Request, Router } from 'express';
import { HomeDone, HomeLinksEdit, HomeTake, HomeTaken } from '../../contract/home.ts';
import type { Database } from '../database.ts';
import type { Resources } from '../resources.ts';
import {
  callBack,
  countAtHome,
  fromHome,
  homeWeek,
  leaveOut,
  makeLinks,
  storeHomeTake,
  takeIn,
} from '../services/home.ts';
import { bodyOf, idOf } from './body.ts';
import { slowed } from './slowed.ts';
import { teacherIn } from './session.ts';

/** In which a page at home says its secret: it stands in no address that a server sees. */
const HEADER = 'clapboard-home';

const tokenIn = (request: Request) => {
  const given = request.headers[HEADER];
  return typeof given === 'string' ? given : undefined;
};

/** What a child's device at home asks and says. */
export function homeRoutes(resources: Resources): Router {
  const { db } = resources;
  const [take, done] = [bodyOf(HomeTake), bodyOf(HomeDone)];
  return Router()
    .use(slowed(tokenIn))
    .get('/week', async (request, response) => {
      response.json(await homeWeek(db, tokenIn(request)));
    })
    .put('/takes/:takeId', async (request, response) => {
      await storeHomeTake(resources, tokenIn(request), idOf(request, 'takeId', 'take'), take(request));
      response.status(204).end();
    })
    .post('/done', async (request, response) => {
      await countAtHome(db, tokenIn(request), done(request));
      response.status(204).end();
    });
}

/** The same week at the teacher's. */
export function fromHomeRoutes(resources: Resources): Router {
  const { db }: { db: Database } = resources;
  const [links, taken] = [bodyOf(HomeLinksEdit), bodyOf(HomeTaken)];
  const at = '/:classId/practice/:weekId/home';
  const ids = (request: Request) =>
    [idOf(request, 'classId', 'class'), idOf(request, 'weekId', 'practice week')] as const;
  return Router()
    .get(at, async (request, response) => {
      response.json(await fromHome(db, teacherIn(response).id, ...ids(request)));
    })
    .put(`${at}/links`, async (request, response) => {
      await makeLinks(db, teacherIn(response).id, ...ids(request), links(request));
      response.status(204).end();
    })
    .delete(`${at}/links/:childId`, async (request, response) => {
      await callBack(db, teacherIn(response).id, ...ids(request), idOf(request, 'childId', 'child'));
      response.status(204).end();
    })
    .post(`${at}/taken`, async (request, response) => {
      await takeIn(resources, teacherIn(response).id, ...ids(request), taken(request));
      response.status(204).end();
    })
    .post(`${at}/left-out`, async (request, response) => {
      await leaveOut(db, teacherIn(response).id, ...ids(request), taken(request));
      response.status(204).end();
    });
}
