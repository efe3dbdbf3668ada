import type { ClassSummary } from '../../contract/school.ts';
import { useClasses } from './hooks.ts';
import { readStored } from '../ui/stored.ts';

/** The class this device worked with last: its words and names hold wherever no class is chosen. */
export function useCurrentClass(): ClassSummary | undefined {
  const { data } = useClasses();
  return data?.find(({ id }) => id === readStored('take.class')) ?? data?.[0];
}
