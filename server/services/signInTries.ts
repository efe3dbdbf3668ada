import { createHash } from 'node:crypto';
import ipaddr from 'ipaddr.js';
import { RateLimiterMySQL } from 'rate-limiter-flexible';
import { type Pool, corePool, retried } from '../database.ts';
import { DoorQueue, doorBusy } from '../door/queue.ts';

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

/** Whose password or code is tried, and from where. */
export interface Trying {
  /** The id of a teacher; of a name that is nobody's the name. */
  readonly account: string;
  /** An address. */
  readonly address: string;
  /** A browser in which this teacher has been before: nobody else's guesses hold it up. */
  readonly device?: string | undefined;
  /** Whoever left is not looked at any more. */
  readonly signal?: AbortSignal | undefined;
}

export interface SignInTries {
  /** A stranger is sent away at once where too many of its address wait. Throws a Problem that says when to come again. */
  readonly knock: (address: string) => void;
  /**
   * Looks at one try when it is its turn. One that fails counts; one that is right is forgiven.
   * @param check  is given what lets the next one on before it is done
   */
  readonly look: <T>(who: Trying, check: (letOn: () => void) => Promise<T>) => Promise<T>;
}

const WAITING = { slots: 2, mostOfPlace: 40, mostOfAll: 2_000, patienceMs: 20_000 } as const;

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
  const known = async (key: string) => (await limiter.get(key))?.consumedPoints ?? 0;
  return {
    knock: (address) => {
      if (!queue.hasRoom(placeOf(address))) throw doorBusy(WAITING.patienceMs / 1000);
    },
    look: async ({ account, address, device, signal }, check) => {
      const place = device === undefined ? placeOf(address) : `device ${device}`;
      const [who, where] = [hash(account), hash(place)];
      const keys = [`both:${hash(who + where)}`, `account:${who}`, `address:${where}`] as const;
      // Another server may have counted them. Only this pair: what others do elsewhere holds up nobody here.
      const failed = await known(keys[0]);
      if (failed > 0) queue.rest(keys[0], Date.now() + 1000 * restAfter({ both: failed, account: 0, address: 0 }));
      const slot = await queue.enter({ known: device !== undefined, place, key: keys[0] }, signal);
      try {
        const done = await check(() => slot.release());
        await limiter.delete(keys[0]);
        slot.release();
        return done;
      } catch (error) {
        const [both, ofAccount, ofAddress] = await Promise.all(keys.map(count));
        const rest = restAfter({ both: both!, account: ofAccount!, address: ofAddress! });
        slot.release(Date.now() + 1000 * rest);
        throw error;
      }
    },
  };
}

function hash(text: string): string {
  return createHash('sha256').update(text).digest('base64url').slice(0, 32);
}

/** Who has one address of the newer kind has a whole network of them. */
function placeOf(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const parsed = ipaddr.process(address);
  return parsed.kind() === 'ipv4' ? parsed.toString() : parsed.toByteArray().slice(0, 8).join('.');
}
