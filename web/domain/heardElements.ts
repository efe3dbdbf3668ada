import { useMemo } from 'react';
import { ELEMENT_IDS, type ElementId } from '../../core/rhythm/elements.ts';
import { useRecords } from '../api/hooks.ts';

/** What every class has met after its first weeks; until a class was heard, nothing else is known of it. */
const FIRST: readonly ElementId[] = ['quarter', 'eighth-pair', 'quarter-rest', 'half'];
/** A pattern of one element alone has no look-alikes. */
export const FEWEST = 2;

/** The elements a class was heard with; the first ones where it was not heard yet. */
export function useHeardElements(classId: string | undefined): readonly ElementId[] {
  const { data } = useRecords(classId);
  return useMemo(() => {
    const heard = new Set(data?.elements.map(({ element }) => element));
    const known = ELEMENT_IDS.filter((id) => heard.has(id) && id !== 'compound');
    return known.length >= FEWEST ? known : FIRST;
  }, [data]);
}
