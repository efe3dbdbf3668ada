import { Router } from 'express';
import { v4 as uuid } from 'uuid';
import type { RowDataPacket } from 'mysql2';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type Random, randomFrom } from '../core/random.ts';
import { openDatabase } from './database.ts';
import { FIRST_SCHOOL } from '../contract/school.ts';
import { EVERY_ROUTE, type Ids, askFor } from './everyRoute.test-helper.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

type Method = 'get' | 'put' | 'post' | 'delete';
type Made = { readonly path: string } & ({ readonly router: object } | { readonly route: { methods: object } });

/** Every router that is made, with what is put into it. */
const made = new Map<object, Made[]>();

/** Watches routers being made: a router itself does not tell under which path another one was put into it. */
function watchRouters(): void {
  const proto = Router.prototype as {
    use: (...args: unknown[]) => unknown;
    route: (path: string) => { methods: object };
  };
  const { use, route } = proto;
  const note = (router: object, one: Made) => made.set(router, [...(made.get(router) ?? []), one]);
  vi.spyOn(proto, 'use').mockImplementation(function (this: object, ...args: unknown[]) {
    const path = typeof args[0] === 'string' ? args[0] : '';
    for (const one of args) if (typeof one === 'function' && 'stack' in one) note(this, { path, router: one });
    return use.apply(this as never, args);
  });
  vi.spyOn(proto, 'route').mockImplementation(function (this: object, path: string) {
    const one = route.call(this as never, path);
    note(this, { path, route: one });
    return one;
  });
}

/** "PUT /api/classes/:classId", all that the server answers. */
function routesMade(): string[] {
  const inside = new Set([...made.values()].flat().flatMap((one) => ('router' in one ? [one.router] : [])));
  const walk = (router: object, before: string): string[] =>
    (made.get(router) ?? []).flatMap((one) => {
      const path = `${before}${typeof one.path === 'string' ? one.path : ''}`.replace(/\/$/, '');
      if ('router' in one) return walk(one.router, path);
      // The pages themselves: any other address.
      if (typeof one.path !== 'string') return [];
      return Object.keys(one.route.methods).map((method) => `${(method as Method).toUpperCase()} ${path}`);
    });
  return [...made.keys()].filter((router) => !inside.has(router)).flatMap((router) => walk(router, ''));
}

let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
let ben: Visitor;
let cleo: Visitor;
beforeAll(async () => {
  watchRouters();
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  vi.restoreAllMocks();
  open = openDatabase(databaseUrl, { connections: 2 });
  [ann, ben, cleo] = [new Visitor(server.url), new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
  await cleo.signIn('Cleo');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

/** Stands in everything of Ann's that has words. */
const SECRET = 'Cormorant';

/** All that a teacher can have, once, with its ids. */
async function world(who: Visitor, word: string): Promise<Ids> {
  const names = [
    'roomId',
    'childId',
    'takeId',
    'patternId',
    'columnId',
    'lineUpId',
    'termId',
    'weekId',
    'lessonId',
    'tallyId',
    'hearingId',
  ];
  const ids = {
    classId: uuid(),
    ...(Object.fromEntries(names.map((name) => [name, uuid()])) as Record<string, string>),
    id: uuid(),
    schoolId: FIRST_SCHOOL,
    kind: 'child',
    element: 'quarter',
    number: '1',
  } as unknown as Ids;
  const worded = (value: unknown): unknown => {
    if (typeof value !== 'object' || value === null) return value;
    if (Array.isArray(value)) return value.map(worded);
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [
        key,
        key === 'title' || key === 'name' ? `${word} ${key}` : worded(one),
      ]),
    );
  };
  for (const route of [
    'PUT /api/patterns/:patternId',
    'PUT /api/classes/:classId',
    'PUT /api/classes/:classId/children/:childId',
    'PUT /api/classes/:classId/line-ups/:lineUpId',
    'PUT /api/takes/:takeId',
    'PUT /api/takes/:takeId/override',
    'PUT /api/classes/:classId/paper/:columnId',
    'PUT /api/classes/:classId/practice/:weekId',
    'PUT /api/classes/:classId/lessons/:lessonId',
    'PUT /api/classes/:classId/ear/:tallyId',
    'PUT /api/classes/:classId/together/:hearingId',
    'PUT /api/classes/:classId/term-plan',
    'PUT /api/classes/:classId/terms/:termId',
    'PUT /api/classes/:classId/rooms/:roomId',
    'PUT /api/classes/:classId/rooms/:roomId/round',
    'PUT /api/plans/:id',
    'PUT /api/sheets/:id',
  ]) {
    const { method, path, body } = askFor(route, ids);
    const sent = {
      ...(worded(body) as object),
      ...(route === 'PUT /api/takes/:takeId' ? { lineUpId: ids['lineUpId'] } : {}),
    };
    delete (sent as { was?: unknown }).was;
    const { status, body: answer } = await who.ask(method, path, sent);
    if (status >= 300) throw new Error(`${route}: ${status} ${JSON.stringify(answer)}`);
  }
  return ids;
}

/** Every row that a teacher or one of her classes, children, columns, line-ups or takes is named in. */
async function rowsOf(teacher: string): Promise<string[]> {
  const [tables] = await open.pool.query<RowDataPacket[]>('show tables');
  const names = tables.map((row) => Object.values(row)[0] as string).filter((name) => !name.startsWith('__'));
  const rows = await Promise.all(
    names.map(async (name) => {
      const [found] = await open.pool.query<RowDataPacket[]>(`select * from \`${name}\``);
      return found.map((row) => ({ name, text: JSON.stringify(row) }));
    }),
  );
  const all = rows.flat().filter(({ name }) => !['sessions', 'sign_in_tries'].includes(name));
  const [owners] = await open.pool.query<RowDataPacket[]>('select id from teachers where name = ?', [teacher]);
  // What is named in a row of hers is hers too, as far as it goes.
  const mine = new Set<string>([owners[0]!['id'] as string]);
  const [classes] = await open.pool.query<RowDataPacket[]>('select id from classes where teacher_id = ?', [...mine]);
  for (const { id } of classes) mine.add(id as string);
  const own = new Set(classes.map(({ id }) => `classes ${id as string}`));
  for (const [table, column] of [
    ['children', 'class_id'],
    ['takes', 'class_id'],
    ['line_ups', 'class_id'],
    ['paper_columns', 'class_id'],
    ['rooms', 'class_id'],
  ]) {
    const [ids] = await open.pool.query<RowDataPacket[]>(`select id from ${table} where ${column} in (?)`, [[...mine]]);
    for (const { id } of ids) {
      mine.add(id as string);
      own.add(`${table} ${id as string}`);
    }
  }
  return all.flatMap(({ name, text }) => {
    const row = JSON.parse(text) as Record<string, unknown>;
    const keys = ['teacher_id', 'class_id', 'child_id', 'column_id', 'line_up_id', 'take_id', 'pattern_id', 'room_id'];
    const isHers = own.has(`${name} ${row['id'] as string}`) || keys.some((key) => mine.has(row[key] as string));
    return isHers ? [`${name} ${text}`] : [];
  });
}

/** Hers is looked at after so many of his requests that may change something. */
const LOOKED_AFTER = 15;

const NEVER: readonly string[] = [
  'GET /api/classes/:classId/rooms/:roomId/events',
  'GET /api/room/events',
  'GET /api/classes/:classId/events',
  'DELETE /api/session',
  'DELETE /api/classes/:classId',
  'DELETE /api/account/other-sessions',
];

/** Requests over every route, their ids drawn from those of both; the class is one's own or the other's. */
async function* askedBy(who: Visitor, own: Ids, others: Ids, random: Random, rounds: number) {
  const pools = [own, others].map((ids) => Object.values(ids).filter((id) => id.length === 36));
  const drawn = (from: readonly string[]) => from[random.below(from.length)]!;
  const routes = Object.keys(EVERY_ROUTE).filter(
    (route) => !NEVER.includes(route) && EVERY_ROUTE[route]!.needs !== 'nothing',
  );
  for (let round = 0; round < rounds; round++)
    for (const route of routes) {
      // Mostly ids of the other one in one's own class, which is the way round that was open.
      const ids = Object.fromEntries(
        Object.keys(others).map((name) => {
          const value = random.below(3) === 0 ? own[name]! : others[name]!;
          if (value.length !== 36) return [name, value];
          return [name, random.below(2) === 0 ? value : drawn(pools[random.below(2)]!)];
        }),
      );
      const classId = random.below(4) === 0 ? others.classId : own.classId;
      const { method, path, body } = askFor(route, { ...ids, classId, toId: own.classId } as unknown as Ids);
      const answer = await who.ask(method, path, body);
      yield { what: `${method} ${path} ${JSON.stringify(body ?? null).slice(0, 300)}`, ...answer };
    }
}

const other = (a: readonly string[], b: readonly string[]) => a.filter((row) => !b.includes(row));

describe('every route', () => {
  it('stands in the table of who may, and nothing else does', () => {
    const [there, rows] = [routesMade(), Object.keys(EVERY_ROUTE)];
    expect(there.length).toBeGreaterThan(60);
    expect({
      withoutRow: there.filter((route) => !rows.includes(route)),
      gone: rows.filter((route) => !there.includes(route)),
    }).toEqual({ withoutRow: [], gone: [] });
  });

  const RANK = { look: 0, hear: 1, owner: 2 } as const;
  const ROLES = ['none', 'look', 'hear', 'owner'] as const;
  it.each(ROLES)('lets a teacher with the role %s do just that', async (role) => {
    const ids = await world(ann, 'Tern');
    const path = `/api/classes/${ids.classId}`;
    const who = role === 'owner' ? ann : ben;
    const wrong: string[] = [];
    if (role === 'look' || role === 'hear') await ann.ask('PUT', `${path}/shares`, { name: 'Ben', role });
    for (const [route, { needs }] of Object.entries(EVERY_ROUTE)) {
      if ((needs !== 'look' && needs !== 'hear' && needs !== 'owner') || NEVER.includes(route)) continue;
      // What is taken away is missed by what comes after.
      const fresh = route.startsWith('DELETE') && role !== 'none' ? { ...ids, ...(await world(ann, 'Tern')) } : ids;
      if (fresh !== ids && who === ben && role !== 'none')
        await ann.ask('PUT', `/api/classes/${fresh.classId}/shares`, { name: 'Ben', role });
      const { method, path: at, body } = askFor(route, fresh);
      const { status, body: answer } =
        route === 'PUT /api/takes/:takeId/recording'
          ? await who.send(method, at, Buffer.from('RIFF'), { 'content-type': 'audio/wav' })
          : await who.ask(method, at, body);
      const allowed = role !== 'none' && RANK[role] >= RANK[needs];
      const code = (answer as { error?: { code: string } } | undefined)?.error?.code;
      const expected = role === 'none' ? '404 not-found' : `403 ${needs === 'owner' ? 'not-yours' : 'only-look'}`;
      const is = `${status} ${code}`;
      if (allowed ? status === 403 : is !== expected) wrong.push(`${route}: ${is}`);
    }
    expect(wrong.join('\n')).toBe('');
  });

  it('asks who it is before it says anything', async () => {
    const nobody = new Visitor(server.url);
    const ids = await world(ann, 'Tern');
    for (const [route, { needs }] of Object.entries(EVERY_ROUTE)) {
      if (needs === 'nothing') continue;
      const { method, path, body } = askFor(route, ids);
      // A secret is one of its own: whoever has none is told that it is over.
      const status = needs === 'secret' ? 410 : 401;
      expect([route, (await nobody.ask(method, path, body)).status]).toEqual([route, status]);
    }
  });

  it('of the administrator’s is refused to any other teacher', async () => {
    for (const [route, { needs }] of Object.entries(EVERY_ROUTE)) {
      if (needs !== 'administrator') continue;
      const { method, path, body } = askFor(route, await world(ben, 'Rail'));
      expect([route, (await ben.ask(method, path, body)).status]).toEqual([route, 403]);
    }
  });
});

describe('for any ids of somebody else', () => {
  it.each([
    ['who has nothing to do with the class', undefined],
    ['who may only look', 'look'],
  ])('%s changes no row of hers, whatever the route', async (_who, role) => {
    const [theirs, own] = [await world(ann, SECRET), await world(ben, 'Rail')];
    if (role) await ann.ask('PUT', `/api/classes/${theirs.classId}/shares`, { name: 'Ben', role });
    const before = await rowsOf('Ann');
    const random = randomFrom(role ? 71 : 72);
    const asked: string[] = [];
    for await (const { what } of askedBy(ben, own, theirs, random, 2)) {
      if (/^(PUT|POST|DELETE)/.test(what)) asked.push(what);
      if (asked.length < LOOKED_AFTER) continue;
      const after = await rowsOf('Ann');
      const changed = [...other(after, before), ...other(before, after)];
      if (changed.length > 0) throw new Error([...changed, ...asked].map((one) => one.slice(0, 400)).join('\n'));
      asked.length = 0;
    }
  });

  it('reads nothing of hers, also not what was shared once', async () => {
    const [theirs, own] = [await world(ann, SECRET), await world(cleo, 'Rail')];
    const shares = `/api/classes/${theirs.classId}/shares`;
    await ann.ask('PUT', shares, { name: 'Cleo', role: 'hear' });
    const [{ teacherId }] = (await ann.ask('GET', shares)).body as [{ teacherId: string }];
    await ann.ask('DELETE', `${shares}/${teacherId}`);
    for await (const { what, body } of askedBy(cleo, own, theirs, randomFrom(73), 3))
      expect([what, JSON.stringify(body ?? null).includes(SECRET)]).toEqual([what, false]);
  });
});

describe('the ways round that were open', () => {
  it('a column’s id is no id of a line-up in another class', async () => {
    const [theirs, own] = [await world(ann, SECRET), await world(ben, 'Rail')];
    const before = await rowsOf('Ann');
    const line = `/api/classes/${own.classId}/line-ups/${theirs['columnId']}`;
    const { body } = askFor('PUT /api/classes/:classId/line-ups/:lineUpId', own);
    expect((await ben.ask('PUT', line, body)).status).toBe(404);
    await ben.ask('PUT', `${line}/turns/${own.childId}`, { state: 'heard', mark: 0 });
    const column = `/api/classes/${own.classId}/paper/${theirs['lineUpId']}`;
    await ben.ask('PUT', column, { title: 'Mine', outOf: 4, takenAt: 1, points: { [own.childId]: 1 } });
    const after = await rowsOf('Ann');
    expect([...other(after, before), ...other(before, after)].join('\n')).toBe('');
  });
  it('a line-up that comes out of a file brings no mark of a foreign take', async () => {
    const [theirs, own] = [await world(ann, SECRET), await world(ben, 'Rail')];
    const { body } = askFor('PUT /api/classes/:classId/line-ups/:lineUpId', own);
    const { turns: _turns, ...line } = body as { turns: unknown };
    const turn = { childId: own.childId, patternId: theirs.patternId, state: 'heard', mark: 1, takeId: theirs.takeId };
    const lineUps = [{ id: uuid(), ...line, turns: [turn] }];
    expect((await ben.ask('PUT', `/api/classes/${own.classId}/copied`, { lineUps })).status).toBe(204);
    await ann.ask('PUT', `/api/takes/${theirs.takeId}/override`, { mark: 0 });
    const found = (await ben.ask('GET', `/api/classes/${own.classId}/line-ups`)).body as { turns: object[] }[];
    expect(found.map(({ turns }) => turns).flat()).toContainEqual(expect.objectContaining({ mark: 1, takeId: null }));
    expect(JSON.stringify(found)).not.toContain(SECRET);
  });
});
