import { useMemo } from 'react';
import type { Bracket } from '../../contract/pattern.ts';
import { usePatterns } from '../api/hooks.ts';

/** The words over the pattern of a take, where it is still written as it was then. */
export function useBrackets(patternId: string | null, patternText: string): readonly Bracket[] | undefined {
  const { data } = usePatterns();
  return useMemo(
    () => data?.find(({ id, text }) => id === patternId && text === patternText)?.brackets,
    [data, patternId, patternText],
  );
}
