import { and, eq } from 'drizzle-orm';
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { Database } from '../database.ts';
import { notFound } from '../problem.ts';
import { touchClass } from './classes.ts';

/** A table whose rows each belong to one class. */
type OfClass = MySqlTable & { readonly id: AnyMySqlColumn; readonly classId: AnyMySqlColumn };

/**
 * Makes or changes rows of such a table: each statement names the class, so that an id of another class is an id of
 * nothing, whoever has asked or forgotten to ask whose it is. What it gives throws a Problem there.
 * @param what  one row is called, where it is not there
 */
export function classWriter<Table extends OfClass>(table: Table, what: string) {
  return async (db: Database, classId: string, id: string, values: Partial<Table['$inferInsert']>): Promise<void> => {
    const isOf = and(eq(table.id, id), eq(table.classId, classId));
    const [{ affectedRows }] = await db.update(table).set(values).where(isOf);
    if (affectedRows === 0) {
      if ((await db.select({ id: table.id }).from(table).where(eq(table.id, id)).limit(1)).length > 0)
        throw notFound(what);
      await db.insert(table).values({ ...values, id, classId } as Table['$inferInsert']);
    }
    await touchClass(db, classId);
  };
}
