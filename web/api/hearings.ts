import fitsTogether from 'virtual:fits/together';
import type { Hearing } from '../../contract/together.ts';
import { useGet } from './useGet.ts';

/** How a class clapped together, newest first. @param classId  undefined where there is none */
export const useHearings = (classId: string | undefined) =>
  useGet<Hearing[]>(classId === undefined ? null : `/classes/${classId}/together`, fitsTogether);
