import { t } from '../../core/words/say.ts';
import { isDeepStrictEqual } from 'node:util';
import { Problem } from '../problem.ts';

/** What is left out is the same as nothing. */
const same = (a: unknown, b: unknown) => isDeepStrictEqual(a ?? null, b ?? null);

/**
 * What somebody changed, put into what is there by now: parts only others changed stay as they are. Refuses, with what
 * is there, when both changed the same part to something different.
 * @param was  what the change was made from; undefined takes the change as it is
 */
export function merged<T extends object>(was: Partial<T> | undefined, now: Partial<T>, wanted: T): T {
  if (was === undefined) return wanted;
  const result: T = { ...wanted };
  const parts: string[] = [];
  for (const part of new Set([...Object.keys(was), ...Object.keys(now), ...Object.keys(wanted)]) as Set<
    keyof T & string
  >) {
    if (same(wanted[part], was[part])) {
      if (now[part] === undefined) delete result[part];
      else result[part] = now[part];
    } else if (!same(now[part], was[part]) && !same(now[part], wanted[part])) parts.push(part);
  }
  if (parts.length === 0) return result;
  throw new Problem(
    409,
    'changed-meanwhile',
    t`Somebody else changed the same meanwhile. Look at both, and choose which one is to stay.`,
    { theirs: now, parts },
  );
}
