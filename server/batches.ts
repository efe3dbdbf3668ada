import { isDatabaseGone } from './driverErrors.ts';
import { busy } from './problem.ts';

export interface BatchSettings {
  /** So many are done together at most. */
  readonly most: number;
  /** Whoever has waited longer is sent away, milliseconds. */
  readonly patienceMs: number;
  readonly now?: () => number;
}

interface Waiting<T, R> {
  readonly item: T;
  readonly since: number;
  readonly done: (result: R) => void;
  readonly fail: (error: unknown) => void;
}

/**
 * Does things of one owner a batch at a time: what comes while one batch is done makes up the next. Where many come at
 * once, most of what each would cost alone is shared.
 *
 * A batch that fails is done one by one, so that each has its own outcome; not where the database is away, for then
 * each would wait for it anew.
 * What is asked for together is read after the last of them asked: nobody is told what was before its question.
 * @param work  all of it, with what comes of each in their order, or, when it rejects, nothing of it
 */
export function batchesOf<T, R>(
  work: (items: readonly T[]) => Promise<readonly R[]>,
  { most, patienceMs, now = () => performance.now() }: BatchSettings,
): (owner: string, item: T) => Promise<R> {
  const owners = new Map<string, Waiting<T, R>[]>();

  const done = async (batch: readonly Waiting<T, R>[]): Promise<void> => {
    try {
      const results = await work(batch.map(({ item }) => item));
      for (const [i, one] of batch.entries()) one.done(results[i]!);
    } catch (error) {
      if (batch.length === 1 || isDatabaseGone(error)) for (const one of batch) one.fail(error);
      else for (const one of batch) await done([one]);
    }
  };

  const workOff = async (owner: string, waiting: Waiting<T, R>[]): Promise<void> => {
    while (waiting.length > 0) {
      const batch = waiting.splice(0, most);
      const late = batch.filter(({ since }) => now() - since > patienceMs);
      for (const one of late) one.fail(busy());
      const inTime = batch.filter((one) => !late.includes(one));
      if (inTime.length > 0) await done(inTime);
    }
    owners.delete(owner);
  };

  return (owner, item) =>
    new Promise((resolve, reject) => {
      const one = { item, since: now(), done: resolve, fail: reject };
      const waiting = owners.get(owner);
      if (waiting) return void waiting.push(one);
      const begun = [one];
      owners.set(owner, begun);
      void workOff(owner, begun);
    });
}

/**
 * Does what comes out alike for all who want it by one key, as the reading of a room does: once for all who ask while
 * it is being done for those before them, so that nobody is told of what was before its question.
 * @returns of a key and its work what the work gives; where it fails, it fails for all who waited for it
 */
export function onceForAll<R>(): (key: string, work: () => Promise<R>) => Promise<R> {
  const going = new Map<string, Promise<unknown>>();
  const next = new Map<string, Promise<R>>();
  return (key, work) => {
    const waiting = next.get(key);
    if (waiting) return waiting;
    const before = going.get(key);
    const begin = (): Promise<R> => {
      next.delete(key);
      const now = work();
      const over = now.catch(() => undefined).finally(() => going.get(key) === over && going.delete(key));
      going.set(key, over);
      return now;
    };
    if (!before) return begin();
    const own = before.then(begin);
    next.set(key, own);
    return own;
  };
}
