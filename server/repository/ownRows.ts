import { and, eq } from 'drizzle-orm';
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { Database } from '../database.ts';

/** A table whose rows each belong to one teacher. */
type Owned = MySqlTable & { readonly id: AnyMySqlColumn; readonly teacherId: AnyMySqlColumn };

/** What is asked of such a table in the same way, whatever else is in it. */
export function ownRows(table: Owned) {
  const ofTeacher = (teacherId: string, id: string) => and(eq(table.id, id), eq(table.teacherId, teacherId));
  const found = async (db: Database, where: ReturnType<typeof eq> | undefined) =>
    (await db.select({ id: table.id }).from(table).where(where).limit(1)).length > 0;
  return {
    ofTeacher,
    has: (db: Database, teacherId: string, id: string) => found(db, ofTeacher(teacherId, id)),
    isTaken: (db: Database, id: string) => found(db, eq(table.id, id)),
    remove: async (db: Database, teacherId: string, id: string): Promise<void> => {
      await db.delete(table).where(ofTeacher(teacherId, id));
    },
  };
}
