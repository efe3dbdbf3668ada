import pLimit, { type LimitFunction } from 'p-limit';
import { PATIENCE_MS, busy } from './problem.ts';

/** Does a job when it is its owner's turn. */
export type Turns = <T>(owner: string, job: () => Promise<T>) => Promise<T>;

/**
 * Lets only so many jobs of one owner run at once, so that nobody takes what belongs to all; the rest wait in order.
 * @param atOnce       jobs of one owner that run together
 * @param mostWaiting  beyond so many a job is refused at once, to be sent again later: what it needs is kept meanwhile
 * @param patienceMs   whoever has waited longer is refused when the turn comes
 */
export function turnsOf(atOnce: number, mostWaiting: number, patienceMs = PATIENCE_MS): Turns {
  const owners = new Map<string, LimitFunction>();
  return async (owner, job) => {
    const limit = owners.get(owner) ?? pLimit(atOnce);
    owners.set(owner, limit);
    if (limit.pendingCount >= mostWaiting) throw busy();
    const since = performance.now();
    try {
      return await limit(() => (performance.now() - since > patienceMs ? Promise.reject(busy()) : job()));
    } finally {
      if (limit.activeCount + limit.pendingCount === 0 && owners.get(owner) === limit) owners.delete(owner);
    }
  };
}
