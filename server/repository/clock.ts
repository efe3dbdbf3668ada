import { sql } from 'drizzle-orm';
import type { Database } from '../database.ts';

/** What the database's clock shows, in milliseconds since 1970 with their parts. */
export async function clockOf(db: Database): Promise<number> {
  const [rows] = (await db.execute(sql`select unix_timestamp(now(6)) * 1000 as now`)) as unknown as [{ now: string }[]];
  return Number(rows[0]!.now);
}
