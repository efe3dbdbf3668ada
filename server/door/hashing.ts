import { scrypt } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { promisify } from 'node:util';
import { Piscina } from 'piscina';
import { workerFile } from '../workerFile.ts';
import type { Derivation } from './hash.worker.ts';

/** So many at once: two for strangers, one for browsers that are known. */
const HASH_THREADS = 3;
/** What costs less memory, as in tests, is not worth a thread. */
const WORTH_A_THREAD = 2 ** 12;

let pool: Piscina | undefined;

/** All of them from the first one on: to begin a thread while a flood is at the door takes long. */
function threads(): Piscina {
  return (pool ??= new Piscina({
    ...workerFile(new URL('./hash.worker.ts', import.meta.url)),
    minThreads: HASH_THREADS,
    maxThreads: HASH_THREADS,
    env: {},
  }));
}

const here = promisify<string, Uint8Array, number, Derivation['parameters'], Buffer>(scrypt);

/** How long the newest ones took, milliseconds. */
const took: number[] = [];
const REMEMBERED = 16;

/** A key from a password, derived beside the server's own work. */
export async function deriveKey(job: Derivation): Promise<Buffer> {
  const from = performance.now();
  const { password, salt, bytes, parameters } = job;
  const key =
    parameters.N < WORTH_A_THREAD
      ? await here(password, salt, bytes, parameters)
      : Buffer.from((await threads().run(job)) as Uint8Array);
  took.push(performance.now() - from);
  if (took.length > REMEMBERED) took.shift();
  return key;
}

/**
 * Takes as long as deriving a key does of late, and costs nothing: for names that are nobody's.
 * @returns whether it is known how long that is
 */
export async function pretendToDerive(random: () => number = Math.random): Promise<boolean> {
  const ms = took[Math.floor(random() * took.length)];
  if (ms !== undefined) await wait(ms);
  return ms !== undefined;
}
