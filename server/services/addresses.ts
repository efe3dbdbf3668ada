import { createHash } from 'node:crypto';
import ipaddr from 'ipaddr.js';

/** For keys of counts: what is typed into the wrong field, or where somebody is, is not kept as it is. */
export function hash(text: string): string {
  return createHash('sha256').update(text).digest('base64url').slice(0, 32);
}

/** Who has one address of the newer kind has a whole network of them. */
export function placeOf(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const parsed = ipaddr.process(address);
  return parsed.kind() === 'ipv4' ? parsed.toString() : parsed.toByteArray().slice(0, 8).join('.');
}
