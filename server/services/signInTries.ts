import { createHash } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import ipaddr from 'ipaddr.js';
import { RateLimiterMySQL } from 'rate-limiter-flexible';
import { type Pool, corePool, retried } from '../database.ts';
import { turnsOf } from '../turns.ts';

/** Tries are forgotten after so long. */
const WINDOW_S = 15 * 60;

/** How often somebody tried of late: this account from this address, this account, this address. */
export interface Tries {
  readonly both: number;
  readonly account: number;
  readonly address: number;
}

/**
 * How long a try waits before it is looked at: nobody is ever refused, so that nobody can lock a teacher out, but
 * guessing goes slowly. The first few are free; then each wait is twice the one before, up to forty seconds, ninety
 * tries an hour. Many tries on one account from everywhere, or from one address on many accounts, wait a little too.
 * @returns seconds
 */
export function waitBefore({ both, account, address }: Tries): number {
  const doubling = (tries: number, free: number, most: number) =>
    tries <= free ? 0 : Math.min(most, 2 ** Math.min(20, tries - free - 1));
  return Math.max(doubling(both, 5, 40), doubling(account, 30, 5), doubling(address, 40, 20));
}

export interface SignInTries {
  /**
   * Looks at one try to sign in, when it is its time. One that fails counts; one that is right is forgiven.
   * @param place  an address, or a browser that is known
   */
  readonly look: <T>(account: string, place: string, check: () => Promise<T>) => Promise<T>;
}

/**
 * Counts tries in the database, so that all servers count together and a restart forgets nothing. Accounts and
 * addresses are kept as hashes: what is typed into the wrong field is sometimes a password.
 * @param database  its name
 */
export function signInTries(pool: Pool, database: string, pause: (ms: number) => Promise<unknown> = wait): SignInTries {
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
  // Tries that are sent all at once wait for each other, else the waits would pass together.
  const turns = turnsOf(1, 5);
  return {
    look: async (account, address, check) => {
      const [who, where] = [hash(account.normalize('NFKC').trim().toLowerCase()), hash(placeOf(address))];
      const keys = [`both:${hash(who + where)}`, `account:${who}`, `address:${where}`] as const;
      return turns(keys[0], async () => {
        const [both, ofAccount, ofAddress] = [await count(keys[0]), await count(keys[1]), await count(keys[2])];
        await pause(1_000 * waitBefore({ both, account: ofAccount, address: ofAddress }));
        const done = await check();
        await limiter.delete(keys[0]);
        for (const key of keys.slice(1)) await limiter.reward(key);
        return done;
      });
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
