import useSWR, { type SWRConfiguration, useSWRConfig } from 'swr';
import {
  isClassDetail,
  isClassList,
  isMastery,
  isPatternList,
  isPlanList,
  isSessionState,
  isTakeDetail,
} from 'virtual:validators';
import type { SavedPlan } from '../../contract/plan.ts';
import type { ClassDetail, ClassSummary } from '../../contract/schoolClass.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { type ApiProblem, get } from './client.ts';
import { type SessionState } from '../../contract/session.ts';
import { type SavedPattern } from '../../contract/pattern.ts';
import { type ChildMastery } from '../../contract/mastery.ts';

function useGet<T>(path: string | null, fits: (data: unknown) => boolean, options?: SWRConfiguration<T, ApiProblem>) {
  return useSWR<T, ApiProblem>(path, (key: string) => get<T>(key, fits), options);
}

export const useSession = () => useGet<SessionState>('/session', isSessionState, { revalidateOnFocus: false });
export const useClasses = () => useGet<ClassSummary[]>('/classes', isClassList);
export const useClass = (id: string | undefined) => useGet<ClassDetail>(id ? `/classes/${id}` : null, isClassDetail);
export const usePatterns = () => useGet<SavedPattern[]>('/patterns', isPatternList);
export const useMastery = (classId: string, childId: string) =>
  useGet<ChildMastery>(`/classes/${classId}/children/${childId}/mastery`, isMastery);
export const usePlans = () => useGet<SavedPlan[]>('/plans', isPlanList);
export const useTake = (id: string | undefined) => useGet<TakeDetail>(id ? `/takes/${id}` : null, isTakeDetail);

/** Fetches again whatever stands under these paths. */
export function useRefresh(): (...prefixes: string[]) => Promise<unknown> {
  const { mutate } = useSWRConfig();
  return (...prefixes) => mutate((key) => typeof key === 'string' && prefixes.some((prefix) => key.startsWith(prefix)));
}
