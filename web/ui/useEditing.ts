import { useState } from 'react';
import { ApiProblem, type Clash, put } from '../api/client.ts';
import { useSave } from './useSave.ts';

export interface Editing<T> {
  /** @returns true when it is saved */
  readonly save: (wanted: T) => Promise<boolean>;
  readonly problem: Error | undefined;
  /** Somebody else changed the same meanwhile: what is there now, and what was to be saved. */
  readonly clash: (Clash & { readonly mine: T }) | undefined;
  /** Saves one's own all the same. */
  readonly keepMine: () => Promise<boolean>;
}

/**
 * Changes something that others may be changing too: what they changed meanwhile stays, and where both changed the same
 * both are shown before one is kept.
 * @param path  where it stands
 * @param was  what it was when the change began, later values are not looked at; undefined where it is new
 * @param refreshes  paths under which something is another now
 * @param wasFrom  makes of what is there now what a change is made from
 */
export function useEditing<T extends object>(
  path: string,
  was: T | undefined,
  refreshes: readonly string[],
  wasFrom: (theirs: Clash['theirs']) => object = (theirs) => theirs,
): Editing<T> {
  const [base, setBase] = useState<object | undefined>(was);
  const [mine, setMine] = useState<T>();
  const saving = useSave(
    ({ wanted, from }: { wanted: T; from: object | undefined }) => put(path, from ? { ...wanted, was: from } : wanted),
    ...refreshes,
  );
  const save = async (wanted: T, from = base) => {
    setMine(wanted);
    const done = await saving.save({ wanted, from });
    // What is saved next is made from this.
    if (done) setBase(wanted);
    return done;
  };
  const found = saving.problem instanceof ApiProblem ? saving.problem.clash : undefined;
  const clash = found && mine ? { ...found, mine } : undefined;
  return {
    save: (wanted) => save(wanted),
    problem: clash ? undefined : saving.problem,
    clash,
    keepMine: async () => {
      if (!clash) return false;
      const theirs = wasFrom(clash.theirs);
      setBase(theirs);
      return save(clash.mine, theirs);
    },
  };
}
