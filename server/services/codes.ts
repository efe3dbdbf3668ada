import { createHash, randomBytes } from 'node:crypto';

/** SHA-256 of a token or a code: who reads the database cannot use it. */
export function tokenHash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

/** A code that is read out and typed: small letters and numbers that are not mistaken for each other. */
export function drawCode(): string {
  const letters = 'abcdefghjkmnpqrstuvwxyz23456789';
  const code = Array.from(randomBytes(20), (byte) => letters[byte % letters.length]).join('');
  return code.replace(/.{5}(?=.)/g, '$&-');
}

/** Of a code however it was typed. */
export const codeHash = (code: string) => tokenHash(code.toLowerCase().replace(/[^a-z0-9]/g, ''));
