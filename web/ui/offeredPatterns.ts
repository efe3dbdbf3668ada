import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { usePatterns } from '../api/hooks.ts';

/**
 * The patterns to choose from: all but those that were put away.
 * @param asked  one that is shown all the same: where it is left out, the one in the address
 */
export function useOfferedPatterns(asked?: string) {
  const [search] = useSearchParams();
  const patterns = usePatterns();
  const { data } = patterns;
  const wanted = asked ?? search.get('pattern');
  const offered = useMemo(() => data?.filter(({ id, archived }) => !archived || id === wanted), [data, wanted]);
  return { error: patterns.error, mutate: patterns.mutate, data: offered };
}
