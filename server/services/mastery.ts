import type { ChildMastery } from '../../contract/mastery.ts';
import { type HeardTake, masteryOf } from '../../core/judging/mastery.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { resultsOf } from '../repository/takes.ts';
import type { Resources } from '../resources.ts';
import { childOf } from './children.ts';
import { upToDate } from './judging.ts';

/** What a child knows, element by element, from all its takes. */
export async function masteryOfChild(
  resources: Resources,
  teacherId: string,
  classId: string,
  childId: string,
): Promise<ChildMastery> {
  const { db } = resources;
  await childOf(db, teacherId, classId, childId);
  const heard: HeardTake[] = [];
  for (const take of await resultsOf(db, childId)) {
    const parsed = parseRhythm(take.patternText);
    if (!parsed.ok) continue;
    const { result } = await upToDate(resources, teacherId, take);
    heard.push({ pattern: parsed.pattern, result, takenAt: take.takenAt });
  }
  return masteryOf(heard);
}
