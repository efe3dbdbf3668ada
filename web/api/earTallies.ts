import fitsEar from 'virtual:fits/ear';
import type { EarTally } from '../../contract/ear.ts';
import { useGet } from './useGet.ts';

/** How a class did in the views of the ear; apart from the other questions, for only one view asks. */
export const useEarTallies = (classId: string) => useGet<EarTally[]>(`/classes/${classId}/ear`, fitsEar);
