import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { dictionary } from '@zxcvbn-ts/language-common';
import { turnsOf } from './turns.ts';

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt);

/**
 * scrypt with 32 MB of memory for one guess (the OWASP cheat sheet's N = 2^15, r = 8, p = 3 at the lower memory
 * setting).
 */
const COST = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 1024 * 1024 };
const KEY_BYTES = 32;

/** Each needs a third of a second of one processor and 32 MB: two at once leave the rest to everybody. */
const hashing = turnsOf(2, 300);

function keyOf(password: string, salt: Buffer): Promise<Buffer> {
  return hashing('', () => derive(password.normalize('NFKC'), salt, KEY_BYTES, COST));
}

/** "scrypt$salt$key", both in base64. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await keyOf(password, salt);
  return `scrypt$${salt.toString('base64')}$${key.toString('base64')}`;
}

/** Takes as long for a wrong password as for the right one. */
export async function passwordFits(password: string, hash: string): Promise<boolean> {
  const [, salt = '', key = ''] = hash.split('$');
  const stored = Buffer.from(key, 'base64');
  const given = await keyOf(password, Buffer.from(salt, 'base64'));
  return stored.length === given.length && timingSafeEqual(stored, given);
}

/** Checked against when there is no such teacher, so that the answer takes as long. */
export const NOBODYS_HASH = ['scrypt', ...[16, KEY_BYTES].map((bytes) => Buffer.alloc(bytes).toString('base64'))].join(
  '$',
);

const COMMONEST = new Set(dictionary['passwords-common'] as readonly string[]);
const FEWEST_LETTERS = 5;

/**
 * Why a password cannot be chosen, in one sentence without its full stop; undefined when it can. Its length is the
 * contract's to check.
 * @param name  of the teacher
 */
export function passwordTrouble(password: string, name: string): string | undefined {
  const plain = password.normalize('NFKC').toLowerCase();
  // "Sunshine2024!" is found as easily as "sunshine".
  const core = plain.replace(/^[^\p{L}]+|[^\p{L}]+$/gu, '');
  if (COMMONEST.has(plain) || COMMONEST.has(core)) return 'this password is one of the first that are tried everywhere';
  if (new Set(plain).size < FEWEST_LETTERS) return 'this password says the same letter too often';
  const own = [name.toLowerCase().replace(/\s+/g, ''), 'clapboard'];
  if (own.includes(core.replace(/\s+/g, ''))) return 'this password is only your name, or ours';
  return undefined;
}
