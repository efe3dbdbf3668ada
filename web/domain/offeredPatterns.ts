import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { ClassSummary } from '../../contract/schoolClass.ts';
import { usePatterns, usePatternsOfClass } from '../api/hooks.ts';

/**
 * The patterns to choose from: all but those that were put away.
 * @param asked  one that is shown all the same: where it is left out, the one in the address
 * @param heard  a class that is heard on them; those of the colleague whose it is come after one's own
 */
export function useOfferedPatterns(asked?: string, heard?: Pick<ClassSummary, 'id' | 'role'>) {
  const [search] = useSearchParams();
  const patterns = usePatterns();
  const hers = usePatternsOfClass(heard?.role === 'hear' ? heard.id : undefined);
  const isWaited = heard?.role === 'hear' && hers.data === undefined && hers.error === undefined;
  const [own, others] = [patterns.data, hers.data];
  const wanted = asked ?? search.get('pattern');
  const offered = useMemo(() => {
    if (!own || isWaited) return undefined;
    const more = others?.filter(({ id }) => !own.some((one) => one.id === id)) ?? [];
    return [...own, ...more].filter(({ id, archived }) => !archived || id === wanted);
  }, [own, others, isWaited, wanted]);
  return { error: patterns.error, mutate: patterns.mutate, data: offered };
}
