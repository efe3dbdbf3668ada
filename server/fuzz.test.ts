import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ErrorBody } from '../contract/problem.ts';
import { validator } from '../contract/validate.ts';
import { type Random, randomFrom } from '../core/random.ts';
import type { RunningServer } from './start.ts';
import { FIRST_SCHOOL } from '../contract/school.ts';
import { EVERY_ROUTE, askFor } from './everyRoute.test-helper.ts';
import { PASSWORD, Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

const REQUESTS = 1_200;
const SEED = 20_261;
const AT_ONCE = 12;

let server: RunningServer;
const ids = {
  classId: uuid(),
  childId: uuid(),
  takeId: uuid(),
  patternId: uuid(),
  id: uuid(),
  schoolId: FIRST_SCHOOL,
  itemId: uuid(),
  lineUpId: uuid(),
  termId: uuid(),
  lessonId: uuid(),
  weekId: uuid(),
  tallyId: uuid(),
  hearingId: uuid(),
  roomId: uuid(),
  number: '1',
  kind: 'child',
  element: 'quarter',
};
const visitors: Visitor[] = [];

/** What would make the others answer 404 is asked of what is not there. */
const GOES: readonly string[] = [
  'DELETE /api/classes/:classId',
  'DELETE /api/classes/:classId/children/:childId',
  'DELETE /api/classes/:classId/children/:childId/everything',
  'DELETE /api/takes/:takeId',
];
/** Streams have no end, and who is signed out is only refused. */
const LEFT_OUT: readonly string[] = [
  'GET /api/classes/:classId/events',
  'GET /api/classes/:classId/rooms/:roomId/events',
  'DELETE /api/session',
  'DELETE /api/account/other-sessions',
];

/** Every route, with a body that fits. */
const ROUTES: readonly (readonly [string, string, unknown])[] = Object.keys(EVERY_ROUTE)
  .filter((route) => !LEFT_OUT.includes(route))
  .map((route) => {
    const gone = {
      ...ids,
      classId: route.includes('/children/') ? ids.classId : uuid(),
      childId: uuid(),
      takeId: uuid(),
    };
    const ask = askFor(route, GOES.includes(route) ? gone : ids);
    return [ask.method, ask.path, ask.body] as const;
  });

const ODD: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1e308,
  -0.5,
  2 ** 53,
  '',
  ' ',
  '\u0000',
  '\ud800',
  '👩🏽‍🎤'.repeat(40),
  'x'.repeat(9_000),
  "'; drop table takes; --",
  '4/4 ' + 's '.repeat(4_000),
  '99/1 w',
  '|: :| |: :|',
  '3:2(e e e) {',
  [],
  {},
  [[]],
  [null],
  { $ne: 1 },
  JSON.parse('{"__proto__": {"admin": true}, "constructor": 1}'),
  Array.from({ length: 3_000 }, (_, i) => i / 3),
  Array.from({ length: 30 }, (_, i) => -i),
  'NaN',
  uuid(),
];
const ODD_IDS = [
  '%00',
  '%ff',
  '..%2f..',
  'null',
  'undefined',
  '1',
  uuid().toUpperCase(),
  'a'.repeat(3_000),
  '%F0%9F%A5%81',
  "'",
];
const METHODS = ['GET', 'PUT', 'POST', 'DELETE', 'PATCH', 'OPTIONS', 'HEAD'];
const HEADERS: readonly (readonly [string, string])[] = [
  ['content-type', 'text/plain'],
  ['content-type', 'application/json; charset=utf-7'],
  ['content-type', 'multipart/form-data; boundary=x'],
  ['content-encoding', 'gzip'],
  ['content-encoding', 'zstd-ish'],
  ['if-none-match', 'W/"'],
  ['accept-encoding', 'identity;q=0, *;q=0'],
  ['cookie', 'clapboard_session=%E0%A4%A'],
  ['cookie', `clapboard_session=${'y'.repeat(5_000)}`],
  ['clapboard-teacher', uuid()],
  ['sec-fetch-site', 'cross-site'],
  ['origin', '::::'],
  ['x-forwarded-for', "'"],
  ['expect', 'nothing'],
  ['range', 'bytes=9-1'],
];

const pick = <T>(random: Random, list: readonly T[]): T => list[random.below(list.length)]!;

/** Puts something odd somewhere into a body that fits. */
function spoiled(random: Random, body: unknown): unknown {
  if (random.next() < 0.15 || typeof body !== 'object' || body === null) return pick(random, ODD);
  if (Array.isArray(body)) return body.map((item: unknown, i) => (i === 0 ? spoiled(random, item) : item));
  const keys = Object.keys(body);
  const key = keys.length > 0 ? pick(random, keys) : 'more';
  const { [key]: value, ...rest } = body as Record<string, unknown>;
  switch (random.below(4)) {
    case 0:
      return rest;
    case 1:
      return { ...rest, [key]: value, [pick(random, ['more', 'id', '__proto__x', 'teacherId'])]: pick(random, ODD) };
    default:
      return { ...rest, [key]: spoiled(random, value) };
  }
}

interface Sent {
  readonly method: string;
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: string | undefined;
}

function request(random: Random): Sent {
  const [usual, address, body] = pick(random, ROUTES);
  const method = random.next() < 0.1 ? pick(random, METHODS) : usual;
  const parts = address.split('/');
  if (random.next() < 0.15) parts[random.below(parts.length)] = pick(random, ODD_IDS);
  const path = parts.join('/').replace(/^(?!\/)/, '/');
  const headers: Record<string, string> = {
    'content-type': address.endsWith('recording') ? 'audio/wav' : 'application/json',
  };
  if (random.next() < 0.2) {
    const [name, value] = pick(random, HEADERS);
    headers[name] = value;
  }
  if (method === 'GET' || method === 'HEAD') return { method, path, headers, body: undefined };
  const made = JSON.stringify(random.next() < 0.9 ? spoiled(random, body) : body) ?? '';
  const cut = random.next() < 0.08 ? made.slice(0, random.below(made.length + 1)) : made;
  return { method, path, headers, body: cut };
}

beforeAll(async () => {
  server = await serverWithTeachers(await freshDatabase(), { demoTeacher: 'Ann' });
  for (const name of ['Ann', 'Ben']) {
    const visitor = new Visitor(server.url);
    await visitor.signIn(name, PASSWORD);
    visitors.push(visitor);
  }
});
afterAll(() => server.stop());

it(`${REQUESTS} malformed requests over every route: no bug shows, and each refusal says what to do`, async () => {
  const random = randomFrom(SEED);
  const isError = validator(ErrorBody);
  const wrong: unknown[] = [];
  let refused = 0;
  for (let from = 0; from < REQUESTS; from += AT_ONCE) {
    const sent = Array.from({ length: AT_ONCE }, () => ({ ...request(random), visitor: pick(random, visitors) }));
    await Promise.all(
      sent.map(async ({ visitor, method, path, headers, body }) => {
        const init = { method, headers: { ...visitor.headers, ...headers }, ...(body === undefined ? {} : { body }) };
        const response = await fetch(server.url + path, init).catch((error: Error) => error);
        if (response instanceof Error) {
          // What the client itself refuses to send proves nothing.
          if (!/fetch failed|Invalid|invalid/.test(response.message)) wrong.push([method, path, response.message]);
          return;
        }
        const text = await response.text();
        if (response.status >= 400) refused++;
        const fits = response.status < 400 || text === '' || (text.startsWith('{') && isError(JSON.parse(text)).ok);
        if (response.status >= 500 || !fits)
          wrong.push([method, path.slice(0, 80), headers, body?.slice(0, 200), response.status, text.slice(0, 200)]);
      }),
    );
  }
  expect(wrong).toEqual([]);
  expect(refused).toBeGreaterThan(REQUESTS / 2);
  expect((await fetch(`${server.url}/healthz`)).status).toBe(200);
});
