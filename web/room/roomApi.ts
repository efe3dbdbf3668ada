import { perLanguage, t } from '../../core/words/say.ts';
import fitsChildRoom from 'virtual:fits/child-room';
import fitsDoor from 'virtual:fits/room-door';
import fitsError from 'virtual:fits/error';
import type { ChildRoom, RoomDoor, RoomTake, RoundAnswer, TakeSeat } from '../../contract/room.ts';
import type { Picture } from '../../contract/roomPictures.ts';
import { watchStream } from './watchStream.ts';

/** A device of a child speaks to its room and to nothing else: by the cookie of its seat, with nothing of a teacher. */
const BASE = '/api/room';

const PATIENCE_MS = 8_000;

/** What came of a request that did not come to anything. */
export class RoomProblem extends Error {
  constructor(
    /** 0 without an answer. */
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }

  /** Sent again later it may come to something. */
  get passes(): boolean {
    return this.code === 'away' || this.status === 429 || this.status >= 500;
  }
}

const AWAY = perLanguage(() => t`The room does not answer just now. It goes on by itself.`);

async function ask(method: 'GET' | 'PUT' | 'POST' | 'DELETE', path: string, body?: object): Promise<unknown> {
  const breakOff = new AbortController();
  const timer = setTimeout(() => breakOff.abort(), PATIENCE_MS);
  const init: RequestInit = { method, credentials: 'same-origin', signal: breakOff.signal };
  const sent =
    body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
  const response = await fetch(BASE + path, { ...init, ...sent })
    .catch(() => {
      throw new RoomProblem(0, 'away', AWAY());
    })
    .finally(() => clearTimeout(timer));
  if (response.status === 204) return undefined;
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok && answer !== undefined) return answer;
  if (!fitsError(answer)) throw new RoomProblem(0, 'away', AWAY());
  const { code, message } = (answer as { error: { code: string; message: string } }).error;
  throw new RoomProblem(response.status, code, message);
}

const OUTDATED = perLanguage(() => new RoomProblem(0, 'outdated', t`This page is older than the room. Open it again.`));

async function checked<T>(answer: Promise<unknown>, fits: (data: unknown) => boolean): Promise<T> {
  const data = await answer;
  if (!fits(data)) throw OUTDATED();
  return data as T;
}

export const enter = (pictures: readonly Picture[]) => checked<RoomDoor>(ask('POST', '/enter', { pictures }), fitsDoor);
export const door = () => checked<RoomDoor>(ask('GET', '/door'), fitsDoor);
export const seat = () => checked<ChildRoom>(ask('GET', '/seat'), fitsChildRoom);
export const sit = (as: TakeSeat) => checked<ChildRoom>(ask('POST', '/seat', as), fitsChildRoom);
export const leave = () => ask('DELETE', '/seat');
export const ready = (round: number) => ask('PUT', `/rounds/${round}/ready`, {});
export const answer = (round: number, given: RoundAnswer) => ask('PUT', `/rounds/${round}/answer`, given);

/** @returns its mark, where children see theirs */
export async function sendTake(id: string, take: RoomTake): Promise<number | null> {
  const { mark } = (await ask('PUT', `/takes/${id}`, take)) as { mark: number | null };
  return mark;
}

interface Told {
  readonly onRoom: (room: ChildRoom) => void;
  /** It is not to be watched any more. */
  readonly onOver: (problem: RoomProblem) => void;
  /** Whether the stream is there. */
  readonly onThere: (there: boolean) => void;
}

/** Watches the room of this device. @returns stops watching */
export function watchRoom({ onRoom, onOver, onThere }: Told): () => void {
  return watchStream<RoomProblem>({
    path: `${BASE}/events`,
    ask: seat,
    passes: (problem) => problem.passes,
    onRoom: (room) => fitsChildRoom(room) && onRoom(room as ChildRoom),
    onOver: ({ status, code, message }) => onOver(new RoomProblem(status, code, message)),
    onThere,
  });
}

/** What the room's clock shows, and when the question left and the answer came on the page's own clock. */
export async function askClock(): Promise<{ sent: number; there: number; back: number }> {
  const sent = performance.now();
  const { now } = (await ask('GET', '/clock')) as { now: number };
  return { sent, there: now, back: performance.now() };
}
