import { scryptSync } from 'node:crypto';
import { setPriority } from 'node:os';

/** What is to be derived. */
export interface Derivation {
  readonly password: string;
  readonly salt: Uint8Array;
  readonly bytes: number;
  readonly parameters: { readonly N: number; readonly r: number; readonly p: number; readonly maxmem: number };
}

// Of this thread alone: whoever teaches goes before whoever tries to come in.
const LESS = 5;
try {
  setPriority(0, LESS);
} catch {
  // Where the system does not let it, all have the same.
}

/** Derives a key from a password. Runs in a thread of its own: it takes a third of a second of a processor. */
export default function derive({ password, salt, bytes, parameters }: Derivation): Uint8Array {
  return scryptSync(password, salt, bytes, parameters);
}
