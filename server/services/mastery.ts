import type { ChildMastery } from '../../contract/mastery.ts';
import { type HeardTake, masteryOf } from '../../core/judging/mastery.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import type { Database } from '../database.ts';
import { resultsOf } from '../repository/takes.ts';
import { childOf } from './children.ts';
import { upToDate } from './judging.ts';

/** What a child knows, element by element, from all its takes. */
export async function masteryOfChild(
  db: Database,
  teacherId: string,
  classId: string,
  childId: string,
): Promise<ChildMastery> {
  await childOf(db, teacherId, classId, childId);
  const heard: HeardTake[] = [];
  for (const take of await resultsOf(db, childId)) {
    const parsed = parseRhythm(take.patternText);
    if (!parsed.ok) continue;
    const { result } = await upToDate(db, take);
    heard.push({ pattern: parsed.pattern, result, takenAt: take.takenAt });
  }
  return masteryOf(heard);
}
