import { desc, eq } from 'drizzle-orm';
import type { EarTally } from '../../contract/ear.ts';
import type { Database } from '../database.ts';
import { earTallies } from '../schema.ts';
import { classWriter } from './classRows.ts';

/** How a class did in the views of the ear, newest first. */
export async function listEarTallies(db: Database, classId: string, most: number): Promise<EarTally[]> {
  return db
    .select({
      id: earTallies.id,
      kind: earTallies.kind,
      takenAt: earTallies.takenAt,
      right: earTallies.right,
      asked: earTallies.asked,
      mistakes: earTallies.mistakes,
    })
    .from(earTallies)
    .where(eq(earTallies.classId, classId))
    .orderBy(desc(earTallies.takenAt), desc(earTallies.id))
    .limit(most);
}

export async function findEarTally(db: Database, id: string) {
  const [row] = await db
    .select({ classId: earTallies.classId, kind: earTallies.kind })
    .from(earTallies)
    .where(eq(earTallies.id, id))
    .limit(1);
  return row;
}

export const writeEarTally = classWriter(earTallies, 'tally');
