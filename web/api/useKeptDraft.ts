import { useEffect, useState, useSyncExternalStore } from 'react';
import { put } from './client.ts';
import { useRefresh } from './useRefresh.ts';
import { later } from '../ui/later.ts';
import { KeptDraft, type KeptMoment } from '../store/keptDraft.ts';

interface KeptAt<T> {
  /** Where it stands on the server. */
  readonly path: string;
  readonly saved: T | undefined;
  /** What is shown where the server has none. */
  readonly first: T;
  readonly fits: (kept: unknown) => boolean;
  /** Without what is not sent, the id for one. */
  readonly bare: (answer: unknown) => T;
  /** Paths under which something is another when it is saved. */
  readonly refreshes: readonly string[];
}

/** Something changed bit by bit and kept whole on the server; another path is another component. */
export function useKeptDraft<T extends object>({
  path,
  saved,
  first,
  fits,
  bare,
  refreshes,
}: KeptAt<T>): KeptMoment<T> & Pick<KeptDraft<T>, 'change' | 'choose' | 'settle'> {
  const refresh = useRefresh();
  const [draft] = useState(() => {
    const save = async (value: T, was: T | undefined) => {
      const answer = bare(await put(path, was ? { ...value, was } : value));
      await refresh(...refreshes);
      return answer;
    };
    return new KeptDraft<T>(`draft:${path}`, saved, first, { save, later, fits });
  });
  useEffect(() => {
    if (saved) draft.arrived(saved);
  }, [draft, saved]);
  useEffect(() => {
    draft.open();
    return draft.close;
  }, [draft]);
  const { change, choose, settle } = draft;
  return { ...useSyncExternalStore(draft.subscribe, draft.moment), change, choose, settle };
}
