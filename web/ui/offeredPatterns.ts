import { useMemo } from 'react';
import { usePatterns } from '../api/hooks.ts';

/** The patterns to choose from: all but those that were put away. */
export function useOfferedPatterns() {
  const patterns = usePatterns();
  const { data } = patterns;
  const offered = useMemo(() => data?.filter(({ archived }) => !archived), [data]);
  return { error: patterns.error, mutate: patterns.mutate, data: offered };
}
