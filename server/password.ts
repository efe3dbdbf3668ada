import { t } from '../core/words/say.ts';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import { dictionary } from '@zxcvbn-ts/language-common';
import { deriveKey, pretendToDerive } from './door/hashing.ts';

/** N is two to the power of it; 15 takes 32 MB for a guess (r = 8, p = 3: the OWASP cheat sheet's lower setting). */
const USUAL_COST = 15;
const COSTS = { least: 4, most: 17 } as const;
const parametersOf = (cost: number) => ({ N: 2 ** cost, r: 8, p: 3, maxmem: 2 ** (cost + 11) });
const KEY_BYTES = 32;

/**
 * What a new password costs. Only tests, which sign in hundreds of times, set another one.
 * Throws an Error that names the setting when it makes no sense.
 */
export function passwordCost(): number {
  const set = process.env['PASSWORD_COST'];
  const cost = Number(set ?? USUAL_COST);
  if (!Number.isInteger(cost) || cost < COSTS.least || cost > COSTS.most)
    throw new Error(t`PASSWORD_COST must be a whole number from ${COSTS.least} to ${COSTS.most}, not “${set}”`);
  return cost;
}

function keyOf(password: string, salt: Buffer, cost: number): Promise<Buffer> {
  return deriveKey({ password: password.normalize('NFKC'), salt, bytes: KEY_BYTES, parameters: parametersOf(cost) });
}

/**
 * "scrypt$salt$key", both in base64; "scrypt$cost$salt$key" where the cost is not the usual one, so that a server of an
 * earlier version reads what this one writes.
 */
function written(cost: number, salt: Buffer, key: Buffer): string {
  const parts = [salt, key].map((part) => part.toString('base64'));
  return ['scrypt', ...(cost === USUAL_COST ? [] : [cost]), ...parts].join('$');
}

export async function hashPassword(password: string): Promise<string> {
  const [cost, salt] = [passwordCost(), randomBytes(16)];
  return written(cost, salt, await keyOf(password, salt, cost));
}

/** Takes as long for a wrong password as for the right one, and what it cost when it was chosen. */
export async function passwordFits(password: string, hash: string): Promise<boolean> {
  const [key = '', salt = '', cost = USUAL_COST] = hash.split('$').slice(1).reverse();
  const stored = Buffer.from(key, 'base64');
  const given = await keyOf(password, Buffer.from(salt, 'base64'), Number(cost));
  return stored.length === given.length && timingSafeEqual(stored, given);
}

/** Where there is no such teacher: the answer takes as long, and costs next to nothing. */
export async function pretendPassword(password: string): Promise<false> {
  if (!(await pretendToDerive())) await keyOf(password, Buffer.alloc(16), passwordCost());
  return false;
}

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
  if (COMMONEST.has(plain) || COMMONEST.has(core))
    return t`this password is one of the first that are tried everywhere`;
  if (new Set(plain).size < FEWEST_LETTERS) return t`this password says the same letter too often`;
  const own = [name.toLowerCase().replace(/\s+/g, ''), 'clapboard'];
  if (own.includes(core.replace(/\s+/g, ''))) return t`this password is only your name, or ours`;
  return undefined;
}
