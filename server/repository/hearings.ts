import { desc, eq } from 'drizzle-orm';
import type { Hearing } from '../../contract/together.ts';
import type { Database } from '../database.ts';
import { hearings } from '../schema.ts';
import { classWriter } from './classRows.ts';

/** How a class clapped together, newest first. */
export async function listHearings(db: Database, classId: string, most: number): Promise<Hearing[]> {
  return db
    .select({
      id: hearings.id,
      takenAt: hearings.takenAt,
      title: hearings.title,
      patternText: hearings.patternText,
      bpm: hearings.bpm,
      from: hearings.from,
      heard: hearings.heard,
    })
    .from(hearings)
    .where(eq(hearings.classId, classId))
    .orderBy(desc(hearings.takenAt), desc(hearings.id))
    .limit(most);
}

export async function findHearing(db: Database, id: string) {
  const [row] = await db
    .select({ classId: hearings.classId, title: hearings.title })
    .from(hearings)
    .where(eq(hearings.id, id))
    .limit(1);
  return row;
}

export const writeHearing = classWriter(hearings, 'hearing');
