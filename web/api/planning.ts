import fitsHeardWeeks from 'virtual:fits/heard-weeks';
import fitsLessons from 'virtual:fits/lessons';
import fitsTermPlan from 'virtual:fits/term-plan';
import type { SavedLesson } from '../../contract/lesson.ts';
import type { HeardWeeks, TermPlanEdit } from '../../contract/termPlan.ts';
import { useGet } from './useGet.ts';

export const lessonsPath = (classId: string) => `/classes/${classId}/lessons`;
export const termPlanPath = (classId: string) => `/classes/${classId}/term-plan`;

/** The lessons of a class: those of no day first, then the latest. */
export const useLessons = (classId: string | undefined) =>
  useGet<SavedLesson[]>(classId ? lessonsPath(classId) : null, fitsLessons);

/** What a class does in its term; null where nothing is planned. */
export const useTermPlan = (classId: string | undefined) =>
  useGet<TermPlanEdit | null>(classId ? termPlanPath(classId) : null, fitsTermPlan);

/** What a class was heard in, week by week. @param from  a day of the calendar; undefined asks for nothing */
export const useHeardWeeks = (classId: string, from: string | undefined) =>
  useGet<HeardWeeks>(from ? `/classes/${classId}/heard-weeks?from=${from}` : null, fitsHeardWeeks);
