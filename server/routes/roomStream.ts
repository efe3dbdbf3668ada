import { createSession } from 'better-sse';
import type { Request, Response } from 'express';
import { problemOf } from '../problem.ts';
import type { RoomNews } from '../services/news.ts';

/** A sign of life, so that no proxy in between takes the silence for an end. */
const ALIVE_MS = 15_000;
/** A device whose stream broke off comes back after so long. */
const RETRY_MS = 1_000;

/** After trouble with the database it is looked again so much later. */
const AGAIN_MS = 500;

const isRefused = (error: unknown) => {
  const problem = problemOf(error);
  return problem !== undefined && problem.status < 500 && problem.status !== 429;
};

interface Stream {
  readonly news: RoomNews;
  readonly roomId: string;
  /** Of what is told first. */
  readonly revision: number;
  readonly first: unknown;
  /** What is told whenever the room has changed; undefined where it is the same as before. */
  readonly next: () => Promise<unknown>;
  /** Asked now and then; throws when nothing more is to be told. */
  readonly alive: () => Promise<void>;
  readonly gone: () => void;
}

/**
 * A stream of a room: `room` whenever anything in it has changed, `over` with the problem when it is not to be watched
 * any more. What breaks off without `over` is taken up again.
 */
export async function roomStream(request: Request, response: Response, stream: Stream): Promise<void> {
  const { news, roomId, revision, first, next, alive, gone } = stream;
  const session = await createSession(request, response, {
    keepAlive: null,
    retry: RETRY_MS,
    headers: { 'X-Accel-Buffering': 'no' },
  });
  const end = (error: unknown) => {
    if (!session.isConnected) return;
    const problem = problemOf(error);
    if (problem) session.push({ status: problem.status, code: problem.code, message: problem.message }, 'over');
    response.end();
  };
  let said = '';
  const say = (room: unknown) => {
    if (room === undefined) return;
    const text = JSON.stringify(room);
    // What others did changes nothing for most devices.
    if (text === said || !session.isConnected) return;
    said = text;
    session.push(room, 'room');
  };
  let told: Promise<void> = Promise.resolve();
  const tell = () => {
    told = told.then(next).then(say, later);
  };
  /** A database that is away for a moment is no end: only what is refused is. */
  const later = (error: unknown) => {
    if (isRefused(error)) end(error);
    else setTimeout(() => session.isConnected && tell(), AGAIN_MS);
  };
  say(first);
  const unwatch = news.watch(roomId, revision, (now) => (now === undefined ? response.end() : tell()));
  const timer = setInterval(() => {
    alive().then(() => {
      if (session.isConnected) response.write(':\n\n');
    }, later);
  }, ALIVE_MS);
  const over = () => {
    clearInterval(timer);
    unwatch();
    gone();
  };
  if (session.isConnected) session.once('disconnected', over);
  else over();
}
