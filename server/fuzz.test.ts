import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ErrorBody } from '../contract/problem.ts';
import { validator } from '../contract/validate.ts';
import { type Random, randomFrom } from '../core/random.ts';
import type { RunningServer } from './start.ts';
import { PASSWORD, Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

const REQUESTS = 1_200;
const SEED = 20_261;
const AT_ONCE = 12;

let server: RunningServer;
const ids = { class: uuid(), child: uuid(), take: uuid(), pattern: uuid(), plan: uuid(), sheet: uuid() };
const visitors: Visitor[] = [];

const CLASS = {
  name: 'Gulls',
  ages: '9-10',
  school: 'numbers',
  rests: 'sh',
  naming: 'crotchets',
  houseWords: { ta: { quarter: 'taa' } },
  wordSet: { title: 'Boats', cells: { q: 'tug' } },
  onTimeMs: 90,
  borders: [{ mark: 4, accuracy: 0.9, driftPct: 5 }],
  clickCounts: true,
  recordingDays: 4,
};
const TAKE = {
  childId: ids.child,
  patternId: ids.pattern,
  title: 'First',
  patternText: '4/4 q q h | q (q) h',
  bpm: 72,
  onsets: [0, 0.8, 1.7, 3.3],
  feet: [0, 0.8],
  releases: [0.4, null, 2, 4],
  free: false,
  source: 'tap',
  takenAt: 1_700_000_000_000,
};
const PLAN = {
  title: 'Warm up',
  passes: [{ activity: 'clap', who: 'all' }],
  chunks: { kind: 'joined', by: 2 },
  ladder: [{ bpm: 60, passes: 2, factor: 1 }],
  restBeats: 4,
  countIn: 'measure',
  countInWords: ['one'],
  countInEach: true,
  divided: false,
  twoLines: false,
};
const SHEET = {
  title: 'Week 7',
  seed: 1,
  paper: 'letter',
  large: true,
  versions: true,
  bpm: 72,
  parts: [{ key: 0, kind: 'sums', count: 4, level: 2, elements: ['half'], meter: '3/4', beat: 'e', patterns: ['q'] }],
  classId: ids.class,
  names: true,
  counts: { school: 'ta', rests: 'sh', houseWords: { quarter: 'taa' }, wordSet: { title: 'B', cells: { q: 'tug' } } },
  naming: 'crotchets',
};
const WEEK = {
  starts: '2026-09-28',
  plan: {
    title: 'Week',
    items: [{ patternId: ids.pattern, title: 'Steps', text: '4/4 q q h', bpm: 72, times: 2, days: [0, 3] }],
    children: [ids.child],
  },
};
const TALLY = { kind: 'choose', takenAt: 5, right: 7, asked: 10, mistakes: { 'rest-clapped': 3 } };
const LESSON = {
  title: 'Monday',
  minutes: 40,
  day: '2026-09-28',
  starts: '09:40',
  blocks: [
    {
      key: 0,
      kind: 'lead',
      minutes: 5,
      note: 'x',
      patterns: [{ patternId: ids.pattern, title: 'Steps', text: '4/4 q q h' }],
      steps: [{ element: 'half', step: 'meet' }],
      plan: PLAN,
      lineUp: { bpm: 72, tries: 1 },
    },
  ],
  held: { at: 5, seconds: 5, leftOut: [0] },
};
const TERM = {
  from: '2026-09-07',
  until: '2026-12-18',
  slots: [{ weekday: 3, starts: '11:20', minutes: 45 }],
  holidays: [{ from: '2026-10-19', until: '2026-10-25' }],
  order: ['half', 'tie'],
  contents: [[{ element: 'half', step: 'meet' }], []],
  left: [{ element: 'tie', step: 'hear' }],
};
const PIECES = {
  termFrom: 4,
  takes: [
    {
      ...TAKE,
      id: uuid(),
      patternKey: ids.pattern,
      override: 3,
      overrideReason: 'x',
      corrected: true,
    },
  ],
  paper: [{ id: uuid(), title: 'Quiz', outOf: 10, takenAt: 1, points: { [ids.child]: 3 } }],
  lineUps: [],
  practice: [{ id: uuid(), ...WEEK }],
  ear: [{ id: uuid(), ...TALLY }],
  lessons: [{ id: uuid(), ...LESSON }],
  termPlan: TERM,
  terms: [
    {
      id: uuid(),
      title: 'Autumn',
      fromAt: 0,
      untilAt: 2,
      names: ['Ada'],
      records: { children: [ids.child], patterns: [], marks: [], elements: [], paper: [] },
    },
  ],
};
const PASSKEY = { id: 'AA', rawId: 'AA', type: 'public-key', clientExtensionResults: {} };

/** Every route that takes something, with a body that fits. */
const ROUTES: readonly (readonly [string, string, unknown])[] = [
  ['PUT', `/api/classes/${ids.class}`, CLASS],
  [
    'POST',
    `/api/classes/${ids.class}/judging-preview`,
    { ages: '9-10', onTimeMs: 50, borders: null, clickCounts: true },
  ],
  ['PUT', `/api/classes/${ids.class}/children/${ids.child}`, { name: 'Ada' }],
  ['PUT', `/api/patterns/${ids.pattern}`, { title: 'Steps', text: '4/4 q q h' }],
  [
    'PUT',
    `/api/patterns/${ids.pattern}`,
    {
      title: 'S',
      text: 'q q h',
      brackets: [{ from: { measure: 1, beat: 1 }, to: { measure: 1, beat: 2 }, words: 'x' }],
    },
  ],
  ['PUT', '/api/patterns/shelf', { patterns: [{ id: ids.pattern, folder: 'Rests', archived: true }] }],
  ['GET', `/api/classes/${ids.class}/misread`, undefined],
  ['PUT', `/api/plans/${ids.plan}`, PLAN],
  ['PUT', `/api/sheets/${ids.sheet}`, SHEET],
  ['GET', '/api/sheets', undefined],
  ['PUT', `/api/takes/${ids.take}`, TAKE],
  ['PUT', `/api/takes/${ids.take}/override`, { mark: 3, reason: 'brave' }],
  ['PUT', `/api/takes/${ids.take}/onsets`, { onsets: [0, 1, 2] }],
  ['PUT', `/api/takes/${ids.take}/recording`, 'RIFF'],
  ['GET', '/api/classes', undefined],
  ['GET', `/api/classes/${ids.class}`, undefined],
  ['GET', `/api/classes/${ids.class}/rejudging`, undefined],
  ['GET', `/api/classes/${ids.class}/children/${ids.child}/mastery`, undefined],
  ['GET', `/api/classes/${ids.class}/children/${ids.child}/takes?after=5.${ids.take}&pattern=x`, undefined],
  ['GET', `/api/classes/${ids.class}/records`, undefined],
  ['GET', `/api/classes/${ids.class}/line-ups`, undefined],
  [
    'PUT',
    `/api/classes/${ids.class}/children/${ids.child}`,
    { name: 'Ada', adaptations: { wider: 1.5, slower: 0.75, noClick: true, moreTries: 1, exempt: ['tie'] } },
  ],
  [
    'PUT',
    `/api/classes/${ids.class}/paper/${uuid()}`,
    { title: 'Quiz', outOf: 10, takenAt: 1, points: { [ids.child]: 3, x: null } },
  ],
  [
    'PUT',
    `/api/classes/${ids.class}/line-ups/${ids.plan}`,
    {
      title: 'First',
      settings: {
        patternIds: [ids.pattern],
        seed: 1,
        bpm: 60,
        heardBy: 'tap',
        tries: 1,
        order: 'list',
        startsItself: false,
      },
      startedAt: 1,
      turns: [{ childId: ids.child, patternId: ids.pattern }],
    },
  ],
  ['PUT', `/api/classes/${ids.class}/line-ups/${ids.plan}/turns/${ids.child}`, { state: 'heard', mark: 3 }],
  ['DELETE', `/api/classes/${ids.class}/line-ups/${uuid()}`, undefined],
  ['GET', '/api/bin', undefined],
  ['POST', `/api/bin/child/${uuid()}/out`, {}],
  ['DELETE', `/api/bin/class/${uuid()}`, undefined],
  ['GET', `/api/takes/${ids.take}`, undefined],
  ['GET', '/api/account', undefined],
  // Two fields that do not fit: whatever is put into one of them, nobody is tried.
  ['POST', '/api/session', { name: '', password: '' }],
  ['POST', '/api/session/reset', { name: '', code: '', password: 'short' }],
  ['PUT', '/api/account/password', { current: '', password: 'short' }],
  ['DELETE', `/api/account/passkeys/${uuid()}`, undefined],
  ['DELETE', `/api/classes/${uuid()}`, undefined],
  ['DELETE', `/api/takes/${uuid()}/recording`, undefined],
  ['POST', '/api/session/visit', {}],
  ['POST', '/api/session/passkey/options', {}],
  [
    'POST',
    '/api/session/passkey',
    {
      challengeId: uuid(),
      answer: { ...PASSKEY, response: { clientDataJSON: 'AA', authenticatorData: 'AA', signature: 'AA' } },
    },
  ],
  ['POST', '/api/account/passkeys/options', {}],
  [
    'POST',
    '/api/account/passkeys',
    {
      challengeId: uuid(),
      name: 'x',
      answer: { ...PASSKEY, response: { clientDataJSON: 'AA', attestationObject: 'AA' } },
    },
  ],
  ['GET', '/api/staff', undefined],
  ['POST', '/api/staff', { name: 'Eva' }],
  ['PUT', `/api/staff/${uuid()}`, { closed: true }],
  ['POST', `/api/staff/${uuid()}/code`, {}],
  ['DELETE', `/api/account/sessions/${uuid()}`, undefined],
  ['DELETE', `/api/classes/${ids.class}/rejudging`, undefined],
  ['GET', `/api/classes/${ids.class}/shares`, undefined],
  ['PUT', `/api/classes/${ids.class}/shares`, { name: 'Ben', role: 'look' }],
  ['DELETE', `/api/classes/${ids.class}/shares/${uuid()}`, undefined],
  ['GET', `/api/classes/${ids.class}/terms`, undefined],
  ['PUT', `/api/classes/${ids.class}/terms/${ids.plan}`, { title: 'Autumn' }],
  ['GET', `/api/classes/${ids.class}/terms/${ids.plan}`, undefined],
  ['POST', `/api/classes/${ids.class}/moves`, { to: ids.pattern, children: [ids.child] }],
  ['GET', `/api/classes/${ids.class}/practice`, undefined],
  ['PUT', `/api/classes/${ids.class}/practice/${ids.plan}`, WEEK],
  ['DELETE', `/api/classes/${ids.class}/practice/${uuid()}`, undefined],
  ['GET', `/api/classes/${ids.class}/lessons`, undefined],
  ['PUT', `/api/classes/${ids.class}/lessons/${ids.plan}`, { ...LESSON, was: LESSON }],
  ['DELETE', `/api/classes/${ids.class}/lessons/${uuid()}`, undefined],
  ['GET', `/api/classes/${ids.class}/term-plan`, undefined],
  ['PUT', `/api/classes/${ids.class}/term-plan`, { ...TERM, was: TERM }],
  ['GET', `/api/classes/${ids.class}/heard-weeks?from=2026-09-07`, undefined],
  ['GET', `/api/classes/${ids.class}/ear`, undefined],
  ['PUT', `/api/classes/${ids.class}/ear/${ids.plan}`, TALLY],
  ['DELETE', `/api/classes/${ids.class}/ear/${uuid()}`, undefined],
  ['GET', `/api/classes/${ids.class}/copy`, undefined],
  ['PUT', `/api/classes/${ids.class}/copied`, PIECES],
  ['PUT', `/api/classes/${ids.class}`, { ...CLASS, was: CLASS }],
  ['GET', '/healthz', undefined],
  ['GET', '/livez', undefined],
  ['GET', '/metrics', undefined],
];

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
  server = await serverWithTeachers(await freshDatabase(), 'Ann');
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
}, 120_000);
