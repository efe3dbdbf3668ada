import { eq } from 'drizzle-orm';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Bin } from '../contract/bin.ts';
import { type LineUp, LineUps, type NewLineUp } from '../contract/lineUp.ts';
import { ClassRecords, ElementPlaces, TakesPage } from '../contract/records.ts';
import { validator } from '../contract/validate.ts';
import { randomFrom } from '../core/random.ts';
import { openDatabase } from './database.ts';
import { rebuildRecords } from './repository/childRecords.ts';
import { childElements, childPatterns, children, classes, takes } from './schema.ts';
import { FIRST_SCHOOL } from '../contract/school.ts';
import { emptyBin } from './services/bin.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers, takesIn } from './testServer.test-helper.ts';

const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null };
const TEXT = '4/4 q q e e q | h (q) q';
const RIGHT = [0, 1, 2, 2.5, 3, 4, 7];
const DAY = 86_400_000;

let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
let ben: Visitor;

beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 4 });
  [ann, ben] = [new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

async function room(names: readonly string[] = ['Ada']) {
  const id = uuid();
  await ann.ask('PUT', `/api/classes/${id}`, CLASS);
  const ids = names.map(() => uuid());
  for (const [i, name] of names.entries()) await ann.ask('PUT', `/api/classes/${id}/children/${ids[i]}`, { name });
  return { id, path: `/api/classes/${id}`, ids, child: ids[0]! };
}

async function hear(childId: string, change: object = {}) {
  const id = uuid();
  const take = { childId, patternId: null, title: 'First', patternText: TEXT, bpm: 60, onsets: RIGHT, takenAt: 5 };
  expect((await ann.ask('PUT', `/api/takes/${id}`, { ...take, ...change })).status).toBe(200);
  return id;
}
const recordsOf = async (path: string) => {
  const { body } = await ann.ask('GET', `${path}/records`);
  expect(validator(ClassRecords)(body)).toMatchObject({ ok: true });
  return body as ClassRecords;
};

describe('the records of a child', () => {
  const rows = async (childId: string) => {
    const elements = await open.db.select().from(childElements).where(eq(childElements.childId, childId));
    const patterns = await open.db.select().from(childPatterns).where(eq(childPatterns.childId, childId));
    const near = (value: number) => Math.round(value * 1e6) / 1e6;
    return {
      elements: elements
        .map(({ element, right, weight, ...row }) => ({ element, ...row, right: near(right), weight: near(weight) }))
        .sort((a, b) => (a.element < b.element ? -1 : 1)),
      patterns: patterns.sort((a, b) => (a.patternKey < b.patternKey ? -1 : 1)),
    };
  };

  it('go on with each take, and are what all takes together make', async () => {
    const { child } = await room();
    const random = randomFrom(7);
    const stored: string[] = [];
    for (let i = 0; i < 30; i++) {
      const what = random.below(stored.length > 3 ? 9 : 5);
      const one = stored[random.below(Math.max(1, stored.length))]!;
      if (what < 6)
        stored.push(
          await hear(child, {
            takenAt: random.below(60) * DAY + i,
            patternText: random.pick([TEXT, '4/4 q. e h', '6/8 q e q.']),
            onsets: random.pick([RIGHT, [0, 1.5, 2], [0, 1], []]),
          }),
        );
      else if (what === 6) await ann.ask('PUT', `/api/takes/${one}/override`, { mark: random.below(5) });
      else if (what === 7) await ann.ask('PUT', `/api/takes/${one}/onsets`, { onsets: random.pick([RIGHT, [0, 1]]) });
      else {
        await ann.ask('DELETE', `/api/takes/${one}`);
        stored.splice(stored.indexOf(one), 1);
      }
      const kept = await rows(child);
      await rebuildRecords(open.db, child);
      expect(kept).toEqual(await rows(child));
    }
    expect((await rows(child)).elements.length).toBeGreaterThan(3);
  });

  it('many takes at once are all in them', async () => {
    const { path, child } = await room();
    await Promise.all(Array.from({ length: 12 }, (_, i) => hear(child, { takenAt: (i % 4) * DAY })));
    const { marks, elements } = await recordsOf(path);
    expect(marks).toEqual([{ child: 0, pattern: 0, takes: 12, best: 4, last: 4, average: 4 }]);
    expect(elements.find(({ element }) => element === 'quarter')).toMatchObject({ heard: 24, right: 1, state: 'due' });
  });

  it('best, last and average count a teacher’s own mark', async () => {
    const { path, child } = await room();
    const [first, second] = [await hear(child, { takenAt: 1 }), await hear(child, { takenAt: 2, onsets: [0] })];
    expect((await recordsOf(path)).marks).toMatchObject([{ best: 4, last: 1, average: 2.5 }]);
    await ann.ask('PUT', `/api/takes/${second}/override`, { mark: 3 });
    await ann.ask('PUT', `/api/takes/${first}/override`, { mark: 0 });
    expect((await recordsOf(path)).marks).toMatchObject([{ best: 3, last: 3, average: 1.5 }]);
  });

  it('what was misread lately is counted by children', async () => {
    const { path, child } = await room();
    const second = uuid();
    await ann.ask('PUT', `${path}/children/${second}`, { name: 'Bo' });
    const [patternText, now] = ['4/4 q (q) q q | q (q) h', Date.now()];
    const skipped = { patternText, onsets: [0, 1, 2, 3, 4], takenAt: now - DAY };
    for (const id of [child, child, second]) await hear(id, skipped);
    await hear(second, { patternText: '4/4 h h | q q h', onsets: [0, 1, 2, 3, 4, 5, 6, 7], takenAt: now - 40 * DAY });
    await hear(second, { takenAt: now });
    const { body, status } = await ann.ask('GET', `${path}/misread`);
    expect(status).toBe(200);
    expect(body).toContainEqual({ code: 'rest-skipped', children: 2 });
    expect(JSON.stringify(body)).not.toContain('hold-pulsed');
    expect((await ben.ask('GET', `${path}/misread`)).status).toBe(404);
    expect((await ann.ask('GET', '/api/classes/no/misread')).status).toBe(404);
  });

  it('takes come page by page, each once, also of one pattern', async () => {
    const { path, child } = await room();
    // Some at the same moment, so that the place must name the take too.
    for (let i = 0; i < 120; i++) await hear(child, { takenAt: Math.floor(i / 3), title: i % 2 ? 'odd' : 'even' });
    const own = (await takesIn(ann, path.split('/').at(-1)!)).map(({ id }) => id);
    expect(new Set(own).size).toBe(120);
    const first = await ann.ask('GET', `${path}/children/${child}/takes`);
    expect(validator(TakesPage)(first.body)).toMatchObject({ ok: true });
    expect((first.body as TakesPage).takes.length).toBeLessThan(120);
    const none = await ann.ask('GET', `${path}/children/${child}/takes?pattern=none`);
    expect(none.body).toEqual({ takes: [], next: null });
    expect((await ann.ask('GET', `${path}/children/${child}/takes?after=x`)).status).toBe(422);
    expect((await ben.ask('GET', `${path}/children/${child}/takes`)).status).toBe(404);
  });

  it('what is made easier widens the windows, and judges anew; an exempt element is left out', async () => {
    const { path, child } = await room();
    const late = RIGHT.map((time, i) => time + (i % 2 ? 0.2 : 0));
    const id = await hear(child, { onsets: late });
    const mark = async () => ((await ann.ask('GET', `/api/takes/${id}`)).body as { accuracy: number }).accuracy;
    const before = await mark();
    const eased = { name: 'Ada', adaptations: { wider: 2, exempt: ['half', 'quarter-rest'] } };
    expect((await ann.ask('PUT', `${path}/children/${child}`, eased)).body).toEqual({
      id: child,
      ...eased,
      reportLine: '',
    });
    for (let i = 0; i < 100 && (await mark()) === before; i++) await new Promise((resolve) => setTimeout(resolve, 50));
    expect(await mark()).toBeGreaterThan(before);
    expect((await recordsOf(path)).elements.map(({ element }) => element)).toEqual(['quarter', 'eighth-pair']);
    const { body } = await ann.ask('GET', `${path}/children/${child}/mastery`);
    expect((body as { element: string }[]).map(({ element }) => element)).toEqual(['quarter', 'eighth-pair']);
    await ann.ask('PUT', `${path}/children/${child}`, { name: 'Ida' });
    expect((await ann.ask('GET', path)).body).toMatchObject({
      children: [{ name: 'Ida', adaptations: eased.adaptations }],
    });
    expect((await ann.ask('PUT', `${path}/children/${child}`, { name: 'Ida', adaptations: { wider: 9 } })).status).toBe(
      422,
    );
  });
});

describe('marks on paper', () => {
  const column = (points: object, change: object = {}) => ({ title: 'Quiz', outOf: 10, takenAt: 3, points, ...change });
  it('stand in a column, are changed one by one, and go with it', async () => {
    const { path, ids } = await room(['Ada', 'Bo', 'Cy']);
    const at = `${path}/paper/${uuid()}`;
    expect((await ann.ask('PUT', at, column({ [ids[0]!]: 7.5, [ids[1]!]: 10 }))).status).toBe(201);
    expect((await ann.ask('PUT', at, column({ [ids[1]!]: null, [ids[2]!]: 0 }))).status).toBe(200);
    expect((await recordsOf(path)).paper).toMatchObject([
      {
        title: 'Quiz',
        outOf: 10,
        points: expect.arrayContaining([
          { child: 0, points: 7.5 },
          { child: 2, points: 0 },
        ]) as unknown,
      },
    ]);
    expect((await recordsOf(path)).paper[0]!.points).toHaveLength(2);
    expect((await ann.ask('DELETE', at)).status).toBe(204);
    expect((await recordsOf(path)).paper).toEqual([]);
  });
  it('more than there are, other children and other classes are refused', async () => {
    const [one, other] = [await room(), await room()];
    const id = uuid();
    expect((await ann.ask('PUT', `${one.path}/paper/${id}`, column({ [one.child]: 11 }))).status).toBe(422);
    expect((await ann.ask('PUT', `${one.path}/paper/${id}`, column({ [other.child]: 1 }))).status).toBe(404);
    expect((await ann.ask('PUT', `${one.path}/paper/${id}`, column({ [one.child]: 1 }))).status).toBe(201);
    expect((await ann.ask('PUT', `${other.path}/paper/${id}`, column({}))).status).toBe(404);
    expect((await ann.ask('DELETE', `${other.path}/paper/${id}`)).status).toBe(404);
    expect((await ben.ask('PUT', `${one.path}/paper/${id}`, column({}))).status).toBe(404);
    expect((await ben.ask('DELETE', `${one.path}/paper/${id}`)).status).toBe(404);
  });
});

describe('what is told of an element', () => {
  it('is told place by place, each from its take, the newest first', async () => {
    const { path, child } = await room();
    const take = { patternText: '4/4 q (q) q q | q q q q', bpm: 60 };
    const first = await hear(child, { ...take, takenAt: 1, onsets: [0, 2, 3, 4, 5, 6, 7] });
    const second = await hear(child, { ...take, takenAt: 2, onsets: [0, 1, 2, 3, 4, 5, 6, 7] });
    await hear(child, { takenAt: 3, patternText: '4/4 w', bpm: 60, onsets: [0] });
    const at = `${path}/children/${child}/elements`;
    const { body } = await ann.ask('GET', `${at}/quarter-rest`);
    expect(validator(ElementPlaces)(body)).toMatchObject({ ok: true });
    const place = { measure: 1, played: 0, beat: { n: 2, d: 1 }, from: 1, to: 2 };
    expect(body).toMatchObject([
      { takeId: second, takenAt: 2, places: [{ ...place, verdict: 'misread', code: 'rest-clapped' }] },
      { takeId: first, takenAt: 1, places: [{ ...place, verdict: 'right' }] },
    ]);
    expect((await ann.ask('GET', `${at}/tie`)).body).toEqual([]);
    expect((await ann.ask('GET', `${at}/tune`)).status).toBe(404);
    expect((await ben.ask('GET', `${at}/quarter-rest`)).status).toBe(404);
  });
});

describe('a line-up', () => {
  const pattern = uuid();
  const lineUp = (ids: readonly string[]): NewLineUp => ({
    title: 'First',
    settings: {
      patternIds: [pattern],
      seed: 1,
      bpm: 60,
      heardBy: 'tap',
      tries: 2,
      order: 'list',
      startsItself: false,
    },
    startedAt: 4,
    turns: ids.map((childId) => ({ childId, patternId: pattern })),
  });
  async function started(names = ['Ada', 'Bo', 'Cy']) {
    const one = await room(names);
    const id = uuid();
    const at = `${one.path}/line-ups/${id}`;
    expect((await ann.ask('PUT', at, lineUp(one.ids))).status).toBe(201);
    const turns = async () => {
      const { body } = await ann.ask('GET', `${one.path}/line-ups`);
      expect(validator(LineUps)(body)).toMatchObject({ ok: true });
      return (body as LineUp[])[0]!.turns;
    };
    return { ...one, lineUpId: id, at, turns };
  }

  it('goes on from any device: takes make children heard, others are absent, later or marked by hand', async () => {
    const { path, at, ids, lineUpId, turns } = await started();
    expect((await ann.ask('PUT', at, lineUp(ids))).status).toBe(200);
    await hear(ids[0]!, { lineUpId, onsets: [0] });
    await hear(ids[0]!, { lineUpId });
    await hear(ids[0]!, { lineUpId, onsets: [0] });
    await ann.ask('PUT', `${at}/turns/${ids[1]}`, { state: 'absent' });
    expect((await ann.ask('PUT', `${at}/turns/${ids[2]}`, { state: 'heard', mark: 3 })).status).toBe(204);
    expect((await turns()).map(({ state, mark }) => [state, mark])).toEqual([
      ['heard', 4],
      ['absent', null],
      ['heard', 3],
    ]);
    expect((await recordsOf(path)).paper).toMatchObject([
      { id: lineUpId, title: 'First', outOf: 4, points: [{ child: 2, points: 3 }] },
    ]);
    const late = uuid();
    await ann.ask('PUT', `${path}/children/${late}`, { name: 'Al' });
    await ann.ask('PUT', `${at}/turns/${late}`, { state: 'waiting' });
    expect((await turns()).at(-1)).toMatchObject({ childId: late, state: 'waiting' });
  });
  it('where the last take counts, the last mark stays', async () => {
    const { path, ids, lineUpId, turns } = await started();
    await ann.ask('PUT', path, { ...CLASS, counts: 'last' });
    await hear(ids[0]!, { lineUpId, takenAt: 1 });
    const last = await hear(ids[0]!, { lineUpId, takenAt: 2, onsets: [0] });
    expect((await turns())[0]).toMatchObject({ mark: 1 });
    await ann.ask('PUT', `/api/takes/${last}/override`, { mark: 2 });
    expect((await turns())[0]).toMatchObject({ mark: 2 });
  });
  describe('from two devices', () => {
    const waiting = { state: 'waiting', mark: null };
    const told = async (one: Awaited<ReturnType<typeof started>>, who: number) => {
      const turn = (await one.turns())[who]!;
      const { state, mark, clash } = turn;
      const column = (await recordsOf(one.path)).paper.find(({ id }) => id === one.lineUpId);
      return { state, mark, clash, inGrid: column?.points.find(({ child }) => child === who)?.points };
    };
    const say = async (one: { at: string; ids: readonly string[] }, who: number, edit: object) =>
      expect((await ann.ask('PUT', `${one.at}/turns/${one.ids[who]}`, edit)).status).toBe(204);

    it('what one said and the other had not seen stays, and both are asked', async () => {
      const one = await started();
      await say(one, 0, { state: 'heard', mark: 3, seen: waiting });
      await say(one, 0, { state: 'absent', seen: waiting });
      const both = { state: 'heard', mark: 3, clash: { state: 'absent', mark: null }, inGrid: 3 };
      expect(await told(one, 0)).toEqual(both);
      await say(one, 0, { state: 'absent', seen: { state: 'heard', mark: 3 }, settles: true });
      // Absent now: the grid has no mark either.
      expect(await told(one, 0)).toEqual({ state: 'absent', mark: null, clash: null, inGrid: undefined });
      // The same device had said something before that nobody answered.
      await say(one, 0, { state: 'heard', mark: 2, seen: [waiting, { state: 'absent', mark: null }] });
      expect(await told(one, 0)).toEqual({ state: 'heard', mark: 2, clash: null, inGrid: 2 });
    });
    it('a take of a child who was marked absent is heard, and asked about; removed it leaves absent', async () => {
      const one = await started();
      await say(one, 1, { state: 'absent', seen: waiting });
      const take = await hear(one.ids[1]!, { lineUpId: one.lineUpId, turnSeen: waiting });
      const absent = { state: 'absent', mark: null };
      expect(await told(one, 1)).toEqual({ state: 'heard', mark: 4, clash: absent, inGrid: undefined });
      expect((await ann.ask('DELETE', `/api/takes/${take}`)).status).toBe(204);
      expect(await told(one, 1)).toEqual({ ...absent, clash: null, inGrid: undefined });
    });
    it('a mark by hand of a take is the teacher’s mark of it, and a take takes the place of one by hand', async () => {
      const one = await started();
      await say(one, 0, { state: 'heard', mark: 1 });
      expect(await told(one, 0)).toMatchObject({ mark: 1, inGrid: 1 });
      const take = await hear(one.ids[0]!, { lineUpId: one.lineUpId });
      expect(await told(one, 0)).toEqual({ state: 'heard', mark: 4, clash: null, inGrid: undefined });
      await say(one, 0, { state: 'heard', mark: 2, seen: { state: 'heard', mark: 4 } });
      expect(await told(one, 0)).toEqual({ state: 'heard', mark: 2, clash: null, inGrid: undefined });
      expect((await ann.ask('GET', `/api/takes/${take}`)).body).toMatchObject({ mark: 4, override: 2 });
      expect((await recordsOf(one.path)).marks).toMatchObject([{ child: 0, best: 2 }]);
    });
    it('a mark changed in the grid is changed in the line-up', async () => {
      const one = await started();
      await say(one, 0, { state: 'heard', mark: 1 });
      await say(one, 1, { state: 'absent' });
      await hear(one.ids[2]!, { lineUpId: one.lineUpId });
      const [ada, bo, cy] = one.ids as [string, string, string];
      const column = { title: 'First', outOf: 4, takenAt: 4 };
      const write = (points: object) => ann.ask('PUT', `${one.path}/paper/${one.lineUpId}`, { ...column, points });
      await write({ [ada]: 3, [bo]: null, [cy]: 1 });
      expect((await one.turns()).map(({ state, mark }) => `${state} ${mark}`)).toEqual([
        'heard 3',
        'absent null',
        'heard 4',
      ]);
      await write({ [ada]: null, [bo]: 2.5 });
      expect((await one.turns()).map(({ state, mark }) => `${state} ${mark}`).slice(0, 2)).toEqual([
        'waiting null',
        'absent null',
      ]);
    });
    it('slower stays with the child, and says nothing else of it', async () => {
      const one = await started();
      await say(one, 0, { ...waiting, seen: waiting, slower: 0.75 });
      await hear(one.ids[0]!, { lineUpId: one.lineUpId, turnSeen: waiting });
      await say(one, 0, { ...waiting, seen: waiting, slower: 0.5 });
      expect((await one.turns())[0]).toMatchObject({ state: 'heard', mark: 4, slower: 0.5 });
    });
  });

  it('is its own teacher’s, of the children of its class, each once', async () => {
    const [one, other] = [await started(), await room()];
    const { at, ids, path } = one;
    expect((await ben.ask('GET', `${path}/line-ups`)).status).toBe(404);
    expect((await ben.ask('PUT', `${at}/turns/${ids[0]}`, { state: 'absent' })).status).toBe(404);
    expect((await ben.ask('DELETE', at)).status).toBe(404);
    expect((await ann.ask('PUT', `${at}/turns/${other.child}`, { state: 'absent' })).status).toBe(404);
    expect((await ann.ask('PUT', `${other.path}/line-ups/${one.lineUpId}`, lineUp(other.ids))).status).toBe(404);
    const twice = lineUp([ids[0]!, ids[0]!]);
    expect((await ann.ask('PUT', `${path}/line-ups/${uuid()}`, twice)).status).toBe(422);
    expect((await ann.ask('PUT', `${path}/line-ups/${uuid()}`, lineUp([other.child]))).status).toBe(404);
    // A take of a child of another class makes nobody heard here.
    await hear(other.child, { lineUpId: one.lineUpId });
    expect((await one.turns()).map(({ state }) => state)).toEqual(['waiting', 'waiting', 'waiting']);
    expect((await ann.ask('DELETE', at)).status).toBe(204);
    expect((await ann.ask('DELETE', at)).status).toBe(404);
  });
});

describe('the bin', () => {
  it('keeps a child with its takes, out of every list, until it is taken out', async () => {
    const { path, ids, child, id } = await room(['Ada', 'Bo']);
    const take = await hear(child);
    expect((await ann.ask('DELETE', `${path}/children/${child}`)).status).toBe(204);
    expect((await ann.ask('GET', path)).body).toMatchObject({ children: [{ id: ids[1] }] });
    expect(await recordsOf(path)).toMatchObject({ children: [ids[1]], marks: [] });
    expect((await ann.ask('GET', `/api/takes/${take}`)).status).toBe(404);
    expect((await ann.ask('GET', `${path}/children/${child}/takes`)).status).toBe(404);
    expect((await ann.ask('GET', '/api/classes')).body).toContainEqual(expect.objectContaining({ id, children: 1 }));
    expect((await ann.ask('PUT', `${path}/children/${child}`, { name: 'Ada' })).status).toBe(409);
    expect((await ann.ask('PUT', `/api/takes/${uuid()}`, { childId: child })).status).toBe(422);
    const { body } = await ann.ask('GET', '/api/bin');
    expect(validator(Bin)(body)).toMatchObject({ ok: true });
    expect(body).toContainEqual(expect.objectContaining({ kind: 'child', id: child, name: 'Ada', className: 'Gulls' }));
    expect((await ben.ask('GET', '/api/bin')).body).toEqual([]);
    expect((await ben.ask('POST', `/api/bin/child/${child}/out`, {})).status).toBe(404);
    expect((await ben.ask('DELETE', `/api/bin/child/${child}`)).status).toBe(404);
    expect((await ann.ask('POST', `/api/bin/child/${child}/out`, {})).status).toBe(204);
    expect((await recordsOf(path)).marks).toMatchObject([{ takes: 1, best: 4 }]);
    expect((await ann.ask('GET', `/api/takes/${take}`)).status).toBe(200);
  });
  it('throws away nothing that is not in it', async () => {
    const { path, child, id, ids } = await room(['Ada', 'Bo']);
    const take = await hear(child);
    expect((await ann.ask('DELETE', `/api/bin/child/${child}`)).status).toBe(404);
    expect((await ann.ask('DELETE', `/api/bin/class/${id}`)).status).toBe(404);
    expect((await ann.ask('POST', `/api/bin/child/${child}/out`, {})).status).toBe(404);
    expect((await ann.ask('GET', `/api/takes/${take}`)).status).toBe(200);
    await ann.ask('DELETE', `${path}/children/${child}`);
    expect((await ann.ask('DELETE', `/api/bin/child/${child}`)).status).toBe(204);
    expect(await recordsOf(path)).toMatchObject({ children: [ids[1]] });
    expect(await open.db.select().from(takes).where(eq(takes.childId, child))).toEqual([]);
    expect((await ann.ask('GET', '/api/bin')).body).not.toContainEqual(expect.objectContaining({ id: child }));
  });
  it('shows a class as one thing: who was taken out of it before is no child of it, nor listed apart', async () => {
    const { path, id, child } = await room(['Ada', 'Bo', 'Cy']);
    await ann.ask('DELETE', `${path}/children/${child}`);
    await ann.ask('DELETE', path);
    const { body } = await ann.ask('GET', '/api/bin');
    expect(body).toContainEqual(expect.objectContaining({ kind: 'class', id, children: 2 }));
    expect(body).not.toContainEqual(expect.objectContaining({ kind: 'child', id: child }));
    await ann.ask('POST', `/api/bin/class/${id}/out`, {});
    expect((await recordsOf(path)).children).toHaveLength(2);
    const back = (await ann.ask('GET', '/api/bin')).body;
    expect(back).toContainEqual(expect.objectContaining({ kind: 'child', id: child }));
  });
  it('keeps a class with all in it', async () => {
    const { path, id, child } = await room();
    const take = await hear(child);
    await ann.ask('DELETE', path);
    for (const at of [path, `${path}/records`, `${path}/line-ups`, `/api/takes/${take}`])
      expect([at, (await ann.ask('GET', at)).status]).toEqual([at, 404]);
    expect((await ann.ask('GET', '/api/classes')).body).not.toContainEqual(expect.objectContaining({ id }));
    expect((await ann.ask('PUT', path, CLASS)).status).toBe(409);
    expect((await ben.ask('PUT', path, CLASS)).status).toBe(404);
    expect((await ann.ask('GET', '/api/bin')).body).toContainEqual(
      expect.objectContaining({ kind: 'class', id, children: 1 }),
    );
    expect((await ann.ask('POST', `/api/bin/class/${id}/out`, {})).status).toBe(204);
    expect((await recordsOf(path)).marks).toHaveLength(1);
    expect((await ann.ask('POST', `/api/bin/class/${id}/out`, {})).status).toBe(404);
    expect((await ann.ask('POST', `/api/bin/nothing/${id}/out`, {})).status).toBe(404);
  });
  it('is emptied after thirty days, takes too, and nothing else', async () => {
    const [gone, kept, half] = [await room(), await room(), await room(['Ada', 'Bo'])];
    for (const one of [gone, kept, half]) await hear(one.child);
    await ann.ask('DELETE', gone.path);
    await ann.ask('DELETE', `${half.path}/children/${half.child}`);
    expect(await emptyBin(open.db, FIRST_SCHOOL, Date.now() - DAY)).toMatchObject({ child: 0, class: 0 });
    await ann.ask('DELETE', kept.path);
    await open.db
      .update(classes)
      .set({ binnedAt: Date.now() + DAY })
      .where(eq(classes.id, kept.id));
    await emptyBin(open.db, FIRST_SCHOOL, Date.now() + 1000);
    const left = await open.db.select({ id: children.id }).from(children);
    expect(left.map(({ id }) => id)).not.toContain(gone.child);
    expect(left.map(({ id }) => id)).not.toContain(half.child);
    expect(left.map(({ id }) => id)).toEqual(expect.arrayContaining([kept.child, half.ids[1]]));
    expect(await open.db.select().from(takes).where(eq(takes.childId, gone.child))).toEqual([]);
  });
});
