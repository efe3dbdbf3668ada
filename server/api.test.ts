import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ClassDetail } from '../contract/schoolClass.ts';
import { TakeDetail } from '../contract/take.ts';
import { validator } from '../contract/validate.ts';
import { partKey } from '../core/records/partKey.ts';
import { openDatabase } from './database.ts';
import { removeExpired } from './repository/recordings.ts';
import type { RunningServer } from './start.ts';
import { type Answer, Visitor, freshDatabase, serverWithTeachers, takesIn } from './testServer.test-helper.ts';
import { ErrorBody } from '../contract/problem.ts';
import { SessionState } from '../contract/session.ts';
import { SavedPattern } from '../contract/pattern.ts';

let server: RunningServer;
let databaseUrl: string;
let ann: Visitor;
let ben: Visitor;

const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null };
const TEXT = '4/4 q q e e q';
const ids = { room: uuid(), child: uuid(), pattern: uuid(), take: uuid() };
const JUDGED_ALIKE = { onTimeMs: null, borders: null, clickCounts: false, recordingDays: null };
const TAKE = {
  childId: ids.child,
  patternId: ids.pattern,
  title: 'First',
  patternText: TEXT,
  bpm: 60,
  onsets: [0, 1, 2, 2.5, 3],
  takenAt: 1_700_000_000_000,
};

const isError = validator(ErrorBody);

/** Every error has the one shape, a sentence, and no trace of the inside. */
function expectError(answer: Answer, status: number, word: string): void {
  expect({ status: answer.status, body: answer.body }).toMatchObject({ status });
  expect(isError(answer.body).ok).toBe(true);
  const text = JSON.stringify(answer.body);
  expect(text).toContain(word);
  expect(text).not.toMatch(/node_modules|\.ts:|select |insert /i);
}

beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  ann = new Visitor(server.url);
  ben = new Visitor(server.url);
  expect((await ann.signIn('Ann')).status).toBe(200);
  expect((await ben.signIn('Ben')).status).toBe(200);
  expect((await ann.ask('PUT', `/api/classes/${ids.room}`, CLASS)).status).toBe(201);
  expect((await ann.ask('PUT', `/api/classes/${ids.room}/children/${ids.child}`, { name: 'Ada' })).status).toBe(201);
  expect((await ann.ask('PUT', `/api/patterns/${ids.pattern}`, { title: 'First', text: TEXT })).status).toBe(201);
  expect((await ann.ask('PUT', `/api/takes/${ids.take}`, TAKE)).status).toBe(200);
});

afterAll(() => server.stop());

describe('sessions', () => {
  it('keep the token from scripts and other sites, and end', async () => {
    const visitor = new Visitor(server.url);
    const { headers, body } = await visitor.signIn('Ann');
    expect(headers.get('set-cookie')).toMatch(/HttpOnly/);
    expect(headers.get('set-cookie')).toMatch(/SameSite=Strict/);
    expect(validator(SessionState)(body).ok).toBe(true);
    expect((await visitor.ask('GET', '/api/classes')).status).toBe(200);
    const before = new Visitor(server.url);
    Object.assign(before, visitor);
    expect((await visitor.ask('DELETE', '/api/session')).status).toBe(204);
    expectError(await before.ask('GET', '/api/classes'), 401, 'Sign in again');
  });
  it('refuse a wrong password and an unknown name alike', async () => {
    const wrong = await new Visitor(server.url).signIn('Ann', 'wrong');
    const unknown = await new Visitor(server.url).signIn('Nobody', 'wrong');
    expectError(wrong, 401, 'do not belong together');
    expect(unknown.body).toEqual(wrong.body);
  });
  it('let no visitor in where there is no demo', async () =>
    expectError(await new Visitor(server.url).ask('POST', '/api/session/visit'), 404, 'no demo'));
  it('let a visitor in where there is one', async () => {
    const demo = await serverWithTeachers(await freshDatabase(), { demoTeacher: 'Ann' });
    const visitor = new Visitor(demo.url);
    expect((await visitor.ask('POST', '/api/session/visit')).body).toMatchObject({
      teacher: { name: 'Ann' },
      demo: true,
    });
    expect((await visitor.ask('GET', '/api/classes')).status).toBe(200);
    await demo.stop();
  });
  it.each(['/api/classes', '/api/patterns', `/api/takes/${ids.take}`, '/api/anything'])(
    '%s is closed to those who are signed out',
    async (path) => {
      expectError(await new Visitor(server.url).ask('GET', path), 401, 'signed out');
    },
  );
});

describe('answers fit the contract', () => {
  it('a class with its children', async () => {
    const { body } = await ann.ask('GET', `/api/classes/${ids.room}`);
    expect(validator(ClassDetail)(body)).toMatchObject({
      ok: true,
      value: { children: [{ name: 'Ada' }] },
    });
  });
  it('a take with its onsets and result', async () => {
    const { body } = await ann.ask('GET', `/api/takes/${ids.take}`);
    expect(validator(TakeDetail)(body)).toMatchObject({
      ok: true,
      value: { onsets: TAKE.onsets, patternText: TEXT, result: { accuracy: 1, heard: TEXT } },
    });
  });
  it('patterns', async () => {
    const { body } = await ann.ask('GET', '/api/patterns');
    expect((body as unknown[]).every((pattern) => validator(SavedPattern)(pattern).ok)).toBe(true);
  });
  it('health', async () => expect((await ann.ask('GET', '/healthz')).body).toEqual({ ok: true }));
  it('a strict content policy', async () =>
    expect((await ann.ask('GET', '/healthz')).headers.get('content-security-policy')).toContain("default-src 'self'"));
});

describe('takes', () => {
  it('are stored once, however often they are sent', async () => {
    const first = await ann.ask('GET', `/api/takes/${ids.take}`);
    const again = await ann.ask('PUT', `/api/takes/${ids.take}`, { ...TAKE, onsets: [] });
    expect(again.body).toEqual(first.body);
    const all = await Promise.all(Array.from({ length: 6 }, () => ann.ask('PUT', `/api/takes/${ids.take}`, TAKE)));
    expect(all.map(({ status }) => status)).toEqual(Array(6).fill(200));
    expect(await takesIn(ann, ids.room)).toHaveLength(1);
  });
  it('keep the computed mark beside the teacher’s', async () => {
    await ann.ask('PUT', `/api/takes/${ids.take}/override`, { mark: 2, reason: 'helped' });
    expect((await ann.ask('GET', `/api/takes/${ids.take}`)).body).toMatchObject({
      mark: 4,
      override: 2,
      overrideReason: 'helped',
    });
    expect(await takesIn(ann, ids.room)).toMatchObject([{ mark: 4, override: 2 }]);
    expect((await ann.ask('GET', `/api/classes/${ids.room}/records`)).body).toMatchObject({
      marks: [{ best: 2, last: 2, average: 2, takes: 1 }],
    });
    // Another device had not seen that one; the reason that it leaves alone stays.
    const none = { mark: null, reason: '' };
    const unseen = await ann.ask('PUT', `/api/takes/${ids.take}/override`, { mark: 3, reason: '', was: none });
    expect(unseen).toMatchObject({
      status: 409,
      body: { error: { theirs: { mark: 2, reason: 'helped' }, parts: ['mark'] } },
    });
    await ann.ask('PUT', `/api/takes/${ids.take}/override`, { mark: 3, was: { mark: 2 } });
    expect((await ann.ask('GET', `/api/takes/${ids.take}`)).body).toMatchObject({
      override: 3,
      overrideReason: 'helped',
    });
    await ann.ask('PUT', `/api/takes/${ids.take}/override`, { mark: null });
    expect((await ann.ask('GET', `/api/takes/${ids.take}`)).body).toMatchObject({ mark: 4, override: null });
  });
  it('outlive their pattern', async () => {
    const pattern = uuid();
    const take = uuid();
    await ann.ask('PUT', `/api/patterns/${pattern}`, { title: 'Short life', text: 'w' });
    await ann.ask('DELETE', `/api/patterns/${pattern}`);
    expect((await ann.ask('PUT', `/api/takes/${take}`, { ...TAKE, patternId: pattern })).body).toMatchObject({
      patternId: null,
      patternText: TEXT,
    });
    expect((await ann.ask('DELETE', `/api/takes/${take}`)).status).toBe(204);
    expectError(await ann.ask('GET', `/api/takes/${take}`), 404, 'not here');
  });
  it.each([
    ['an unreadable rhythm', { patternText: '4/4 q x' }, 'column 7'],
    ['a measure too long', { patternText: '4/4 q q q q q' }, 'measure 1 is 1 beat too long'],
    ['tempo 0', { bpm: 0 }, 'bpm'],
    ['onsets that are no numbers', { onsets: ['now'] }, 'onsets.0'],
    ['onsets that are not sorted', { onsets: [2, 1] }, 'sorted'],
    ['steps that are not sorted', { feet: [2, 1] }, 'steps must be sorted'],
    ['a release too few', { releases: [1] }, 'every onset needs its release'],
    ['a release before its clap', { releases: [-1, 1.5, 2.2, 2.7, 3.2] }, 'not before it'],
    ['an id that is none', { childId: 'Ada' }, 'childId'],
    ['an unknown field', { colour: 'red' }, 'colour'],
    ['no onsets at all', { onsets: undefined }, 'onsets is missing'],
  ])('refuse %s', async (_what, wrong, word) =>
    expectError(await ann.ask('PUT', `/api/takes/${uuid()}`, { ...TAKE, ...wrong }), 422, word),
  );
  it('refuse 100,000 onsets', async () =>
    expectError(
      await ann.ask('PUT', `/api/takes/${uuid()}`, {
        ...TAKE,
        onsets: Array.from({ length: 100_000 }, (_, i) => i / 100),
      }),
      413,
      'fewer onsets',
    ));
  it('refuse a body of 10 MB', async () =>
    expectError(
      await ann.ask('PUT', `/api/takes/${uuid()}`, { ...TAKE, title: 'x'.repeat(10_000_000) }),
      413,
      'more than can be taken',
    ));
  it('refuse what is no JSON', async () =>
    expectError(await ann.ask('PUT', `/api/takes/${uuid()}`, '{"half'), 400, 'not readable JSON'));
  it('refuse an unknown child', async () =>
    expectError(await ann.ask('PUT', `/api/takes/${uuid()}`, { ...TAKE, childId: uuid() }), 404, 'child'));
});

describe('another teacher', () => {
  it.each([
    ['GET', () => `/api/classes/${ids.room}`, undefined],
    ['PUT', () => `/api/classes/${ids.room}`, CLASS],
    ['DELETE', () => `/api/classes/${ids.room}`, undefined],
    ['PUT', () => `/api/classes/${ids.room}/children/${uuid()}`, { name: 'Eve' }],
    ['PUT', () => `/api/classes/${ids.room}/children/${ids.child}`, { name: 'Eve' }],
    ['DELETE', () => `/api/classes/${ids.room}/children/${ids.child}`, undefined],
    ['PUT', () => `/api/patterns/${ids.pattern}`, { title: 'Mine', text: 'w' }],
    ['DELETE', () => `/api/patterns/${ids.pattern}`, undefined],
    ['GET', () => `/api/takes/${ids.take}`, undefined],
    ['PUT', () => `/api/takes/${ids.take}`, TAKE],
    ['PUT', () => `/api/takes/${uuid()}`, TAKE],
    ['PUT', () => `/api/takes/${ids.take}/override`, { mark: 0 }],
    ['DELETE', () => `/api/takes/${ids.take}`, undefined],
  ] as const)('%s is answered as if there were nothing (%#)', async (method, path, body) => {
    expectError(await ben.ask(method, path(), body), 404, 'not here');
  });
  it('sees only his own lists, and cannot take over an id with a child of his own', async () => {
    expect((await ben.ask('GET', '/api/classes')).body).toEqual([]);
    expect((await ben.ask('GET', '/api/patterns')).body).toEqual([]);
    const room = uuid();
    const child = uuid();
    await ben.ask('PUT', `/api/classes/${room}`, CLASS);
    await ben.ask('PUT', `/api/classes/${room}/children/${child}`, { name: 'Eve' });
    expectError(
      await ben.ask('PUT', `/api/takes/${ids.take}`, { ...TAKE, childId: child, patternId: null }),
      404,
      'take',
    );
    expectError(await ben.ask('PUT', `/api/classes/${room}/children/${ids.child}`, { name: 'Eve' }), 404, 'child');
    expect((await ann.ask('GET', `/api/takes/${ids.take}`)).status).toBe(200);
  });
});

describe('the shelf', () => {
  it('puts patterns into order, into folders and away, and new ones come last', async () => {
    const own = [uuid(), uuid(), uuid()];
    for (const [i, id] of own.entries()) await ben.ask('PUT', `/api/patterns/${id}`, { title: `P${i}`, text: 'w' });
    const patterns = [{ id: own[2] }, { id: own[0], folder: ' Rests ' }, { id: own[1], archived: true }];
    expect((await ben.ask('PUT', '/api/patterns/shelf', { patterns })).status).toBe(204);
    const last = uuid();
    await ben.ask('PUT', `/api/patterns/${last}`, { title: 'P3', text: 'w' });
    expect((await ben.ask('GET', '/api/patterns')).body).toEqual([
      { id: own[2], title: 'P2', text: 'w' },
      { id: own[0], title: 'P0', text: 'w', folder: 'Rests' },
      { id: own[1], title: 'P1', text: 'w', archived: true },
      { id: last, title: 'P3', text: 'w' },
    ]);
    // What is changed stays where it is; nobody else moves it.
    await ben.ask('PUT', `/api/patterns/${own[0]}`, { title: 'New', text: 'w' });
    await ann.ask('PUT', '/api/patterns/shelf', { patterns: [{ id: own[0], archived: true }] });
    expect((await ben.ask('GET', '/api/patterns')).body).toMatchObject([{}, { title: 'New', folder: 'Rests' }, {}, {}]);
    // A folder may come with the pattern; what was changed from without it does not take it out.
    const was = { title: 'P3', text: 'w' };
    await ben.ask('PUT', `/api/patterns/${last}`, { ...was, folder: 'New' });
    await ben.ask('PUT', `/api/patterns/${last}`, { title: 'P4', text: 'w' });
    expect((await ben.ask('GET', '/api/patterns')).body).toMatchObject([{}, {}, {}, { title: 'P4', folder: 'New' }]);
    await ben.ask('PUT', '/api/patterns/shelf', { patterns: [...own, last].map((id) => ({ id })) });
    expect((await ben.ask('GET', '/api/patterns')).body).toMatchObject([...own, last].map((id) => ({ id })));
    expect(JSON.stringify((await ben.ask('GET', '/api/patterns')).body)).not.toMatch(/folder|archived/);
    for (const id of [...own, last]) await ben.ask('DELETE', `/api/patterns/${id}`);
  });
  it('from two devices: what each moved lies where that hand laid it, what both moved stays and is told', async () => {
    const ids = Array.from({ length: 4 }, () => uuid());
    const [a, b, c, d] = ids as [string, string, string, string];
    for (const [i, id] of ids.entries()) await ben.ask('PUT', `/api/patterns/${id}`, { title: `P${i}`, text: 'w' });
    const was = { patterns: ids.map((id) => ({ id })) };
    const put = (patterns: object[]) => ben.ask('PUT', '/api/patterns/shelf', { patterns, was });
    const shelf = async () =>
      ((await ben.ask('GET', '/api/patterns')).body as SavedPattern[]).map(({ id, folder, archived }) =>
        [ids.indexOf(id), folder, archived && 'away'].filter(Boolean).join(' '),
      );
    expect((await put([{ id: d }, { id: a }, { id: b, folder: 'Sea' }, { id: c }])).status).toBe(204);
    expect((await put([{ id: a }, { id: c, archived: true }, { id: b }, { id: d }])).status).toBe(204);
    expect(await shelf()).toEqual(['3', '', '2 away', '1 Sea']);
    const clash = await put([{ id: a }, { id: b, folder: 'Land' }, { id: d }, { id: c }]);
    expect([clash.status, JSON.stringify(clash.body)]).toEqual([409, expect.stringContaining('“P3”, “P1”')]);
    expect(await shelf()).toEqual(['3', '', '2 away', '1 Sea']);
    for (const id of ids) await ben.ask('DELETE', `/api/patterns/${id}`);
  });
  it.each([
    [{ patterns: [] }, 'patterns'],
    [{ patterns: [{ id: 'x' }] }, 'id'],
    [{ patterns: [{ id: uuid(), folder: '  ' }] }, 'folder'],
    [{ patterns: [{ id: uuid(), archived: false }] }, 'archived'],
  ])('%j is refused', async (body, field) => {
    const answer = await ann.ask('PUT', '/api/patterns/shelf', body);
    expect(answer.status).toBe(422);
    expect(JSON.stringify(answer.body)).toContain(field);
  });
});

describe('classes, children and patterns', () => {
  it('keep the words of the house', async () => {
    const room = uuid();
    const own = {
      ...CLASS,
      naming: 'crotchets',
      houseWords: { numbers: { half: 'and' } },
      wordSet: { title: 'Boats', cells: { q: 'tug' } },
    };
    expect((await ann.ask('PUT', `/api/classes/${room}`, own)).status).toBe(201);
    expect((await ann.ask('GET', `/api/classes/${room}`)).body).toMatchObject(own);
    await ann.ask('DELETE', `/api/classes/${room}`);
  });
  it.each([
    ['a name of nothing', { ...CLASS, name: '  ' }, 'name'],
    ['unknown ages', { ...CLASS, ages: '40' }, 'ages must be one of'],
    ['an unknown school', { ...CLASS, school: 'solfa' }, 'school must be one of'],
    ['an empty house word', { ...CLASS, houseWords: { numbers: { half: ' ' } } }, 'a syllable is missing'],
    ['house words of no school', { ...CLASS, houseWords: { solfa: {} } }, 'no way of counting'],
    [
      'a word that does not fit its cell',
      { ...CLASS, wordSet: { title: 'x', cells: { 'e e': 'crab' } } },
      '1 syllable for 2 notes',
    ],
    ['an unknown naming', { ...CLASS, naming: 'latin' }, 'naming must be one of'],
  ])('refuse %s', async (_what, body, word) =>
    expectError(await ann.ask('PUT', `/api/classes/${uuid()}`, body), 422, word),
  );
  it('refuse a path that is no id', async () =>
    expectError(await ann.ask('PUT', '/api/classes/1;drop', CLASS), 404, 'not here'));
  it('refuse a pattern that cannot be read, with its place', async () => {
    const answer = await ann.ask('PUT', `/api/patterns/${uuid()}`, { title: 'x', text: '4/4 q |\n z' });
    expectError(answer, 422, 'line 2, column 2');
    expect(answer.body).toMatchObject({ error: { field: 'text', at: { line: 2, column: 2 } } });
  });
  it('refuse a pattern that does not add up', async () =>
    expectError(
      await ann.ask('PUT', `/api/patterns/${uuid()}`, { title: 'x', text: '4/4 q q q e' }),
      422,
      '1/2 beat short',
    ));
  it.each([
    ['4/4 [clap] q q h [stamp] h q', 'stamp: measure 1 is 1 beat short'],
    ['4/4 [clap] q q h | w [stamp] h h', 'measure'],
    ['4/4 [clap] q q h', 'a second part'],
  ])('refuse parts that do not go together: %s', async (text, word) =>
    expectError(await ann.ask('PUT', `/api/patterns/${uuid()}`, { title: 'x', text }), 422, word),
  );
  it('keep takes of its parts apart, each with the one that was played beside it', async () => {
    const [one, other] = [uuid(), uuid()];
    const part = { ...TAKE, title: 'First · clap', part: 'clap', besideId: other };
    expect((await ann.ask('PUT', `/api/takes/${one}`, part)).body).toMatchObject({ part: 'clap', besideId: other });
    await ann.ask('PUT', `/api/takes/${other}`, { ...TAKE, part: 'stamp', besideId: one });
    const keys = await Promise.all(
      [one, other].map(async (id) => ((await ann.ask('GET', `/api/takes/${id}`)).body as TakeDetail).patternKey),
    );
    expect(keys).toEqual([partKey(TAKE.patternId, 'clap'), partKey(TAKE.patternId, 'stamp')]);
    expect((await ann.ask('GET', `/api/takes/${one}`)).body).toMatchObject({ part: 'clap', besideId: other });
    for (const id of [one, other]) await ann.ask('DELETE', `/api/takes/${id}`);
    expectError(await ann.ask('PUT', `/api/takes/${uuid()}`, { ...TAKE, part: ' ' }), 422, 'part');
    expectError(await ann.ask('PUT', `/api/takes/${uuid()}`, { ...TAKE, besideId: 'x' }), 422, 'besideId');
  });
  it('keep a pattern in parts', async () => {
    const own = uuid();
    const text = '4/4 [clap] q q h | w [stamp]* h h';
    expect((await ann.ask('PUT', `/api/patterns/${own}`, { title: 'Two', text })).status).toBe(201);
    const { body } = await ann.ask('GET', '/api/patterns');
    expect(body).toContainEqual(expect.objectContaining({ id: own, text }));
    await ann.ask('DELETE', `/api/patterns/${own}`);
  });
  it('refuse a child’s name of 100 letters', async () =>
    expectError(
      await ann.ask('PUT', `/api/classes/${ids.room}/children/${uuid()}`, { name: 'x'.repeat(100) }),
      422,
      'name',
    ));
  it('change and go, and every change is seen at once', async () => {
    const room = uuid();
    const child = uuid();
    const read = async () => (await ann.ask('GET', `/api/classes/${room}`)).body as ClassDetail;
    await ann.ask('PUT', `/api/classes/${room}`, CLASS);
    expect((await read()).children).toEqual([]);
    await ann.ask('PUT', `/api/classes/${room}/children/${child}`, { name: ' Una ' });
    expect((await read()).children).toEqual([{ id: child, name: 'Una', adaptations: null, reportLine: '' }]);
    await ann.ask('PUT', `/api/classes/${room}/children/${child}`, { name: 'Uma' });
    await ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, name: 'Terns', school: 'ta' });
    expect(await read()).toMatchObject({ name: 'Terns', school: 'ta', children: [{ name: 'Uma' }] });
    await ann.ask('PUT', `/api/takes/${uuid()}`, { ...TAKE, childId: child });
    expect(await takesIn(ann, room)).toHaveLength(1);
    await ann.ask('DELETE', `/api/classes/${room}/children/${child}`);
    expect(await read()).toMatchObject({ children: [] });
    await ann.ask('DELETE', `/api/classes/${room}`);
    expectError(await ann.ask('GET', `/api/classes/${room}`), 404, 'class');
  });
  it('answers 304 while nothing has changed', async () => {
    const { headers } = await ann.ask('GET', `/api/classes/${ids.room}`);
    expect(
      (
        await ann.ask('GET', `/api/classes/${ids.room}`, undefined, {
          'if-none-match': headers.get('etag')!,
          'cache-control': 'max-age=0',
        })
      ).status,
    ).toBe(304);
  });
});

/** What one device changed stays, and where another changed the same both are told of. */
async function putTogether(path: string, was: object, one: object, other: object, same: object): Promise<void> {
  await ann.ask('PUT', path, was);
  await ann.ask('PUT', path, { ...was, ...one, was });
  const { status, body } = await ann.ask('PUT', path, { ...was, ...other, was });
  expect([status, body]).toMatchObject([200, { ...one, ...other }]);
  const clash = await ann.ask('PUT', path, { ...was, ...same, was });
  expect(clash.status).toBe(409);
  expect(clash.body).toMatchObject({ error: { theirs: { ...one, ...other }, parts: Object.keys(same) } });
  await ann.ask('DELETE', path);
}

describe('plans', () => {
  const PLAN = {
    title: 'Slow',
    passes: [{ activity: 'say', who: 'together' }],
    chunks: { kind: 'joined', by: 2 },
    ladder: [{ bpm: 60, passes: 2, factor: 0.5 }],
    restBeats: 0,
    countIn: 'measure',
    countInEach: true,
    divided: false,
    twoLines: false,
  };
  it('are kept, changed and removed by their teacher, and seen by no one else', async () => {
    const path = `/api/plans/${uuid()}`;
    expect((await ann.ask('PUT', path, PLAN)).status).toBe(201);
    expect((await ann.ask('PUT', path, { ...PLAN, title: 'Slower' })).status).toBe(200);
    expect((await ann.ask('GET', '/api/plans')).body).toEqual([
      { id: path.split('/').at(-1), ...PLAN, title: 'Slower' },
    ]);
    expect((await ben.ask('GET', '/api/plans')).body).toEqual([]);
    expectError(await ben.ask('PUT', path, PLAN), 404, 'plan');
    expectError(await ben.ask('DELETE', path), 404, 'plan');
    expect((await ann.ask('DELETE', path)).status).toBe(204);
    expectError(await ann.ask('DELETE', path), 404, 'plan');
  });
  it('that two devices changed are put together', () =>
    putTogether(`/api/plans/${uuid()}`, PLAN, { title: 'Slower' }, { restBeats: 4 }, { title: 'Slowest' }));
  it.each([
    [{ title: ' ' }, 'title'],
    [{ passes: [] }, 'passes'],
    [{ passes: [{ activity: 'sing', who: 'together' }] }, 'activity'],
    [{ ladder: [{ bpm: 0, passes: 1 }] }, 'bpm'],
    [{ ladder: [{ bpm: 60, passes: 1, factor: 3 }] }, 'factor'],
    [{ restBeats: -1 }, 'restBeats'],
    [{ chunks: { kind: 'joined' } }, 'chunks'],
    [{ extra: 1 }, 'extra'],
  ])('refuse %j', async (change, word) =>
    expectError(await ann.ask('PUT', `/api/plans/${uuid()}`, { ...PLAN, ...change }), 422, word),
  );
});

describe('sheets', () => {
  const SHEET = {
    title: 'Week 7',
    seed: 4821,
    paper: 'a4',
    large: false,
    versions: true,
    bpm: 72,
    parts: [
      { key: 0, kind: 'counts', count: 4, level: 2, elements: ['quarter', 'half'], meter: '3/4' },
      { key: 1, kind: 'cards', count: 8, level: 1, cards: 'cells', patterns: ['4/4 q q h'] },
    ],
    classId: null,
    names: false,
    counts: {
      school: 'ta',
      rests: 'sh',
      houseWords: { quarter: 'taa' },
      wordSet: { title: 'Boats', cells: { q: 'tug' } },
    },
    naming: 'crotchets',
  };
  const part = (change: object) => ({ parts: [{ ...SHEET.parts[0], ...change }] });
  it('are kept, changed and removed by their teacher, and seen by no one else', async () => {
    const [first, second] = [uuid(), uuid()].map((id) => `/api/sheets/${id}`);
    expect((await ann.ask('PUT', first!, SHEET)).status).toBe(201);
    expect((await ann.ask('PUT', second!, { ...SHEET, title: 'Week 8' })).status).toBe(201);
    await new Promise((resolve) => setTimeout(resolve, 5));
    expect((await ann.ask('PUT', first!, { ...SHEET, large: true })).status).toBe(200);
    // The last changed stands first.
    expect((await ann.ask('GET', '/api/sheets')).body).toEqual([
      { id: first!.split('/').at(-1), ...SHEET, large: true },
      { id: second!.split('/').at(-1), ...SHEET, title: 'Week 8' },
    ]);
    expect((await ben.ask('GET', '/api/sheets')).body).toEqual([]);
    expectError(await ben.ask('PUT', first!, SHEET), 404, 'sheet');
    expectError(await ben.ask('DELETE', first!), 404, 'sheet');
    for (const path of [first!, second!]) expect((await ann.ask('DELETE', path)).status).toBe(204);
    expectError(await ann.ask('DELETE', first!), 404, 'sheet');
  });
  it('that two devices changed are put together', () =>
    putTogether(`/api/sheets/${uuid()}`, SHEET, { large: true }, { title: 'Week 9' }, { title: 'Week 10' }));
  it.each([
    [{ title: '' }, 'title'],
    [{ seed: -1 }, 'seed'],
    [{ paper: 'a3' }, 'paper'],
    [{ bpm: 0 }, 'bpm'],
    [{ parts: [] }, 'parts'],
    [part({ kind: 'poem' }), 'kind'],
    [part({ level: 6 }), 'level'],
    [part({ count: 61 }), 'count'],
    [part({ elements: ['quaver'] }), 'elements'],
    [part({ meter: '0/4' }), 'meter'],
    [part({ patterns: ['4/4 x'] }), 'column'],
    [{ counts: { school: 'none' } }, 'school'],
    [{ naming: 'x' }, 'naming'],
    [{ classId: 'x' }, 'classId'],
    [{ extra: 1 }, 'extra'],
  ])('refuse %j', async (change, word) =>
    expectError(await ann.ask('PUT', `/api/sheets/${uuid()}`, { ...SHEET, ...change }), 422, word),
  );
});

describe('judging as the teacher sets it', () => {
  const room = uuid();
  const child = uuid();
  const late = uuid();
  // The third clap comes 70 ms late: right at nine, too late for musicians.
  const LATE = {
    ...TAKE,
    childId: child,
    patternId: null,
    patternText: '4/4 q q q q | q q q q',
    onsets: [0, 1, 2.07, 3, 4, 5, 6, 7],
  };
  const accuracy = async () => ((await ann.ask('GET', `/api/takes/${late}`)).body as { accuracy: number }).accuracy;
  beforeAll(async () => {
    await ann.ask('PUT', `/api/classes/${room}`, CLASS);
    await ann.ask('PUT', `/api/classes/${room}/children/${child}`, { name: 'Kim' });
    expect((await ann.ask('PUT', `/api/takes/${late}`, LATE)).status).toBe(200);
  });
  it('is tried out before it is saved', async () => {
    const { status, body } = await ann.ask('POST', `/api/classes/${room}/judging-preview`, {
      ages: '9-10',
      onTimeMs: 40,
      borders: null,
    });
    expect([status, body]).toMatchObject([200, { takes: 1, changed: 1, lower: 1 }]);
    expect(await accuracy()).toBe(1);
    expectError(
      await ben.ask('POST', `/api/classes/${room}/judging-preview`, { ages: '9-10', onTimeMs: 40, borders: null }),
      404,
      'class',
    );
  });
  it('counts the click too where the class says so', async () => {
    const slow = uuid();
    await ann.ask('PUT', `/api/takes/${slow}`, { ...LATE, onsets: LATE.onsets.map((time) => 2 * time) });
    const mark = async () => ((await ann.ask('GET', `/api/takes/${slow}`)).body as { mark: number }).mark;
    const before = await mark();
    await ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, clickCounts: true });
    expect(await mark()).toBe(before - 1);
    await ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, clickCounts: false });
    expect(await mark()).toBe(before);
    await ann.ask('DELETE', `/api/takes/${slow}`);
  });
  it('judges every take anew when it is saved, and keeps the teacher’s marks', async () => {
    await ann.ask('PUT', `/api/takes/${late}/override`, { mark: 2, reason: 'tried hard' });
    expect((await ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, onTimeMs: 40 })).status).toBe(200);
    expect(await accuracy()).toBeCloseTo(7.5 / 8, 3);
    expect((await ann.ask('GET', `/api/takes/${late}`)).body).toMatchObject({
      mark: 3,
      override: 2,
      overrideReason: 'tried hard',
    });
    await ann.ask('PUT', `/api/classes/${room}`, {
      ...CLASS,
      ...JUDGED_ALIKE,
      borders: [
        { mark: 4, accuracy: 0.9 },
        { mark: 2, accuracy: 0.5 },
      ],
    });
    expect((await ann.ask('GET', `/api/takes/${late}`)).body).toMatchObject({ mark: 4, accuracy: 1 });
  });
  it.each([
    [{ onTimeMs: 0 }, 'onTimeMs'],
    [{ onTimeMs: 'wide' }, 'onTimeMs'],
    [{ clickCounts: 'yes' }, 'clickCounts'],
    [
      {
        borders: [
          { mark: 4, accuracy: 0.5 },
          { mark: 3, accuracy: 0.9 },
        ],
      },
      'lower border',
    ],
    [{ borders: [{ mark: 7, accuracy: 0.5 }] }, 'mark'],
    [{ recordingDays: 0 }, 'recordingDays'],
  ])('refuses %j', async (change, word) =>
    expectError(await ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, ...change }), 422, word),
  );
  it('judges claps that were put right by hand, and says so', async () => {
    const onsets = LATE.onsets.filter((time) => time !== 5);
    expect((await ann.ask('PUT', `/api/takes/${late}/onsets`, { onsets })).body).toMatchObject({
      corrected: true,
      accuracy: 7 / 8,
      override: 2,
    });
    expectError(await ben.ask('PUT', `/api/takes/${late}/onsets`, { onsets }), 404, 'take');
    expectError(await ann.ask('PUT', `/api/takes/${late}/onsets`, { onsets: ['x'] }), 422, 'onsets');
  });
  it('keeps steps and releases, and judges them again with corrected claps', async () => {
    const take = uuid();
    const path = `/api/takes/${take}`;
    const held = { ...LATE, patternText: '4/4 h h', onsets: [0, 2], feet: [0, 1, 2, 3], releases: [1.9, 2.5] };
    expect((await ann.ask('PUT', path, held)).body).toMatchObject({
      feet: [0, 1, 2, 3],
      releases: [1.9, 2.5],
      result: { feet: { onBeat: 4, beats: 4 }, holds: [{ verdict: 'kept' }, { verdict: 'cut' }] },
    });
    const { body } = await ann.ask('PUT', `${path}/onsets`, { onsets: [0, 2, 3] });
    expect(body).toMatchObject({
      onsets: [0, 2, 3],
      releases: [1.9, 2.5, null],
      result: { feet: { onBeat: 4 }, holds: [{ verdict: 'kept' }, { verdict: 'cut' }] },
    });
    expect((await ann.ask('GET', `/api/takes/${late}`)).body).toMatchObject({ feet: null, releases: null });
    await ann.ask('DELETE', path);
  });
  it('says what a child knows, to its own teacher', async () => {
    const path = `/api/classes/${room}/children/${child}/mastery`;
    expect((await ann.ask('GET', path)).body).toMatchObject([{ element: 'quarter', heard: 2 }]);
    expectError(await ben.ask('GET', path), 404, 'child');
    expectError(await ann.ask('GET', `/api/classes/${ids.room}/children/${child}/mastery`), 404, 'child');
  });
  it('judges a free take without its start', async () => {
    const id = uuid();
    const free = await ann.ask('PUT', `/api/takes/${id}`, {
      ...LATE,
      free: true,
      source: 'recording',
      onsets: [0, 1, 2, 3, 4, 5, 6, 7].map((beat) => 3 + beat * 0.8),
    });
    expect(free.body).toMatchObject({ free: true, source: 'recording', accuracy: 1, result: { withBeat: null } });
  });
  it('keeps a recording only where the class does, until its date, and for its teacher alone', async () => {
    const path = `/api/takes/${late}/recording`;
    const sound = { 'content-type': 'audio/webm' };
    expectError(await ann.send('PUT', path, Buffer.from('clap'), sound), 403, 'keeps no recordings');
    await ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, recordingDays: 7 });
    expect((await ann.send('PUT', path, Buffer.from('clap'), sound)).status).toBe(204);
    const until = ((await ann.ask('GET', `/api/takes/${late}`)).body as { recordingUntil: number }).recordingUntil;
    expect(Math.abs(until - Date.now() - 7 * 24 * 3600 * 1000)).toBeLessThan(60_000);
    expectError(await ben.ask('GET', path), 404, 'take');
    expectError(await ann.send('PUT', path, Buffer.alloc(31_500_000), sound), 413, '30 MB');
    const { db, pool } = openDatabase(databaseUrl, { connections: 1 });
    await removeExpired(db, until - 1);
    expect((await fetch(server.url + path, { headers: ann.headers })).status).toBe(200);
    await removeExpired(db, until);
    await pool.end();
    expectError(await ann.ask('GET', path), 404, 'recording');
    expect((await ann.ask('GET', `/api/takes/${late}`)).body).toMatchObject({ recordingUntil: null });
  });
});
