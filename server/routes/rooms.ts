import { t } from '../../core/words/say.ts';
import { type Request, Router } from 'express';
import { RoomEdit, RoundEdit } from '../../contract/room.ts';
import { Problem } from '../problem.ts';
import {
  type RoomResources,
  codesOf,
  endRoom,
  freeName,
  openRoomsOf,
  roomOf,
  roundResults,
  saveRoom,
  setRound,
  shownRoom,
} from '../services/rooms.ts';
import type { Sessions } from '../services/session.ts';
import { bodyOf, idOf, statusOf } from './body.ts';
import { roomStream } from './roomStream.ts';
import { teacherIn, tokenFrom } from './session.ts';

/** A teacher has so many rooms in view at once at most. */
const MOST_OPEN = 10;

/** The rooms of a class, for whoever hears its children. */
export function roomRoutes(resources: RoomResources, sessions: Sessions): Router {
  const [edit, round] = [bodyOf(RoomEdit), bodyOf(RoundEdit)];
  const open = new Map<string, number>();
  const at = '/:classId/rooms/:roomId';
  const ids = (request: Request) => [idOf(request, 'classId', 'class'), idOf(request, 'roomId', 'room')] as const;
  return Router()
    .get('/:classId/rooms', async (request, response) => {
      response.json(await openRoomsOf(resources, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .get('/:classId/room-codes', async (request, response) => {
      response.json(await codesOf(resources, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .put(at, async (request, response) => {
      const done = await saveRoom(resources, teacherIn(response).id, ...ids(request), edit(request));
      response.status(statusOf(done)).json({ id: ids(request)[1] });
    })
    .get(at, async (request, response) => {
      response.json((await roomOf(resources, teacherIn(response).id, ...ids(request))).room);
    })
    .delete(at, async (request, response) => {
      await endRoom(resources, teacherIn(response).id, ...ids(request));
      response.status(204).end();
    })
    .put(`${at}/round`, async (request, response) => {
      await setRound(resources, teacherIn(response).id, ...ids(request), round(request));
      response.status(204).end();
    })
    .get(`${at}/rounds/:number`, async (request, response) => {
      const number = numberOf(request);
      response.json(await roundResults(resources, teacherIn(response).id, ...ids(request), number));
    })
    .delete(`${at}/seats/:childId`, async (request, response) => {
      const childId = idOf(request, 'childId', 'child');
      await freeName(resources, teacherIn(response).id, ...ids(request), childId);
      response.status(204).end();
    })
    .get(`${at}/events`, async (request, response) => {
      const { id } = teacherIn(response);
      const token = tokenFrom(request);
      const [classId, roomId] = ids(request);
      const { room, revision } = await roomOf(resources, id, classId, roomId);
      if ((open.get(id) ?? 0) >= MOST_OPEN)
        throw new Problem(429, 'too-many', t`Too many views are open at once. Close some of them.`);
      open.set(id, (open.get(id) ?? 0) + 1);
      await roomStream(request, response, {
        news: resources.news,
        roomId,
        revision,
        first: room,
        next: async () => (await shownRoom(resources, roomId)).room,
        /** Whoever is signed out, or may not hear the class any more, is told nothing more of it. */
        alive: async () => {
          const teacher = await sessions.teacherOf(token);
          if (teacher?.id !== id) throw new Problem(401, 'signed-out', t`You are signed out. Sign in again.`);
          await roomOf(resources, id, classId, roomId);
        },
        gone: () => void open.set(id, (open.get(id) ?? 1) - 1),
      });
    });
}

/** The number of a round, from the path. */
export function numberOf(request: Request): number {
  const text = String(request.params['number']);
  if (!/^[1-9]\d{0,3}$/.test(text)) throw new Problem(404, 'not-found', t`There is no such round in this room.`);
  return Number(text);
}
