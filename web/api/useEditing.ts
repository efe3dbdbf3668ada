import { useState } from 'react';
import { ApiProblem, type Clash, put } from './client.ts';
import { allSame, flat, settled, unflat } from '../store/settled.ts';
import { useSave } from './useSave.ts';

export interface Editing<T> {
  /** @returns true when it is saved */
  readonly save: (wanted: T) => Promise<boolean>;
  readonly saving: boolean;
  readonly problem: Error | undefined;
  /** Somebody else changed the same meanwhile: what is there now, and what was to be saved. */
  readonly clash: (Clash & { readonly mine: T }) | undefined;
  /** Saves what both come to. @param theirsStays  parts that both changed, of which theirs is chosen */
  readonly settle: (theirsStays: ReadonlySet<string>) => Promise<boolean>;
}

/**
 * Changes something that others may be changing too: what they changed meanwhile stays, and where both changed the same
 * both are shown before one is kept.
 * @param path  where it stands
 * @param was  what it was when the change began, later values are not looked at; undefined where it is new
 * @param refreshes  paths under which something is another now
 * @param adopt  takes what the server has come to, for a page that goes on with it; returns it as it is sent
 */
export function useEditing<T extends object>(
  path: string,
  was: T | undefined,
  refreshes: readonly string[],
  adopt?: (now: unknown) => T,
): Editing<T> {
  const [base, setBase] = useState<object | undefined>(was);
  const [mine, setMine] = useState<T>();
  const saving = useSave(
    async ({ wanted, from }: { wanted: T; from: object | undefined }) => {
      const now = await put(path, from ? { ...wanted, was: from } : wanted);
      // What is saved next is made from this.
      setBase(adopt?.(now ?? wanted) ?? wanted);
    },
    ...refreshes,
  );
  const save = async (wanted: T, from = base) => {
    setMine(wanted);
    return saving.save({ wanted, from });
  };
  const found = saving.problem instanceof ApiProblem ? saving.problem.clash : undefined;
  const clash = found && mine ? { ...found, mine } : undefined;
  return {
    save: (wanted) => save(wanted),
    saving: saving.saving,
    problem: found ? undefined : saving.problem,
    clash,
    settle: async (theirsStays) => {
      if (!clash) return false;
      const own = clash.mine as Readonly<Record<string, unknown>>;
      const was = base as Readonly<Record<string, unknown>> | undefined;
      const wanted = settled(was && flat(was), clash.theirs, flat(own), theirsStays);
      const theirs = unflat(clash.theirs, own);
      if (allSame(wanted, clash.theirs)) {
        setBase(adopt?.(theirs) ?? theirs);
        setMine(undefined);
        return true;
      }
      setBase(theirs);
      return save(unflat(wanted, own) as T, theirs);
    },
  };
}
