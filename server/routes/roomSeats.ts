import { parse, serialize } from 'cookie';
import { type ErrorRequestHandler, type Request, type Response, Router } from 'express';
import { EnterRoom, RoomTake, RoundAnswer, TakeSeat } from '../../contract/room.ts';
import { Problem } from '../problem.ts';
import type { Resources } from '../resources.ts';
import { LATE_MS, type RoomResources } from '../services/rooms.ts';
import {
  doorOf,
  enterRoom,
  gone,
  leaveSeat,
  roomOfSeat,
  seen,
  setAnswer,
  setReady,
  shownTo,
  storeRoomTake,
  takeName,
  watchedSeat,
  wordFor,
} from '../services/roomSeats.ts';
import { bodyOf, idOf } from './body.ts';
import { numberOf } from './rooms.ts';
import { slowed } from './slowed.ts';
import { roomStream } from './roomStream.ts';

/** The one thing that a child's device keeps of a room, and only as long as it may be in it. */
const COOKIE = 'clapboard_seat';
/** It is sent nowhere else. */
const PATH = '/api/room';

const tokenFrom = (request: Request) => parse(request.headers.cookie ?? '')[COOKIE];

function setCookie(request: Request, response: Response, token: string, maxAge: number): void {
  response.append(
    'Set-Cookie',
    serialize(COOKIE, token, { httpOnly: true, sameSite: 'strict', path: PATH, secure: request.secure, maxAge }),
  );
}

/** Where a device is not in the room any more, its cookie is of no use. */
const forgotten: ErrorRequestHandler = (error, request, response, next) => {
  if (error instanceof Problem && ['room-ended', 'no-seat'].includes(error.code) && tokenFrom(request))
    setCookie(request, response, '', 0);
  next(error);
};

/** The room as one device sees it, whenever that is something else. */
async function seatStream(resources: RoomResources, request: Request, response: Response): Promise<void> {
  const token = tokenFrom(request);
  const { shown, tokenHash, roomId, revision } = await watchedSeat(resources, token);
  await seen(resources, tokenHash);
  let word = '';
  await roomStream(request, response, {
    news: resources.news,
    roomId,
    revision,
    first: shown,
    next: async () => {
      const snapshot = await resources.snapshots.of(roomId);
      const now = resources.clock.now();
      if (!snapshot) return roomOfSeat(resources, token);
      const is = wordFor(snapshot, tokenHash, now);
      if (is === word) return undefined;
      word = is;
      return shownTo(snapshot, tokenHash, now);
    },
    alive: async () => {
      await roomOfSeat(resources, token);
      await seen(resources, tokenHash);
    },
    gone: () => void gone(resources, tokenHash, roomId).catch(() => undefined),
  });
}

/** What children's devices ask and say: without an account, by the pictures of a room and then by their seat. */
export function roomSeatRoutes(resources: RoomResources & Resources): Router {
  const [pictures, name, answer, take] = [bodyOf(EnterRoom), bodyOf(TakeSeat), bodyOf(RoundAnswer), bodyOf(RoomTake)];
  return Router()
    .use(slowed(tokenFrom))
    .get('/clock', (_request, response) => void response.json({ now: resources.clock.now() }))
    .post('/enter', async (request, response) => {
      const { token, door, endsAt } = await enterRoom(resources, pictures(request), request.ip ?? '');
      setCookie(request, response, token, Math.ceil((endsAt + LATE_MS - resources.clock.now()) / 1000));
      response.status(201).json(door);
    })
    .get('/door', async (request, response) => {
      response.json(await doorOf(resources, tokenFrom(request)));
    })
    .post('/seat', async (request, response) => {
      response.json(await takeName(resources, tokenFrom(request), name(request), request.ip ?? ''));
    })
    .get('/seat', async (request, response) => {
      response.json(await roomOfSeat(resources, tokenFrom(request)));
    })
    .delete('/seat', async (request, response) => {
      await leaveSeat(resources, tokenFrom(request));
      setCookie(request, response, '', 0);
      response.status(204).end();
    })
    .get('/events', (request, response) => seatStream(resources, request, response))
    .put('/rounds/:number/ready', async (request, response) => {
      await setReady(resources, tokenFrom(request), numberOf(request));
      response.status(204).end();
    })
    .put('/rounds/:number/answer', async (request, response) => {
      await setAnswer(resources, tokenFrom(request), numberOf(request), answer(request));
      response.status(204).end();
    })
    .put('/takes/:takeId', async (request, response) => {
      const takeId = idOf(request, 'takeId', 'take');
      response.json(await storeRoomTake(resources, tokenFrom(request), takeId, take(request)));
    })
    .use(forgotten);
}
