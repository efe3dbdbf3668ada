import pLimit, { type LimitFunction } from 'p-limit';
import { Problem } from './problem.ts';

/** Does a job when it is its owner's turn. */
export type Turns = <T>(owner: string, job: () => Promise<T>) => Promise<T>;

/**
 * Lets only so many jobs of one owner run at once, so that nobody takes what belongs to all; the rest wait in order.
 * @param atOnce       jobs of one owner that run together
 * @param mostWaiting  beyond so many a job is refused, to be sent again later
 */
export function turnsOf(atOnce: number, mostWaiting: number): Turns {
  const owners = new Map<string, LimitFunction>();
  return async (owner, job) => {
    const limit = owners.get(owner) ?? pLimit(atOnce);
    owners.set(owner, limit);
    if (limit.pendingCount >= mostWaiting)
      throw new Problem(429, 'busy', 'Too much of yours waits here already. It is tried again in a moment.');
    try {
      return await limit(job);
    } finally {
      if (limit.activeCount + limit.pendingCount === 0 && owners.get(owner) === limit) owners.delete(owner);
    }
  };
}
