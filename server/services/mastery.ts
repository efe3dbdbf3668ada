import type { ChildMastery } from '../../contract/take.ts';
import { masteryOf } from '../../core/judging/mastery.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { findChild } from '../repository/children.ts';
import { resultsOf } from '../repository/takes.ts';

/** What a child knows, element by element, from all its takes. */
export async function masteryOfChild(
  db: Database,
  teacherId: string,
  classId: string,
  childId: string,
): Promise<ChildMastery> {
  const child = await findChild(db, teacherId, childId);
  if (!child || child.classId !== classId) throw notFound('child');
  const takes = await resultsOf(db, childId);
  return masteryOf(
    takes.flatMap(({ patternText, result, takenAt }) => {
      const parsed = parseRhythm(patternText);
      return parsed.ok ? [{ pattern: parsed.pattern, result, takenAt }] : [];
    }),
  );
}
