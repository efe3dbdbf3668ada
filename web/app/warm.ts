import type { ClassDetail, ClassSummary } from '../../contract/schoolClass.ts';
import { get } from '../api/client.ts';
import { keepAnswer, keptAnswer } from '../store/keptAnswers.ts';

/** Of a class, what its views begin with. */
const OF_A_CLASS = ['/records', '/line-ups', '/lessons', '/term-plan', '/practice', '/ear', '/misread'] as const;
/** Of a child, what its page shows. */
const OF_A_CHILD = ['/mastery', '/takes?'] as const;

/** Under this the device keeps when it asked for the children last: they are many. */
const ASKED_AHEAD = 'asked ahead';
const CHILDREN_AGAIN_MS = 30 * 60_000;

/** What is kept is checked when it is shown; what cannot be had now is asked for another time. */
const ask = <T>(path: string): Promise<T | undefined> => get<T>(path, () => true).catch(() => undefined);

/**
 * Asks for what a teacher works with, a little at a time, so that it is on this device when there is no network: also
 * of classes that were not opened today.
 */
export async function warmUp(teacherId: string): Promise<void> {
  for (const path of ['/session', '/patterns', '/plans', '/sheets', '/account/voice']) await ask(path);
  const children: string[] = [];
  for (const { id, role } of (await ask<ClassSummary[]>('/classes')) ?? []) {
    const detail = await ask<ClassDetail>(`/classes/${id}`);
    children.push(...(detail?.children ?? []).map((child) => `/classes/${id}/children/${child.id}`));
    if (role === 'hear') await ask(`/classes/${id}/patterns`);
    await Promise.all(OF_A_CLASS.map((part) => ask(`/classes/${id}${part}`)));
  }
  const last = await keptAnswer(teacherId, ASKED_AHEAD);
  if (typeof last === 'number' && Date.now() - last < CHILDREN_AGAIN_MS) return;
  for (const path of children) await Promise.all(OF_A_CHILD.map((part) => ask(path + part)));
  await keepAnswer(teacherId, ASKED_AHEAD, Date.now());
}
