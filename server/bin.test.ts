import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Bin, type Binned } from '../contract/bin.ts';
import type { LineUp } from '../contract/lineUp.ts';
import type { ClassRecords } from '../contract/records.ts';
import { validator } from '../contract/validate.ts';
import { openDatabase } from './database.ts';
import { type Ids, askFor } from './everyRoute.test-helper.ts';
import { removeExpired } from './repository/recordings.ts';
import { FIRST_SCHOOL } from '../contract/school.ts';
import { emptyBin } from './services/bin.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers, takesIn } from './testServer.test-helper.ts';

let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
let ben: Visitor;
beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 2 });
  [ann, ben] = [new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

/** A class of Ann's with one of each, heard by Ben too. */
async function room() {
  const names = [
    'classId',
    'childId',
    'takeId',
    'patternId',
    'columnId',
    'lineUpId',
    'weekId',
    'lessonId',
    'tallyId',
    'hearingId',
  ];
  const ids = Object.fromEntries(names.map((name) => [name, uuid()])) as unknown as Ids;
  for (const thing of ['', '/children/:childId', '/paper/:columnId', '/line-ups/:lineUpId', '/practice/:weekId'])
    await make(`PUT /api/classes/:classId${thing}`, ids);
  for (const route of ['/lessons/:lessonId', '/ear/:tallyId', '/together/:hearingId'])
    await make(`PUT /api/classes/:classId${route}`, ids);
  await make('PUT /api/takes/:takeId', ids);
  await ann.ask('PUT', `/api/classes/${ids.classId}/shares`, { name: 'Ben', role: 'hear' });
  return { ids, path: `/api/classes/${ids.classId}` };
}
async function make(route: string, ids: Ids) {
  const { method, path, body } = askFor(route, ids);
  const { was: _was, ...sent } = body as { was?: unknown };
  const { status, body: answer } = await ann.ask(method, path, sent);
  if (status >= 300) throw new Error(`${route}: ${JSON.stringify(answer)}`);
}
const binOf = async (who: Visitor) => {
  const { body } = await who.ask('GET', '/api/bin');
  expect(validator(Bin)(body)).toMatchObject({ ok: true });
  return body as Binned[];
};

it.each([
  ['take', 'DELETE /api/takes/:takeId', 'takeId', 'Ada: First'],
  ['column', 'DELETE /api/classes/:classId/paper/:columnId', 'columnId', 'Quiz'],
  ['line-up', 'DELETE /api/classes/:classId/line-ups/:lineUpId', 'lineUpId', 'First'],
  ['lesson', 'DELETE /api/classes/:classId/lessons/:lessonId', 'lessonId', 'Monday'],
  ['practice', 'DELETE /api/classes/:classId/practice/:weekId', 'weekId', 'Week'],
  ['tally', 'DELETE /api/classes/:classId/ear/:tallyId', 'tallyId', 'choose'],
  ['hearing', 'DELETE /api/classes/:classId/together/:hearingId', 'hearingId', 'Tide'],
])(
  'a %s that a colleague removes lies in the bin of whose class it is, and comes back as it was',
  async (kind, route, id, name) => {
    const { ids, path } = await room();
    const all = async () =>
      Promise.all(
        ['/records', '/line-ups', '/lessons', '/practice', '/ear', '/together', `/children/${ids.childId}/takes`].map(
          async (part) => (await ann.ask('GET', path + part)).body,
        ),
      );
    const before = await all();
    const { method, path: at } = askFor(route, ids);
    expect((await ben.ask(method, at)).status).toBe(204);
    expect(await all()).not.toEqual(before);
    expect((await ben.ask(method, at)).status).toBe(404);
    const mine = (await binOf(ann)).filter((one) => one.id === ids[id]);
    expect(mine).toMatchObject([{ kind, name, className: 'Gulls' }]);
    // It is hers to put back.
    expect((await binOf(ben)).filter((one) => one.id === ids[id])).toEqual([]);
    expect((await ben.ask('POST', `/api/bin/${kind}/${ids[id]}/out`, {})).status).toBe(404);
    expect((await ben.ask('DELETE', `/api/bin/${kind}/${ids[id]}`)).status).toBe(404);
    expect((await ann.ask('POST', `/api/bin/${kind}/${ids[id]}/out`, {})).status).toBe(204);
    expect(await all()).toEqual(before);
    expect((await binOf(ann)).filter((one) => one.id === ids[id])).toEqual([]);
    expect((await ann.ask('POST', `/api/bin/${kind}/${ids[id]}/out`, {})).status).toBe(404);
  },
);

it('a take comes back with its sound and its own mark, into the class where its child is now', async () => {
  const { ids } = await room();
  const to = uuid();
  await make('PUT /api/classes/:classId', { ...ids, classId: to });
  await ann.send('PUT', `/api/takes/${ids.takeId}/recording`, Buffer.from('RIFF and so on'), {
    'content-type': 'audio/wav',
  });
  await ann.ask('PUT', `/api/takes/${ids.takeId}/override`, { mark: 1, reason: 'tired' });
  await ben.ask('DELETE', `/api/takes/${ids.takeId}`);
  await ann.ask('POST', `/api/classes/${ids.classId}/moves`, { to, children: [ids.childId] });
  // What no recording needs is cleared away: not what lies in the bin.
  await removeExpired(open.db, Date.now() + 2 * 3_600_000);
  expect((await ann.ask('POST', `/api/bin/take/${ids.takeId}/out`, {})).status).toBe(204);
  expect(await takesIn(ann, to)).toMatchObject([{ id: ids.takeId, override: 1 }]);
  const sound = await fetch(`${server.url}/api/takes/${ids.takeId}/recording`, { headers: ann.headers });
  expect(await sound.text()).toBe('RIFF and so on');
});

it('what was sent again meanwhile stays, and marks come back without a child that is gone for good', async () => {
  const { ids, path } = await room();
  await ben.ask('DELETE', `/api/takes/${ids.takeId}`);
  await make('PUT /api/takes/:takeId', ids);
  expect((await ann.ask('POST', `/api/bin/take/${ids.takeId}/out`, {})).status).toBe(204);
  expect(await takesIn(ann, ids.classId)).toMatchObject([{ id: ids.takeId }]);
  const gone = uuid();
  await ann.ask('PUT', `${path}/children/${gone}`, { name: 'Bo' });
  const head = { title: 'Quiz', outOf: 5, scale: '6-1', takenAt: 1 };
  await ann.ask('PUT', `${path}/paper/${ids['columnId']}`, { ...head, points: { [ids.childId]: 3, [gone]: 2 } });
  await ben.ask('DELETE', `${path}/paper/${ids['columnId']}`);
  await ann.ask('DELETE', `${path}/children/${gone}`);
  await ann.ask('DELETE', `/api/bin/child/${gone}`);
  expect((await ann.ask('POST', `/api/bin/column/${ids['columnId']}/out`, {})).status).toBe(204);
  const { paper } = (await ann.ask('GET', `${path}/records`)).body as ClassRecords;
  expect(paper).toMatchObject([{ title: 'Quiz', points: [{ child: 0, points: 3 }] }]);
});

it('a sound is kept no longer for lying in the bin', async () => {
  const { ids } = await room();
  await ann.send('PUT', `/api/takes/${ids.takeId}/recording`, Buffer.from('RIFF'), { 'content-type': 'audio/wav' });
  await ben.ask('DELETE', `/api/takes/${ids.takeId}`);
  const pieces = async () =>
    (await open.pool.query('select 1 from recording_chunks where take_id = ?', [ids.takeId]))[0] as unknown[];
  expect(await pieces()).toHaveLength(1);
  await removeExpired(open.db, Date.now() + 5 * 86_400_000);
  expect(await pieces()).toEqual([]);
});

it('is gone for good when whose it is says so, or after its time, or with its child', async () => {
  const { ids, path } = await room();
  await ben.ask('DELETE', `${path}/paper/${ids['columnId']}`);
  await ben.ask('DELETE', `/api/takes/${ids.takeId}`);
  await ben.ask('DELETE', `${path}/lessons/${ids['lessonId']}`);
  const kinds = async () =>
    (await binOf(ann)).flatMap(({ kind, id }) => (Object.values(ids).includes(id) ? [kind] : [])).sort();
  expect(await kinds()).toEqual(['column', 'lesson', 'take']);
  expect((await ann.ask('DELETE', `/api/bin/lesson/${ids['lessonId']}`)).status).toBe(204);
  await ann.ask('DELETE', `${path}/children/${ids.childId}`);
  await ann.ask('DELETE', `/api/bin/child/${ids.childId}`);
  expect(await kinds()).toEqual(['column']);
  expect(await emptyBin(open.db, FIRST_SCHOOL, Date.now() - 86_400_000)).toEqual({ rows: 0, child: 0, class: 0 });
  expect((await emptyBin(open.db, FIRST_SCHOOL, Date.now() + 1000)).rows).toBeGreaterThan(0);
  expect(await kinds()).toEqual([]);
});

it('a line-up goes without its takes, and their marks stay', async () => {
  const { ids, path } = await room();
  await ben.ask('DELETE', `${path}/line-ups/${ids['lineUpId']}`);
  const { marks } = (await ann.ask('GET', `${path}/records`)).body as ClassRecords;
  expect(marks).toHaveLength(1);
  expect((await ann.ask('GET', `${path}/line-ups`)).body as LineUp[]).toEqual([]);
});
