import fitsClass from 'virtual:fits/class';
import fitsClasses from 'virtual:fits/classes';
import fitsMastery from 'virtual:fits/mastery';
import fitsPatterns from 'virtual:fits/patterns';
import fitsPlans from 'virtual:fits/plans';
import fitsTake from 'virtual:fits/take';
import type { ChildMastery } from '../../contract/mastery.ts';
import type { SavedPattern } from '../../contract/pattern.ts';
import type { SavedPlan } from '../../contract/plan.ts';
import type { ClassDetail, ClassSummary } from '../../contract/schoolClass.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { useGet } from './useGet.ts';

export const useClasses = () => useGet<ClassSummary[]>('/classes', fitsClasses);
export const useClass = (id: string | undefined) => useGet<ClassDetail>(id ? `/classes/${id}` : null, fitsClass);
export const usePatterns = () => useGet<SavedPattern[]>('/patterns', fitsPatterns);
export const useMastery = (classId: string, childId: string) =>
  useGet<ChildMastery>(`/classes/${classId}/children/${childId}/mastery`, fitsMastery);
export const usePlans = () => useGet<SavedPlan[]>('/plans', fitsPlans);
export const useTake = (id: string | undefined) => useGet<TakeDetail>(id ? `/takes/${id}` : null, fitsTake);
