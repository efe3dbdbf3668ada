import fitsTake from 'virtual:fits/take';
import fitsTakesPage from 'virtual:fits/takes-page';
import type { TakesPage } from '../../contract/records.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { get } from './client.ts';
import { useGet } from './useGet.ts';

export const useTake = (id: string | undefined) => useGet<TakeDetail>(id ? `/takes/${id}` : null, fitsTake);

/** Where some of a child's takes stand, newest first. @param after  where the page before ended */
function takesPath(classId: string, childId: string, pattern?: string, after?: string): string {
  const search = new URLSearchParams({ ...(pattern ? { pattern } : {}), ...(after ? { after } : {}) });
  return `/classes/${classId}/children/${childId}/takes?${search.toString()}`;
}
export const useTakesPage = (classId: string, childId: string | undefined, pattern?: string, after?: string) =>
  useGet<TakesPage>(childId ? takesPath(classId, childId, pattern, after) : null, fitsTakesPage);

/** A child's newest take of a pattern; undefined when there is none. */
export async function newestTake(classId: string, childId: string, pattern: string): Promise<string | undefined> {
  return (await get<TakesPage>(takesPath(classId, childId, pattern), fitsTakesPage)).takes[0]?.id;
}
