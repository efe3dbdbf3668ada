import { useSWRConfig } from 'swr';
import fitsBin from 'virtual:fits/bin';
import fitsClass from 'virtual:fits/class';
import fitsClasses from 'virtual:fits/classes';
import fitsElementPlaces from 'virtual:fits/element-places';
import fitsLineUps from 'virtual:fits/line-ups';
import fitsMastery from 'virtual:fits/mastery';
import fitsPatterns from 'virtual:fits/patterns';
import fitsPlans from 'virtual:fits/plans';
import fitsRecords from 'virtual:fits/records';
import fitsPractice from 'virtual:fits/practice';
import fitsShares from 'virtual:fits/shares';
import fitsTerm from 'virtual:fits/term';
import fitsTerms from 'virtual:fits/terms';
import type { Binned } from '../../contract/bin.ts';
import type { LineUp } from '../../contract/lineUp.ts';
import type { SavedPattern } from '../../contract/pattern.ts';
import type { SavedPlan } from '../../contract/plan.ts';
import type { PracticeWeek } from '../../contract/practice.ts';
import type { Share } from '../../contract/sharing.ts';
import type { Term, TermDetail } from '../../contract/term.ts';
import type { ChildMastery, ClassRecords, ElementPlaces } from '../../contract/records.ts';
import type { ClassDetail, ClassSummary } from '../../contract/schoolClass.ts';
import { useClassNews } from './classNews.ts';
import { getNow } from './client.ts';
import { useGet } from './useGet.ts';

export const useClasses = () => useGet<ClassSummary[]>('/classes', fitsClasses);
/** A class, kept as it is by now while the page is open. */
export function useClass(id: string | undefined) {
  useClassNews(id);
  return useGet<ClassDetail>(id ? `/classes/${id}` : null, fitsClass);
}
/** A class as it was when it was asked for. */
export const useClassOnce = (id: string | undefined) => useGet<ClassDetail>(id ? `/classes/${id}` : null, fitsClass);
export const usePatterns = () => useGet<SavedPattern[]>('/patterns', fitsPatterns);
/** What a class of a colleague is heard on: hers. */
export const usePatternsOfClass = (classId: string | undefined) =>
  useGet<SavedPattern[]>(classId ? `/classes/${classId}/patterns` : null, fitsPatterns);
export const useRecords = (classId: string | undefined) =>
  useGet<ClassRecords>(classId ? `/classes/${classId}/records` : null, fitsRecords);
export const useMastery = (classId: string, childId: string) =>
  useGet<ChildMastery>(`/classes/${classId}/children/${childId}/mastery`, fitsMastery);
/** Where a child was heard in an element, place by place. */
export const useElementPlaces = (classId: string, childId: string, element: string) =>
  useGet<ElementPlaces>(`/classes/${classId}/children/${childId}/elements/${element}`, fitsElementPlaces);
const lineUpsPath = (classId: string) => `/classes/${classId}/line-ups`;
export const useLineUps = (classId: string | undefined) =>
  useGet<LineUp[]>(classId ? lineUpsPath(classId) : null, fitsLineUps);

/**
 * Puts what the server has from here on into the page: an answer to an earlier question cannot come after it. Rejects
 * where the server does not say, whatever this device has kept of earlier answers.
 */
export function useFreshLineUps(classId: string): () => Promise<unknown> {
  const { mutate } = useSWRConfig();
  const path = lineUpsPath(classId);
  return () => mutate(path, () => getNow<LineUp[]>(path, fitsLineUps), { revalidate: false });
}
export const useShares = (classId: string) => useGet<Share[]>(`/classes/${classId}/shares`, fitsShares);
export const useTerms = (classId: string) => useGet<Term[]>(`/classes/${classId}/terms`, fitsTerms);
export const useTerm = (classId: string, termId: string) =>
  useGet<TermDetail>(`/classes/${classId}/terms/${termId}`, fitsTerm);
export const usePractice = (classId: string | undefined) =>
  useGet<PracticeWeek[]>(classId ? `/classes/${classId}/practice` : null, fitsPractice);
export const usePlans = () => useGet<SavedPlan[]>('/plans', fitsPlans);
export const useBin = () => useGet<Binned[]>('/bin', fitsBin);
