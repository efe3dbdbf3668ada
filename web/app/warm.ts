import type { ClassSummary } from '../../contract/schoolClass.ts';
import { get } from '../api/client.ts';

/** Of a class, what its views begin with. */
const OF_A_CLASS = ['', '/records', '/line-ups', '/lessons', '/term-plan', '/practice'] as const;

/** What is kept is checked when it is shown. */
const unchecked = () => true;

/**
 * Asks for what a teacher works with, one after the other, so that it is on this device when there is no network: also
 * of classes that were not opened today.
 */
export async function warmUp(): Promise<void> {
  for (const path of ['/patterns', '/plans', '/sheets']) await get(path, unchecked);
  for (const { id } of await get<ClassSummary[]>('/classes', unchecked))
    for (const part of OF_A_CLASS) await get(`/classes/${id}${part}`, unchecked);
}
