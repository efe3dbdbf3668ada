import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ChildErased, ChildFile } from '../contract/childData.ts';
import type { ClassRecords } from '../contract/records.ts';
import { validator } from '../contract/validate.ts';
import { bodiesWith } from './everyRoute.test-helper.ts';
import { openDatabase } from './database.ts';
import { withoutChild } from './repository/childData.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;

beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 1 });
  ann = new Visitor(server.url);
  await ann.signIn('Ann');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

/** A class of two with everything in it that can be of a child. */
async function fullClass() {
  const [classId, ada, bo, patternId] = [uuid(), uuid(), uuid(), uuid()];
  const path = `/api/classes/${classId}`;
  const put = async (to: string, body: unknown) => {
    const { status, body: answer } = await ann.ask('PUT', to, body);
    if (status >= 300) throw new Error(`${to}: ${JSON.stringify(answer)}`);
  };
  await put(path, { name: 'Terns', ages: '9-10', school: 'ta', rests: null, recordingDays: 30 });
  await put(`/api/patterns/${patternId}`, { title: 'Steps', text: '4/4 q q h' });
  await put(`${path}/children/${ada}`, { name: 'Ada', reportLine: 'Well done.' });
  await put(`${path}/children/${bo}`, { name: 'Bo' });
  const takeOf = async (childId: string) => {
    const takeId = uuid();
    const { TAKE } = bodiesWith({ classId, childId, takeId, patternId });
    await put(`/api/takes/${takeId}`, { ...TAKE, takenAt: Date.now() });
    await ann.send('PUT', `/api/takes/${takeId}/recording`, Buffer.from('RIFF'), { 'content-type': 'audio/wav' });
    return takeId;
  };
  const [first] = [await takeOf(ada), await takeOf(ada)];
  // Two who clapped at the same time know each other.
  const pair = await takeOf(bo);
  await open.pool.query('update takes set beside_id = ? where id = ?', [first, pair]);
  const points = { [ada]: 3, [bo]: 2 };
  await put(`${path}/paper/${uuid()}`, { title: 'Quiz', outOf: 5, takenAt: 1, points });
  await put(`${path}/terms/${uuid()}`, { title: 'Autumn' });
  const thrown = await takeOf(ada);
  await ann.ask('DELETE', `/api/takes/${thrown}`);
  const column = uuid();
  await put(`${path}/paper/${column}`, { title: 'Test', outOf: 5, takenAt: 2, points });
  await ann.ask('DELETE', `${path}/paper/${column}`);
  const { WEEK, LINE } = bodiesWith({ classId, childId: ada, takeId: uuid(), patternId });
  await put(`${path}/line-ups/${uuid()}`, LINE);
  for (const children of [[ada], [ada, bo]])
    await put(`${path}/practice/${uuid()}`, { ...WEEK, plan: { ...WEEK.plan, children } });
  const thrownWeeks = [uuid(), uuid()] as const;
  for (const [i, children] of [[ada, bo], [ada]].entries()) {
    await put(`${path}/practice/${thrownWeeks[i]}`, { ...WEEK, plan: { ...WEEK.plan, children } });
    await ann.ask('DELETE', `${path}/practice/${thrownWeeks[i]}`);
  }
  return { classId, path, ada, bo, thrown, first, thrownWeeks };
}

/** Every row of every table as text. */
async function everyRow(): Promise<string> {
  const [tables] = (await open.pool.query('show tables')) as unknown as [Record<string, string>[]];
  const all = await Promise.all(tables.map((row) => open.pool.query(`select * from \`${Object.values(row)[0]}\``)));
  return JSON.stringify(all.map(([rows]) => rows));
}

describe('everything of a child', () => {
  it('is in one file: from every table, with the sound, and nothing of another child', async () => {
    const { path, ada, bo, thrown } = await fullClass();
    const { body } = await ann.ask('GET', `${path}/children/${ada}/everything`);
    const checked = validator(ChildFile)(body);
    if (!checked.ok) throw new Error(checked.message);
    const { tables, name } = checked.value;
    expect(name).toBe('Ada');
    expect(Object.keys(tables).toSorted().join(' ')).toBe(
      'binned_rows child_elements children line_up_turns paper_marks recording_chunks recordings takes terms',
    );
    expect(tables['takes']).toHaveLength(2);
    expect(tables['terms']).toMatchObject([{ title: 'Autumn', name: 'Ada', paper: [{ title: 'Quiz', points: 3 }] }]);
    expect(tables['recording_chunks']![0]).toMatchObject({ sound: Buffer.from('RIFF').toString('base64') });
    expect(JSON.stringify(tables['binned_rows'])).toContain(thrown);
    expect(JSON.stringify(body)).not.toContain(bo);
  });

  it('is deleted wherever it stands, which every table is asked for; others keep theirs', async () => {
    const { path, ada, bo, first, thrownWeeks } = await fullClass();
    const { body, status } = await ann.ask('DELETE', `${path}/children/${ada}/everything`);
    expect(status).toBe(200);
    const checked = validator(ChildErased)(body);
    if (!checked.ok) throw new Error(checked.message);
    const { tables } = checked.value;
    const [all] = (await open.pool.query('show tables')) as unknown as [object[]];
    // Those of bytes alone have no text to look through.
    expect(tables.length).toBeGreaterThanOrEqual(all.length - 1);
    expect(tables.filter(({ after }) => after > 0)).toEqual([]);
    const had = tables.filter(({ before }) => before > 0).map(({ table }) => table);
    expect(had).toEqual(expect.arrayContaining(['takes', 'terms', 'binned_rows', 'practice_weeks', 'paper_marks']));
    expect(had).toEqual(expect.arrayContaining(['recordings', 'recording_chunks', 'line_up_turns', 'children']));
    const left = await everyRow();
    expect(left).not.toContain(ada);
    expect(left).not.toContain(first);
    const term = ((await ann.ask('GET', `${path}/terms`)).body as { id: string }[])[0]!;
    expect((await ann.ask('GET', `${path}/terms/${term.id}`)).body).toMatchObject({
      names: ['Bo'],
      records: { children: [bo], paper: [{ points: [{ child: 0, points: 2 }] }] },
    });
    const weeks = (await ann.ask('GET', `${path}/practice`)).body as { plan: { children: string[] } }[];
    expect(weeks.map(({ plan }) => plan.children)).toEqual([[bo]]);
    // A week in the bin comes back for the others; one that was for this child alone is gone.
    const out = await Promise.all(thrownWeeks.map((id) => ann.ask('POST', `/api/bin/practice/${id}/out`, {})));
    expect(out.map((answer) => answer.status)).toEqual([204, 404]);
    expect((await ann.ask('DELETE', `${path}/children/${ada}/everything`)).status).toBe(404);
  });

  it('goes the same way when its time in the bin is over', async () => {
    const { path, ada } = await fullClass();
    await ann.ask('DELETE', `${path}/children/${ada}`);
    expect((await ann.ask('DELETE', `/api/bin/child/${ada}`)).status).toBe(204);
    expect(await everyRow()).not.toContain(ada);
  });

  it('a term it stands in after it went on into another class loses it too', async () => {
    const { path, ada } = await fullClass();
    const to = uuid();
    await ann.ask('PUT', `/api/classes/${to}`, { name: 'Gulls', ages: '9-10', school: 'ta', rests: null });
    await ann.ask('POST', `${path}/moves`, { to, children: [ada] });
    const { body } = await ann.ask('DELETE', `/api/classes/${to}/children/${ada}/everything`);
    expect((body as ChildErased).tables.filter(({ after }) => after > 0)).toEqual([]);
    expect(await everyRow()).not.toContain(ada);
  });
});

describe('a grid without one child', () => {
  const RECORDS: ClassRecords = {
    children: ['a', 'b', 'c'],
    patterns: [],
    marks: [0, 1, 2].map((child) => ({ child, pattern: 0, takes: child, best: 1, last: 1, average: 1 })),
    elements: [],
    paper: [
      { id: 'p', title: 'Q', outOf: 5, takenAt: 1, points: [0, 1, 2].map((child) => ({ child, points: child })) },
    ],
  };
  it.each([
    ['a', ['B', 'C'], [1, 2]],
    ['b', ['A', 'C'], [0, 2]],
    ['c', ['A', 'B'], [0, 1]],
    ['d', ['A', 'B', 'C'], [0, 1, 2]],
  ])('%s: the others move up with what is theirs', (id, names, points) => {
    const left = withoutChild(['A', 'B', 'C'], RECORDS, id);
    expect(left.names).toEqual(names);
    expect(left.records.children).toEqual(names.map((name) => name.toLowerCase()));
    expect(left.records.marks.map(({ child, takes }) => [child, takes])).toEqual(points.map((one, i) => [i, one]));
    expect(left.records.paper[0]!.points).toEqual(points.map((one, child) => ({ child, points: one })));
  });
});
