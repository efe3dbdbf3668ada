import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt);

/**
 * scrypt with 32 MB of memory for one guess (the OWASP cheat sheet's N = 2^15, r = 8, p = 3 at the lower memory
 * setting).
 */
const COST = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 1024 * 1024 };
const KEY_BYTES = 32;

/** "scrypt$salt$key", both in base64. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(password.normalize('NFKC'), salt, KEY_BYTES, COST);
  return `scrypt$${salt.toString('base64')}$${key.toString('base64')}`;
}

/** Takes as long for a wrong password as for the right one. */
export async function passwordFits(password: string, hash: string): Promise<boolean> {
  const [, salt = '', key = ''] = hash.split('$');
  const stored = Buffer.from(key, 'base64');
  const given = await derive(password.normalize('NFKC'), Buffer.from(salt, 'base64'), KEY_BYTES, COST);
  return stored.length === given.length && timingSafeEqual(stored, given);
}

/** Checked against when there is no such teacher, so that the answer takes as long. */
export const NOBODYS_HASH = ['scrypt', ...[16, KEY_BYTES].map((bytes) => Buffer.alloc(bytes).toString('base64'))].join(
  '$',
);
