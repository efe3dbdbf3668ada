import { createConnection } from 'mysql2/promise';
import { expect } from 'vitest';
import { ClassRecords, TakesPage } from '../contract/records.ts';
import { validator } from '../contract/validate.ts';
import {
  LARGE_PASSWORD,
  type LargeSize,
  childId,
  classId,
  makeLargeSchool,
  schoolId,
  teacherName,
} from '../scripts/bench/largeSchool.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';
import { Visitor, freshDatabase, serverOn } from './testServer.test-helper.ts';

const SMALL: LargeSize = { schools: 2, teachers: 2, children: 3, takes: 60, takesOfFirst: 7 };
const UNTIL = 1_790_000_000_000;

async function rowsOf(url: string): Promise<string> {
  const connection = await createConnection(url);
  const all = [];
  for (const question of [
    'select id, child_id, class_id, pattern_key, taken_at, mark, elements from takes order by id',
    'select * from child_elements order by child_id, element',
    'select * from child_patterns order by child_id, pattern_key',
  ])
    all.push((await connection.query(question))[0]);
  await connection.end();
  return JSON.stringify(all);
}

trial('a large school is the same each time, and what is in it is read like any other', async () => {
  const [one, other] = [await freshDatabase(), await freshDatabase()];
  expect(await makeLargeSchool(one, SMALL, UNTIL)).toBe(3 * 67);
  await makeLargeSchool(other, SMALL, UNTIL);
  expect(await rowsOf(one)).toBe(await rowsOf(other));
  const server = await serverOn(one);
  const visitor = new Visitor(server.url);
  const name = teacherName(1);
  await visitor.ask('POST', '/api/session', { name, password: LARGE_PASSWORD, school: schoolId(1) });
  const path = `/api/classes/${classId(1)}`;
  const { body } = await visitor.ask('GET', `${path}/records`);
  expect(validator(ClassRecords)(body)).toMatchObject({ ok: true });
  expect((body as ClassRecords).marks.reduce((sum, { takes }) => sum + takes, 0)).toBe(180);
  const page = (await visitor.ask('GET', `${path}/children/${childId(SMALL, 1, 2)}/takes`)).body;
  expect(validator(TakesPage)(page)).toMatchObject({ ok: true });
  const times = (page as TakesPage).takes.map(({ takenAt }) => takenAt);
  expect(times).toEqual([...times].sort((a, b) => b - a));
  expect(times[0]).toBeLessThan(UNTIL);
  expect((page as TakesPage).next).not.toBeNull();
  await server.stop();
});
