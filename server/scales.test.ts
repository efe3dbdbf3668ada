import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LineUp } from '../contract/lineUp.ts';
import type { ClassRecords } from '../contract/records.ts';
import type { ClassDetail } from '../contract/schoolClass.ts';
import type { TakeDetail } from '../contract/take.ts';
import type { TermDetail } from '../contract/term.ts';
import { type Scale, markLabel, scaleOf } from '../core/judging/scale.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null };
const TEXT = '4/4 q q e e q | h (q) q';
const RIGHT = [0, 1, 2, 2.5, 3, 4, 7];
/** Six of seven: .857. */
const NEARLY = RIGHT.slice(0, -1);

let server: RunningServer;
let ann: Visitor;

beforeAll(async () => {
  server = await serverWithTeachers(await freshDatabase());
  ann = new Visitor(server.url);
  await ann.signIn('Ann');
});
afterAll(() => server.stop());

async function room(change: object = {}) {
  const [id, ada, bo] = [uuid(), uuid(), uuid()];
  const path = `/api/classes/${id}`;
  await ann.ask('PUT', path, { ...CLASS, ...change });
  await ann.ask('PUT', `${path}/children/${ada}`, { name: 'Ada' });
  await ann.ask('PUT', `${path}/children/${bo}`, { name: 'Bo' });
  const get = async <T>(rest: string) => (await ann.ask('GET', `${path}${rest}`)).body as T;
  return {
    id,
    path,
    ada,
    bo,
    get,
    /** Changes the scale and waits until all marks are worked out anew. */
    rescale: async (scale: unknown, more: object = {}) => {
      const { status } = await ann.ask('PUT', path, { ...CLASS, ...change, scale, ...more });
      await expect.poll(() => get(`/rejudging`), { timeout: 20_000 }).toEqual({ running: false });
      return status;
    },
    scale: async () => scaleOf(await get<ClassDetail>('')),
  };
}

async function hear(childId: string, onsets: readonly number[], change: object = {}) {
  const id = uuid();
  const take = { childId, patternId: null, title: 'First', patternText: TEXT, bpm: 60, onsets, takenAt: Date.now() };
  expect((await ann.ask('PUT', `/api/takes/${id}`, { ...take, ...change })).status).toBe(200);
  return id;
}
const takeOf = async (id: string) => (await ann.ask('GET', `/api/takes/${id}`)).body as TakeDetail;
const give = (id: string, mark: number | null) => ann.ask('PUT', `/api/takes/${id}/override`, { mark });
const labels = (scale: Scale, ...marks: (number | null)[]) =>
  marks.map((mark) => (mark === null ? null : markLabel(mark, scale)));

describe('a class with another scale', () => {
  it('judges its takes anew in it, and says the same in the grid', async () => {
    const { ada, bo, get, rescale } = await room();
    const [right, nearly, silent] = [
      await hear(ada, RIGHT),
      await hear(bo, NEARLY),
      await hear(bo, [], { title: 'x' }),
    ];
    for (const [scale, ...expected] of [
      ['6-1', '1', '2', '6'],
      ['A-D,F', 'A', 'B', 'F'],
      ['percent', '100 %', '85 %', '0 %'],
      [['Starting', 'On the way', 'Secure'], 'Secure', 'On the way', 'Starting'],
      ['0-10', '10', '8', '0'],
      [null, '4', '3', '0'],
    ] as const) {
      await rescale(scale);
      const own = scaleOf({ scale });
      const marks = await Promise.all([right, nearly, silent].map(async (id) => (await takeOf(id)).mark));
      expect(labels(own, ...marks)).toEqual(expected);
      const { marks: grid } = await get<ClassRecords>('/records');
      expect(labels(own, ...grid.map(({ last }) => last)).sort()).toEqual([expected[0], expected[2]].sort());
    }
  });
  it('keeps a mark by hand at the nearest step, says how it was given, and brings it back', async () => {
    const { ada, rescale } = await room({ scale: '0-10' });
    const take = await hear(ada, RIGHT);
    await give(take, 7);
    await rescale('0-4');
    expect(await takeOf(take)).toMatchObject({ override: 3, given: { mark: 7, scale: '0-10' } });
    await rescale('A-F');
    expect(await takeOf(take)).toMatchObject({ override: 4, given: { mark: 7, scale: '0-10' } });
    await rescale('0-10');
    expect(await takeOf(take)).toMatchObject({ override: 7, given: null });
    await rescale(['low', 'mid', 'high']);
    expect(await takeOf(take)).toMatchObject({ override: 1, given: { mark: 7, scale: '0-10' } });
    // Given anew it is of now.
    await give(take, 2);
    expect(await takeOf(take)).toMatchObject({ override: 2, given: null });
  });
  it('refuses marks, borders and words that it has not', async () => {
    const { ada, path } = await room({ scale: '6-1' });
    const take = await hear(ada, RIGHT);
    expect((await give(take, 6)).status).toBe(422);
    expect((await give(take, 5)).status).toBe(200);
    for (const change of [
      { scale: '6-1', borders: [{ mark: 6, accuracy: 0.9 }] },
      { scale: ['a', 'A ', 'b'] },
      { scale: ['a', 'b'] },
      { scale: '1-6' },
      {
        scale: 'percent',
        borders: [
          { mark: 50, accuracy: 0.5 },
          { mark: 60, accuracy: 0.4 },
        ],
      },
    ]) {
      expect((await ann.ask('PUT', path, { ...CLASS, ...change })).status, JSON.stringify(change)).toBe(422);
      const {
        name: _name,
        school: _school,
        rests: _rests,
        ...judging
      } = { ...CLASS, onTimeMs: null, borders: null, ...change };
      expect((await ann.ask('POST', `${path}/judging-preview`, judging)).status).toBe(422);
    }
  });
  it('refuses borders of a scale that another device has changed meanwhile', async () => {
    const { path } = await room();
    const was = { ...CLASS, scale: null, borders: null };
    await ann.ask('PUT', path, { ...CLASS, scale: ['low', 'mid', 'high'], borders: null, was });
    const late = await ann.ask('PUT', path, { ...CLASS, scale: null, borders: [{ mark: 4, accuracy: 0.9 }], was });
    expect(late.status).toBe(422);
  });
  it('is tried before it is saved: what there is now is carried into it', async () => {
    const { ada, bo, path } = await room();
    await hear(ada, RIGHT);
    await hear(bo, NEARLY);
    const trial = { ages: '9-10', onTimeMs: null, borders: null, scale: '6-1' };
    const { body } = await ann.ask('POST', `${path}/judging-preview`, trial);
    expect(body).toMatchObject({ takes: 2, changed: 0 });
    const rows = (body as { marks: { mark: number; now: number; then: number }[] }).marks;
    expect(rows.map(({ mark, now, then }) => [markLabel(mark, '6-1'), now, then])).toEqual([
      ['1', 1, 1],
      ['2', 1, 1],
      ['3', 0, 0],
      ['4', 0, 0],
      ['5', 0, 0],
      ['6', 0, 0],
    ]);
  });
  it('breaking off brings the marks by hand back too', async () => {
    const { ada, path, get, rescale, scale } = await room();
    const take = await hear(ada, RIGHT);
    await give(take, 1);
    await rescale('0-10');
    expect((await takeOf(take)).override).toBe(3);
    await rescale(null);
    expect([(await takeOf(take)).override, await scale()]).toEqual([1, '0-4']);
    await ann.ask('PUT', path, { ...CLASS, scale: 'percent' });
    await ann.ask('DELETE', `${path}/rejudging`);
    await expect.poll(() => get('/rejudging'), { timeout: 20_000 }).toEqual({ running: false });
    // Done already, or broken off: the mark is what its scale says.
    const now = await scale();
    expect((await takeOf(take)).override).toBe(now === 'percent' ? 25 : 1);
  });
});

describe('a line-up and its column', () => {
  const start = async (path: string, childIds: readonly string[]) => {
    const [lineUp, pattern] = [uuid(), uuid()];
    const settings = {
      patternIds: [pattern],
      seed: 1,
      bpm: 60,
      heardBy: 'tap',
      tries: 1,
      order: 'list',
      startsItself: false,
    };
    const turns = childIds.map((childId) => ({ childId, patternId: pattern }));
    const body = { title: 'Tides', settings, startedAt: Date.now(), turns };
    expect((await ann.ask('PUT', `${path}/line-ups/${lineUp}`, body)).status).toBe(201);
    return `${path}/line-ups/${lineUp}`;
  };
  const turnOf = async (path: string, childId: string) =>
    ((await ann.ask('GET', `${path}/line-ups`)).body as LineUp[])[0]!.turns.find((turn) => turn.childId === childId)!;

  it('are in the scale of the class, and go on in their own where that changes', async () => {
    const { path, ada, bo, get, rescale } = await room({ scale: 'A-D,F' });
    const line = await start(path, [ada, bo]);
    expect((await ann.ask('PUT', `${line}/turns/${ada}`, { state: 'heard', mark: 5 })).status).toBe(422);
    await ann.ask('PUT', `${line}/turns/${ada}`, { state: 'heard', mark: 3 });
    const column = async () => (await get<ClassRecords>('/records')).paper[0]!;
    expect(await column()).toMatchObject({ outOf: 4, scale: 'A-D,F', points: [{ child: 0, points: 3 }] });
    await rescale('6-1');
    // What was given in letters stays so in its column; the line-up itself goes on in the new ones.
    expect([(await turnOf(path, ada)).mark, (await column()).scale]).toEqual([4, 'A-D,F']);
    await ann.ask('PUT', `${line}/turns/${bo}`, { state: 'heard', mark: 5 });
    expect(new Set((await column()).points)).toEqual(
      new Set([
        { child: 0, points: 3 },
        { child: 1, points: 4 },
      ]),
    );
    // Changed in the column it is changed in the line-up.
    const { id, title, outOf, scale, takenAt } = await column();
    await ann.ask('PUT', `${path}/paper/${id}`, { title, outOf, scale, takenAt, points: { [ada]: 0 } });
    expect((await turnOf(path, ada)).mark).toBe(0);
  });
  it('a column of marks takes steps of its scale only', async () => {
    const { path, ada } = await room();
    const put = async (change: object) =>
      (
        await ann.ask('PUT', `${path}/paper/${uuid()}`, {
          title: 'Quiz',
          outOf: 5,
          takenAt: 1,
          scale: '6-1',
          points: { [ada]: 3 },
          ...change,
        })
      ).status;
    expect(await put({})).toBe(201);
    expect([
      await put({ outOf: 6 }),
      await put({ points: { [ada]: 2.5 } }),
      await put({ points: { [ada]: 6 } }),
    ]).toEqual([422, 422, 422]);
    expect(await put({ scale: ['a', 'a', 'b'], outOf: 2 })).toBe(422);
  });
  it('a clash that waits is carried too', async () => {
    const { path, ada, rescale } = await room();
    const line = await start(path, [ada]);
    const seen = { state: 'waiting', mark: null };
    await ann.ask('PUT', `${line}/turns/${ada}`, { state: 'heard', mark: 4, seen });
    await ann.ask('PUT', `${line}/turns/${ada}`, { state: 'heard', mark: 2, seen });
    expect(await turnOf(path, ada)).toMatchObject({ mark: 4, clash: { state: 'heard', mark: 2 } });
    await rescale('0-10');
    expect(await turnOf(path, ada)).toMatchObject({ mark: 10, clash: { state: 'heard', mark: 5 } });
  });
});

describe('what was given stays', () => {
  it('in a closed term, also for a take that arrives late', async () => {
    const { path, ada, get, rescale } = await room({ scale: 'A-D,F' });
    const before = Date.now() - 60_000;
    await hear(ada, NEARLY, { takenAt: before });
    const term = uuid();
    await ann.ask('PUT', `${path}/terms/${term}`, { title: 'Autumn' });
    await rescale('0-10');
    const detail = () => get<TermDetail>(`/terms/${term}`);
    expect(await detail()).toMatchObject({ scale: 'A-D,F', records: { marks: [{ last: 3 }] } });
    await hear(ada, RIGHT, { takenAt: before + 5 });
    expect((await detail()).records.marks).toMatchObject([{ takes: 2, last: 4, best: 4 }]);
  });
  it('where a child goes into a class with another scale', async () => {
    const from = await room({ scale: '6-1' });
    const to = await room({ name: 'Terns' });
    const [computed, own] = [await hear(from.ada, NEARLY), await hear(from.ada, RIGHT)];
    await give(own, 2);
    await ann.ask('POST', `${from.path}/moves`, { to: to.id, children: [from.ada] });
    expect(await takeOf(computed)).toMatchObject({ mark: 3, given: { mark: 4, scale: '6-1' }, result: { mark: 3 } });
    expect(await takeOf(own)).toMatchObject({ override: 2, given: { mark: 2, scale: '6-1' } });
    expect((await to.get<ClassRecords>('/records')).marks).toMatchObject([{ takes: 2, best: 3, last: 2 }]);
  });
  it('and is in the file of a class', async () => {
    const { id, ada, rescale } = await room({ scale: '0-10' });
    await give(await hear(ada, RIGHT), 7);
    await rescale('6-1');
    const { body } = await ann.ask('GET', `/api/classes/${id}/copy`);
    expect(body).toMatchObject({
      settings: { scale: '6-1' },
      takes: [{ override: 4, given: { mark: 7, scale: '0-10' } }],
    });
  });
});

describe('the teacher’s own line in a report', () => {
  it('stays with the child until it is changed, and is merged like the rest', async () => {
    const { path, ada, get } = await room();
    const child = `${path}/children/${ada}`;
    const lineNow = async () => (await get<ClassDetail>('')).children.find(({ id }) => id === ada)!.reportLine;
    expect(await lineNow()).toBe('');
    await ann.ask('PUT', child, { name: 'Ada', reportLine: 'Ada helps the others.' });
    await ann.ask('PUT', child, { name: 'Adah' });
    expect(await lineNow()).toBe('Ada helps the others.');
    const was = { name: 'Adah', reportLine: '' };
    const late = await ann.ask('PUT', child, { name: 'Adah', reportLine: 'Well done.', was });
    expect([late.status, late.body]).toMatchObject([409, { error: { parts: ['reportLine'] } }]);
    expect((await ann.ask('PUT', child, { name: 'Ada', reportLine: 'x'.repeat(301) })).status).toBe(422);
    const copy = (await ann.ask('GET', `${path}/copy`)).body as { children: object[] };
    expect(copy.children).toContainEqual({
      id: ada,
      name: 'Adah',
      adaptations: null,
      reportLine: 'Ada helps the others.',
    });
  });
});
