import { useEffect, useState, useSyncExternalStore } from 'react';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { put } from '../../api/client.ts';
import { later } from '../../ui/later.ts';
import { useRefresh } from '../../api/useRefresh.ts';
import { type Draft, type DraftMoment, PatternDraft } from './patternDraft.ts';

/** The draft of one pattern; another id is another component. */
export function useDraft(
  id: string,
  saved: SavedPattern | undefined,
): DraftMoment & Pick<PatternDraft, 'change' | 'choose'> {
  const refresh = useRefresh();
  const [draft] = useState(() => {
    const save = async (sent: Draft, was: Draft | undefined) => {
      await put(`/patterns/${id}`, was ? { ...sent, was } : sent);
      await refresh('/patterns');
    };
    return new PatternDraft(id, saved, { save, later });
  });
  useEffect(() => {
    if (saved) draft.arrived(saved);
  }, [draft, saved]);
  useEffect(() => {
    draft.open();
    return draft.close;
  }, [draft]);
  const { change, choose } = draft;
  return { ...useSyncExternalStore(draft.subscribe, draft.moment), change, choose };
}
