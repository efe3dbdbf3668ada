import { DeviceClock, FEWEST_EXCHANGES } from '../../core/timing/deviceClock.ts';
import type { Database } from '../database.ts';
import { clockOf } from '../repository/clock.ts';

/** The database's clock is asked so often while rooms are open. */
const AGAIN_MS = 10_000;

/** The one clock that all rooms of all servers of a database go by: the database's own. */
export interface RoomClock {
  /** Milliseconds since 1970. */
  readonly now: () => number;
  /** Has asked the database often enough; asks again when it was long ago. */
  readonly ready: () => Promise<void>;
}

/** @param here  this server's own clock, in milliseconds that never jump */
export function roomClock(db: Database, here: () => number = () => performance.timeOrigin + performance.now()) {
  const clock = new DeviceClock();
  let askedAt = -Infinity;
  let asking: Promise<void> | undefined;
  const ask = async () => {
    do {
      const sent = here();
      const there = await clockOf(db);
      clock.add({ sent, there, back: here() });
    } while (clock.count < FEWEST_EXCHANGES);
    askedAt = here();
  };
  const ready = async () => {
    if (here() - askedAt < AGAIN_MS) return;
    asking ??= ask().finally(() => (asking = undefined));
    // Once known it goes on by itself for a while.
    if (clock.count < FEWEST_EXCHANGES) await asking;
    else asking.catch(() => undefined);
  };
  return { now: () => clock.room(here()) ?? here(), ready } satisfies RoomClock;
}
