import { addDays, format } from 'date-fns';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FromHome, HomeWeek } from '../contract/home.ts';
import { openDatabase } from './database.ts';
import { homeLinks } from './schema.ts';
import { forgetLinks } from './services/home.ts';
import type { RunningServer } from './start.ts';
import { CLASS } from './room.test-helper.ts';
import { Visitor, freshDatabase, serverWithTeachers, takesIn } from './testServer.test-helper.ts';

let server: RunningServer;
let ann: Visitor;
let ben: Visitor;
let open: ReturnType<typeof openDatabase>;
beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 1 });
  [ann, ben] = [new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

const dayFromNow = (days: number) => format(addDays(new Date(), days), 'yyyy-MM-dd');
const RIGHT = [0, 1, 2];

/** A week that began some days ago, for two children. */
async function week(began = 2) {
  const [classId, weekId, ada, bo] = [uuid(), uuid(), uuid(), uuid()];
  const path = `/api/classes/${classId}`;
  await ann.ask('PUT', path, CLASS);
  await ann.ask('PUT', `${path}/children/${ada}`, { name: 'Ada', adaptations: { slower: 0.5 } });
  await ann.ask('PUT', `${path}/children/${bo}`, { name: 'Bo' });
  const item = { patternId: uuid(), title: 'Steps', text: '4/4 q q h', bpm: 60, times: 2, days: [0, 1] };
  await ann.ask('PUT', `${path}/practice/${weekId}`, {
    starts: dayFromNow(-began),
    plan: { title: 'Half notes', items: [item], children: null },
  });
  const home = `${path}/practice/${weekId}/home`;
  const made = await ann.ask('PUT', `${home}/links`, { children: [ada, bo] });
  const read = async () => (await ann.ask('GET', home)).body as FromHome;
  const tokenOf = async (child: string) => (await read()).links.find(({ childId }) => childId === child)?.token ?? '';
  return { classId, ada, bo, home, made, read, tokenOf };
}

/** A device at home: no cookie, only the secret of its slip. */
function device(token: string) {
  const nobody = new Visitor(server.url);
  const headers = { 'clapboard-home': token };
  return {
    week: () => nobody.ask('GET', '/api/home/week', undefined, headers),
    clap: (onsets: readonly number[], id = uuid(), item = 0) =>
      nobody.ask('PUT', `/api/home/takes/${id}`, { item, onsets, source: 'tap' }, headers),
    done: (day: number, item = 0) => nobody.ask('POST', '/api/home/done', { item, day }, headers),
  };
}

describe('a practice week at home', () => {
  it('is opened by a secret of 128 bits, and shows no name and no mark', async () => {
    const { ada, tokenOf, made } = await week();
    expect(made.status).toBe(204);
    const token = await tokenOf(ada);
    expect(Buffer.from(token, 'base64url')).toHaveLength(16);
    const { status, body } = await device(token).week();
    expect(status).toBe(200);
    // At the child's own tempo.
    expect((body as HomeWeek).items).toEqual([{ title: 'Steps', text: '4/4 q q h', bpm: 30, times: 2, days: [0, 1] }]);
    expect(JSON.stringify(body)).not.toMatch(/Ada|Bo|mark"/);
    for (const wrong of ['', 'x'.repeat(22), 'x'.repeat(500)]) expect((await device(wrong).week()).status).toBe(410);
  });

  it('keeps the best three takes until the teacher takes them in, with how often and when', async () => {
    const { classId, ada, bo, tokenOf, home, read } = await week();
    const adas = device(await tokenOf(ada));
    const slowly = RIGHT.map((time) => time * 2);
    const best = uuid();
    for (const [onsets, id] of [
      [[0], uuid()],
      [slowly, best],
      [[0, 2], uuid()],
      [[0, 2, 4, 6], uuid()],
    ] as const)
      expect((await adas.clap(onsets, id)).status).toBe(204);
    await adas.clap(slowly, best);
    expect((await adas.clap(slowly, uuid(), 3)).status).toBe(404);
    await adas.done(1);
    await adas.done(1);
    await device(await tokenOf(bo)).done(0);
    const { takes, done } = await read();
    expect(takes).toHaveLength(3);
    expect(takes[0]).toMatchObject({ id: best, childId: ada, item: 0, accuracy: 1 });
    expect(done.sort((a, b) => a.times - b.times)).toEqual([
      { childId: bo, item: 0, day: 0, times: 1 },
      { childId: ada, item: 0, day: 1, times: 2 },
    ]);
    // Another child's days are not told.
    expect(((await adas.week()).body as HomeWeek).done).toEqual([{ item: 0, day: 1, times: 2 }]);
    expect(await takesIn(ann, classId)).toEqual([]);
    expect((await ann.ask('POST', `${home}/taken`, { ids: [best] })).status).toBe(204);
    expect(await takesIn(ann, classId)).toMatchObject([{ id: best, childId: ada, title: 'Steps', bpm: 30, mark: 4 }]);
    const others = (await read()).takes.map(({ id }) => id);
    expect(others).toHaveLength(2);
    await ann.ask('POST', `${home}/left-out`, { ids: others });
    expect((await read()).takes).toEqual([]);
    expect(await takesIn(ann, classId)).toHaveLength(1);
  });

  it('ends with its week, and when it is called back or made anew', async () => {
    const { ada, bo, tokenOf, home } = await week();
    const [first, bos] = [await tokenOf(ada), await tokenOf(bo)];
    await ann.ask('PUT', `${home}/links`, { children: [ada] });
    expect((await device(first).week()).status).toBe(410);
    expect((await device(await tokenOf(ada)).week()).status).toBe(200);
    expect((await ann.ask('DELETE', `${home}/links/${bo}`)).status).toBe(204);
    expect((await ann.ask('DELETE', `${home}/links/${bo}`)).status).toBe(404);
    for (const answer of [await device(bos).week(), await device(bos).clap(RIGHT), await device(bos).done(0)])
      expect(answer.status).toBe(410);
    const over = await week(8);
    expect(over.made.status).toBe(409);
    await open.db.update(homeLinks).set({ untilAt: 5 });
    expect((await device(await tokenOf(ada)).week()).status).toBe(410);
    await forgetLinks(open.db);
    expect(await open.db.select().from(homeLinks)).toEqual([]);
  });

  it('is nobody else’s: neither a teacher’s nor another class’s', async () => {
    const { ada, home } = await week();
    const other = await week();
    expect((await ben.ask('GET', home)).status).toBe(404);
    expect((await ben.ask('PUT', `${home}/links`, { children: [ada] })).status).toBe(404);
    expect((await ann.ask('PUT', `${home}/links`, { children: [other.ada] })).status).toBe(404);
    const taken = await device(await other.tokenOf(other.ada)).clap(RIGHT);
    expect(taken.status).toBe(204);
    const id = (await other.read()).takes[0]!.id;
    await ann.ask('POST', `${home}/taken`, { ids: [id] });
    expect((await other.read()).takes).toHaveLength(1);
  });
});
