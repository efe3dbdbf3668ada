import { t } from '../../core/words/say.ts';
import { RateLimiterMySQL } from 'rate-limiter-flexible';
import { type Pool, corePool, retried } from '../database.ts';
import { Problem } from '../problem.ts';
import { hash, placeOf } from './addresses.ts';

/** Wrong pictures are forgotten after so long. */
const WINDOW_S = 15 * 60;

/** A whole class behind one address taps a wrong picture now and then: so many are free. */
const FREE_OF_PLACE = 40;
/** Somebody elsewhere who has half of a room's pictures. */
const FREE_OF_ROOM = 20;
const LONGEST_REST_S = 4;

/** How long nobody of a place, or with the beginning of a room's pictures, is looked at. @returns seconds */
export function restAfterWrong(wrong: number, free: number): number {
  return wrong < free ? 0 : Math.min(LONGEST_REST_S, 0.25 * 2 ** Math.min(20, wrong - free));
}

/** From so many on the teacher is told that somebody guesses. */
export const GUESSED = FREE_OF_ROOM;

export interface RoomTries {
  /**
   * Sends away who comes too soon after wrong pictures.
   * @param rooms  whose pictures begin like those that were tapped
   */
  readonly demandRest: (address: string, rooms: readonly string[]) => void;
  readonly wrong: (address: string, rooms: readonly string[]) => Promise<void>;
  /** How often the beginning of a room's pictures was right and the rest was not. */
  readonly guesses: (roomId: string) => Promise<number>;
}

/** Counts in the database, for all servers together; rests are each server's own. */
export function roomTries(pool: Pool, database: string, now: () => number = Date.now): RoomTries {
  const limiter = new RateLimiterMySQL({
    storeClient: corePool(pool),
    storeType: 'pool',
    dbName: database,
    tableName: 'sign_in_tries',
    tableCreated: true,
    keyPrefix: 'room',
    points: Number.MAX_SAFE_INTEGER,
    duration: WINDOW_S,
    clearExpiredByTimeout: true,
  });
  const rests = new Map<string, number>();
  const keysOf = (address: string, rooms: readonly string[]) => [
    { key: `place-${hash(placeOf(address))}`, free: FREE_OF_PLACE },
    ...rooms.map((id) => ({ key: `of-${id}`, free: FREE_OF_ROOM })),
  ];
  return {
    demandRest: (address, rooms) => {
      const until = Math.max(...keysOf(address, rooms).map(({ key }) => rests.get(key) ?? 0));
      const retryAfter = Math.ceil((until - now()) / 1000);
      if (retryAfter > 0)
        throw new Problem(429, 'wait', t`Too many wrong pictures. Wait a moment, then tap them again.`, { retryAfter });
    },
    wrong: async (address, rooms) => {
      for (const { key, free } of keysOf(address, rooms)) {
        const { consumedPoints } = await retried(() => limiter.consume(key));
        const rest = restAfterWrong(consumedPoints, free);
        if (rest > 0) rests.set(key, now() + rest * 1000);
      }
      if (rests.size > 10_000) for (const [key, until] of rests) if (until < now()) rests.delete(key);
    },
    guesses: async (roomId) => (await limiter.get(`of-${roomId}`))?.consumedPoints ?? 0,
  };
}
