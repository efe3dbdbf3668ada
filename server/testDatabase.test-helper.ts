import { createConnection } from 'mysql2/promise';
import { v4 as uuid } from 'uuid';
import { inject } from 'vitest';

/** A busy machine is no database that is away; what becomes of one that is has tests of its own. */
export const PATIENT = { statementMs: 60_000, connectionMs: 60_000 };

/** A fresh database on the tests' server. */
export async function freshDatabase(characters = 'utf8mb4'): Promise<string> {
  const url = new URL(inject('databaseUrl'));
  const name = `t_${uuid().replaceAll('-', '')}`;
  const connection = await createConnection(url.href);
  await connection.query(`create database ${name} character set ${characters}`);
  await connection.end();
  url.pathname = `/${name}`;
  return url.href;
}

/** A fresh database with the demo school in it: every table as it is there, and all that is in it. */
export async function demoDatabase(): Promise<string> {
  const url = await freshDatabase();
  const demo = inject('demoDatabase');
  const connection = await createConnection(url);
  await connection.query('set foreign_key_checks = 0');
  const [tables] = await connection.query(`show tables from ${demo}`);
  for (const table of (tables as Record<string, string>[]).map((row) => Object.values(row)[0]!)) {
    const [rows] = await connection.query(`show create table ${demo}.${table}`);
    await connection.query((rows as { 'Create Table': string }[])[0]!['Create Table']);
    await connection.query(`insert into ${table} select * from ${demo}.${table}`);
  }
  await connection.end();
  return url;
}
