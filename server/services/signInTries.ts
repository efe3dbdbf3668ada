import pLimit from 'p-limit';
import { RateLimiterMySQL } from 'rate-limiter-flexible';
import { type Pool, corePool, retried } from '../database.ts';
import { hash, placeOf } from './addresses.ts';
import { DoorQueue, type Slot } from '../door/queue.ts';

/** Tries are forgotten after so long. */
const WINDOW_S = 15 * 60;

/** How often a try failed of late: at this account from this address, at this account, from this address. */
export interface Tries {
  readonly both: number;
  readonly account: number;
  readonly address: number;
}

/**
 * How long the next try at an account from a place is not looked at after those that failed. The first few are free;
 * then each rest is twice the one before, up to two seconds: eighteen hundred guesses an hour, and whoever knows the
 * password is never far behind. Many failures on one account from everywhere, or from one place on many accounts, rest
 * a little too.
 * @returns seconds
 */
export function restAfter({ both, account, address }: Tries): number {
  const doubling = (tries: number, free: number, most: number) =>
    tries < free ? 0 : Math.min(most, 2 ** Math.min(20, tries - free - 2));
  return Math.max(doubling(both, 5, 2), doubling(account, 30, 0.25), doubling(address, 40, 0.5));
}

/** Whose password or code is tried. */
export interface Account {
  /** The id of a teacher; of a name that is nobody's the name. */
  readonly account: string;
  /** A browser in which this teacher has been before: nobody else's guesses hold it up. */
  readonly device?: string | undefined;
}

/** A try, before it is known whose door it is at. */
export interface Trying {
  /** An address. */
  readonly address: string;
  /** It says that it is known. */
  readonly claims: boolean;
  readonly who: () => Promise<Account>;
  /** Whoever left is not looked at any more. */
  readonly signal?: AbortSignal | undefined;
}

export interface SignInTries {
  /** In so many seconds a stranger of an address is worth looking at again; 0 where there is room. */
  readonly fullFor: (address: string) => number;
  /**
   * Looks at one try when it is its turn. One that fails counts; one that is right is forgiven. Where too many wait it
   * is sent away at once, with a Problem that says when to come again.
   * @param check  is given what lets the next one on before it is done
   */
  readonly look: <T>(trying: Trying, check: (letOn: () => void) => Promise<T>) => Promise<T>;
}

/** So many browsers that say they are known are looked up at once; beyond, they are strangers. */
const MOST_CLAIMS = 20;
/** Strangers leave the database to those who teach. */
const STRANGERS_LOOKED_UP = 3;
const WAITING = { slots: 2, mostOfPlace: 40, mostOfAll: 400, patienceMs: 15_000 } as const;

/**
 * Counts failures in the database, so that all servers count together and a restart forgets nothing. Accounts and
 * addresses are kept as hashes: what is typed into the wrong field is sometimes a password.
 * @param database  its name
 */
export function signInTries(pool: Pool, database: string, queue = new DoorQueue(WAITING)): SignInTries {
  const limiter = new RateLimiterMySQL({
    storeClient: corePool(pool),
    storeType: 'pool',
    dbName: database,
    tableName: 'sign_in_tries',
    tableCreated: true,
    keyPrefix: '',
    points: Number.MAX_SAFE_INTEGER,
    duration: WINDOW_S,
    clearExpiredByTimeout: true,
  });
  const count = (key: string) => retried(async () => (await limiter.consume(key)).consumedPoints);
  let claimed = 0;
  const lookups = pLimit(STRANGERS_LOOKED_UP);
  const known = async (key: string) => (await limiter.get(key))?.consumedPoints ?? 0;
  return {
    fullFor: (address) => (queue.isFull(placeOf(address)) ? WAITING.patienceMs / 1000 : 0),
    look: async ({ address, claims, who, signal }, check) => {
      const street = placeOf(address);
      const believed = claims && claimed < MOST_CLAIMS;
      let leave = believed ? () => {} : queue.arrive(street);
      if (believed) claimed++;
      let slot: Slot;
      let keys: readonly string[];
      try {
        const look = async () => {
          const { account, device } = await who();
          const place = device === undefined ? street : `device ${device}`;
          const [whom, where] = [hash(account), hash(place)];
          const both = `both:${hash(whom + where)}`;
          return { device, place, failed: await known(both), keys: [both, `account:${whom}`, `address:${where}`] };
        };
        const one = await (believed ? look().finally(() => claimed--) : lookups(look));
        const { device, place, failed } = one;
        keys = one.keys;
        if (believed && device === undefined) leave = queue.arrive(street);
        // Another server may have counted them. Only this pair: what others do elsewhere holds up nobody here.
        if (failed > 0) queue.rest(keys[0]!, 1000 * restAfter({ both: failed, account: 0, address: 0 }));
        leave();
        slot = await queue.enter({ known: device !== undefined, place, key: keys[0]! }, signal);
      } finally {
        leave();
      }
      try {
        const done = await check(() => slot.release());
        await limiter.delete(keys[0]!);
        slot.release();
        return done;
      } catch (error) {
        const [both, ofAccount, ofAddress] = await Promise.all(keys.map(count));
        const rest = restAfter({ both: both!, account: ofAccount!, address: ofAddress! });
        queue.rest(keys[0]!, 1000 * rest);
        slot.release();
        throw error;
      }
    },
  };
}
