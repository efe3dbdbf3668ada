import { eq, sql } from 'drizzle-orm';
import { v4 as uuid } from 'uuid';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import type { TakeDetail } from '../contract/take.ts';
import { RESULT_VERSION } from '../core/judging/takeResult.ts';
import { openDatabase } from './database.ts';
import { recordings, sessions, takes } from './schema.ts';
import { deleteInTime } from './services/expiry.ts';
import { judgesWith } from './judging/judges.ts';
import { renewResults } from './services/judging.ts';
import { findTeacherByName } from './repository/teachers.ts';
import { SESSION_MS, allowReset } from './services/session.ts';
import { type RunningServer, startServer } from './start.ts';
import { PASSWORD, Visitor, freshDatabase, serverWithTeachers, takesIn } from './testServer.test-helper.ts';

const DAY_MS = 24 * 3600 * 1000;

let databaseUrl: string;
let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
const ids = { room: uuid(), child: uuid(), take: uuid() };
const SLIP = [0, 1, 2, 4, 5.5, 6, 7, 8, 9, 10, 12, 13, 14, 15];

beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 2 });
  ann = new Visitor(server.url);
  await ann.signIn('Ann');
  const room = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null, recordingDays: 2 };
  await ann.ask('PUT', `/api/classes/${ids.room}`, room);
  await ann.ask('PUT', `/api/classes/${ids.room}/children/${ids.child}`, { name: 'Ada' });
  const played = { patternId: null, title: 'Twice', patternText: '4/4 |: q q h | q. e q q :|', bpm: 60, onsets: SLIP };
  const stored = await ann.ask('PUT', `/api/takes/${ids.take}`, { ...played, childId: ids.child, takenAt: 1 });
  expect(stored.status).toBe(200);
});
afterEach(() => void vi.useRealTimers());
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

/** Only what the clock says; timers and the network go on. */
const itIs = (time: number) => vi.useFakeTimers({ toFake: ['Date'], now: time });

describe('sessions', () => {
  it('run out after two weeks, not before', async () => {
    const visitor = new Visitor(server.url);
    const from = Date.now();
    await visitor.signIn('Ben');
    itIs(from + SESSION_MS - 60_000);
    expect((await visitor.ask('GET', '/api/classes')).status).toBe(200);
    itIs(from + SESSION_MS + 60_000);
    expect((await visitor.ask('GET', '/api/classes')).status).toBe(401);
    expect((await visitor.ask('GET', '/api/session')).body).toMatchObject({ teacher: null });
  });
  it('that have run out are swept away with the next one', async () => {
    const { db } = open;
    const count = async () => (await db.select({ n: sql<number>`count(*)` }).from(sessions))[0]!.n;
    itIs(Date.now() + 3 * SESSION_MS);
    await new Visitor(server.url).signIn('Ben');
    expect(Number(await count())).toBe(1);
    vi.useRealTimers();
    await ann.signIn('Ann');
  });
  it('go by a safe connection only, where there is one', async () => {
    const proxied = await startServer({
      databaseUrl,
      host: '127.0.0.1',
      port: 0,
      demoTeacher: undefined,
      pages: undefined,
      proxies: 1,
      logLevel: 'silent',
      metrics: { token: undefined, from: [] },
      warmUp: false,
    });
    const cookieBy = async (proto: string) => {
      const headers = { 'content-type': 'application/json', 'x-forwarded-proto': proto };
      const body = JSON.stringify({ name: 'Ann', password: PASSWORD });
      const answer = await fetch(`${proxied.url}/api/session`, { method: 'POST', headers, body });
      return answer.headers.get('set-cookie');
    };
    expect(await cookieBy('https')).toMatch(/Secure/);
    const plain = await cookieBy('http');
    expect(plain).not.toMatch(/Secure/);
    expect(plain).toMatch(new RegExp(`Max-Age=${SESSION_MS / 1000}; .*HttpOnly.*SameSite=Strict`));
    await proxied.stop();
  });
});

describe('a code that was given out', () => {
  const reset = async (after: number) => {
    const given = Date.now();
    const { id } = (await findTeacherByName(open.db, 'Cleo'))!;
    const code = await allowReset(open.db, id);
    itIs(given + after);
    const answer = await new Visitor(server.url).ask('POST', '/api/session/reset', {
      name: 'Cleo',
      code,
      password: 'lanterns at dusk',
    });
    vi.useRealTimers();
    return answer;
  };
  it('is good for a day, and then no more', async () => {
    expect(await reset(DAY_MS + 60_000)).toMatchObject({ status: 401, body: { error: { code: 'wrong-code' } } });
    expect((await reset(DAY_MS - 60_000)).status).toBe(200);
  });
});

describe('recordings', () => {
  const path = `/api/takes/${ids.take}/recording`;
  it('have the date that the class allows, and none when it has come', async () => {
    const until = async () => ((await ann.ask('GET', `/api/takes/${ids.take}`)).body as TakeDetail).recordingUntil;
    expect(await until()).toBeNull();
    const sent = Date.now();
    itIs(sent);
    await ann.send('PUT', path, Buffer.from('clap'), { 'content-type': 'audio/webm' });
    expect(await until()).toBe(sent + 2 * DAY_MS);
    itIs(sent + 2 * DAY_MS - 1);
    expect(await until()).toBe(sent + 2 * DAY_MS);
    itIs(sent + 2 * DAY_MS);
    expect(await until()).toBeNull();
  });
  it('are gone when their date has come, and are then deleted', async () => {
    const { db } = open;
    const kept = async () => (await db.select().from(recordings).where(eq(recordings.takeId, ids.take))).length;
    await ann.send('PUT', path, Buffer.from('clap'), { 'content-type': 'audio/webm' });
    itIs(Date.now() + DAY_MS);
    expect((await fetch(server.url + path, { headers: ann.headers })).status).toBe(200);
    itIs(Date.now() + 1.1 * DAY_MS);
    expect((await ann.ask('GET', path)).status).toBe(404);
    expect(await kept()).toBe(1);
    const problems: unknown[] = [];
    const stop = deleteInTime(db, (problem) => problems.push(problem));
    await vi.waitFor(async () => expect(await kept()).toBe(0));
    stop();
    expect(problems).toEqual([]);
  });
});

describe('a class', () => {
  it('is another at once after every change of it, its children, its takes', async () => {
    const tag = async () => (await ann.ask('GET', `/api/classes/${ids.room}/records`)).headers.get('etag');
    const room = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null };
    const path = `/api/classes/${ids.room}`;
    const take = uuid();
    const played = { patternId: null, title: 'x', patternText: '4/4 w', bpm: 60, onsets: [0], childId: ids.child };
    const [child, paper, lineUp, week] = [uuid(), uuid(), uuid(), uuid()];
    const column = { title: 'Quiz', outOf: 10, takenAt: 3, points: { [ids.child]: 7 } };
    const settings = {
      patternIds: [uuid()],
      seed: 1,
      bpm: 60,
      heardBy: 'tap',
      tries: 1,
      order: 'list',
      startsItself: false,
    };
    const turns = [{ childId: ids.child, patternId: settings.patternIds[0] }];
    const item = { patternId: uuid(), title: 'Steps', text: '4/4 q q h', bpm: 72, times: 2, days: [0] };
    const practised = { title: 'Week', items: [item], children: null };
    const changes: (readonly [string, string, unknown?])[] = [
      ['PUT', path, { ...room, name: 'Terns' }],
      ['PUT', `${path}/children/${ids.child}`, { name: 'Adam' }],
      ['PUT', `/api/takes/${take}`, { ...played, takenAt: 2 }],
      ['PUT', `/api/takes/${take}/override`, { mark: 1 }],
      ['PUT', `/api/takes/${take}/onsets`, { onsets: [0.1] }],
      ['DELETE', `/api/takes/${take}`],
      ['PUT', `${path}/paper/${paper}`, column],
      ['PUT', `${path}/paper/${paper}`, { ...column, points: { [ids.child]: 8 } }],
      ['DELETE', `${path}/paper/${paper}`],
      ['PUT', `${path}/line-ups/${lineUp}`, { title: 'First', settings, startedAt: 1, turns }],
      ['PUT', `${path}/line-ups/${lineUp}/turns/${ids.child}`, { state: 'absent' }],
      ['DELETE', `${path}/line-ups/${lineUp}`],
      ['PUT', `${path}/practice/${week}`, { starts: '2026-09-28', plan: practised }],
      ['DELETE', `${path}/practice/${week}`],
      ['PUT', `${path}/children/${child}`, { name: 'Bo' }],
      ['DELETE', `${path}/children/${child}`],
      ['POST', `/api/bin/child/${child}/out`, {}],
      ['PUT', `${path}/shares`, { name: 'Ben', role: 'look' }],
      ['PUT', `${path}/terms/${uuid()}`, { title: 'Autumn' }],
    ];
    for (const [method, at, body] of changes) {
      const before = await tag();
      const { status } = await ann.ask(method, at, body);
      expect([method, at, status < 300, (await tag()) !== before]).toEqual([method, at, true, true]);
    }
  });
});

describe('the teacher’s own mark', () => {
  it('has a reason as long as it stands', async () => {
    const give = async (body: object) =>
      (await ann.ask('PUT', `/api/takes/${ids.take}/override`, body)).body as TakeDetail;
    expect(await give({ mark: 3, reason: 'tired' })).toMatchObject({ override: 3, overrideReason: 'tired' });
    expect(await give({ mark: null, reason: 'tired' })).toMatchObject({ override: null, overrideReason: '' });
  });
});

describe('results', () => {
  const read = async () => (await ann.ask('GET', `/api/takes/${ids.take}`)).body as TakeDetail;
  it('are facts, on the measures as they are written, with the time through', async () => {
    const { result } = await read();
    const [first] = result.misreadings;
    expect(first).toMatchObject({ measure: 2, timeThrough: 2, beat: { n: 5, d: 2 } });
    expect(JSON.stringify(result)).not.toMatch(/"sentence"|Measure/);
    expect(result.notes.filter(({ timeThrough }) => timeThrough === 2)).toHaveLength(7);
  });
  it('of an older version are judged again when they are asked for, and all of them in time', async () => {
    const { db } = open;
    const now = await read();
    const age = () =>
      db
        .update(takes)
        .set({ resultVersion: RESULT_VERSION - 1, mark: 0, accuracy: 0, result: { old: true } as never })
        .where(eq(takes.id, ids.take));
    await age();
    const again = await read();
    expect([again.mark, again.accuracy, again.result]).toEqual([now.mark, now.accuracy, now.result]);
    await age();
    const problems: unknown[] = [];
    const judges = judgesWith();
    await renewResults({ db, judges }, new AbortController().signal, (problem) => problems.push(problem));
    await judges.close();
    const [row] = await db.select().from(takes).where(eq(takes.id, ids.take));
    expect([row!.resultVersion, row!.mark, problems]).toEqual([RESULT_VERSION, now.mark, []]);
    expect((await takesIn(ann, ids.room)).find(({ id }) => id === ids.take)!.mark).toBe(now.mark);
  });
});
