import fitsMisread from 'virtual:fits/misread';
import type { ClassMisread } from '../../contract/records.ts';
import { useGet } from './useGet.ts';

/** What children of a class misread lately. */
export const useMisread = (classId: string | undefined) =>
  useGet<ClassMisread>(classId ? `/classes/${classId}/misread` : null, fitsMisread);
