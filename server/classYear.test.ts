import { eq } from 'drizzle-orm';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ClassCopy, type ClassPieces } from '../contract/classCopy.ts';
import type { RejudgingState } from '../contract/judging.ts';
import { type PracticePlan, PracticeWeeks } from '../contract/practice.ts';
import { ClassRecords } from '../contract/records.ts';
import { Staff } from '../contract/staff.ts';
import type { ClassDetail } from '../contract/schoolClass.ts';
import { TermDetail, Terms } from '../contract/term.ts';
import { validator } from '../contract/validate.ts';
import { openDatabase } from './database.ts';
import type { Teacher } from '../contract/session.ts';
import { FIRST_SCHOOL } from '../contract/school.ts';
import { makeAdministrator } from './repository/schools.ts';
import { findTeacherByName } from './repository/teachers.ts';
import { classes, rejudgings, takes } from './schema.ts';
import type { RunningServer } from './start.ts';
import { PASSWORD, Visitor, freshDatabase, serverWithTeachers, takesIn } from './testServer.test-helper.ts';

const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null };
const TEXT = '4/4 q q e e q';
const RIGHT = [0, 1, 2, 2.5, 3];
const TAKE = { patternId: null, title: 'First', patternText: TEXT, bpm: 60, onsets: RIGHT };
const DAY = 86_400_000;

const STAFF = `/api/schools/${FIRST_SCHOOL}/staff`;

let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
let ben: Visitor;
beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  [ann, ben] = [new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
  open = openDatabase(databaseUrl, { connections: 1 });
  await makeAdministrator(open.db, FIRST_SCHOOL, (await findTeacherByName(open.db, 'Ann'))!.id);
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

const code = (body: unknown) => (body as { error: { code: string } }).error.code;
const made = async (visitor: Visitor, path: string, body: object) => {
  const { status, body: answer } = await visitor.ask('PUT', path, body);
  if (status >= 300) throw new Error(`${status} ${JSON.stringify(answer)}`);
};

async function room(names: readonly string[] = ['Ada'], visitor = ann) {
  const id = uuid();
  const path = `/api/classes/${id}`;
  await made(visitor, path, CLASS);
  const ids = names.map(() => uuid());
  for (const [i, name] of names.entries()) await made(visitor, `${path}/children/${ids[i]}`, { name });
  return { id, path, ids, child: ids[0]! };
}
async function hear(childId: string, change: object = {}, visitor = ann) {
  const id = uuid();
  await made(visitor, `/api/takes/${id}`, { ...TAKE, childId, takenAt: Date.now(), ...change });
  return id;
}
async function recordsOf(path: string, visitor = ann): Promise<ClassRecords> {
  const { body } = await visitor.ask('GET', `${path}/records`);
  expect(validator(ClassRecords)(body)).toMatchObject({ ok: true });
  return body as ClassRecords;
}

describe('a term', () => {
  it('that is closed is kept as it was; the grid begins anew, and what is known stays', async () => {
    const { path, child } = await room();
    const term = `${path}/terms/${uuid()}`;
    await hear(child);
    await made(ann, `${path}/paper/${uuid()}`, { title: 'Quiz', outOf: 10, takenAt: 5, points: { [child]: 7 } });
    const before = await recordsOf(path);
    expect((await ann.ask('PUT', term, { title: ' Autumn ' })).status).toBe(201);
    // Sent again, as after a broken connection, nothing more is closed.
    expect((await ann.ask('PUT', term, { title: 'Autumn' })).status).toBe(200);
    const after = await recordsOf(path);
    expect([after.marks, after.paper]).toEqual([[], []]);
    expect(after.elements).toEqual(before.elements);
    expect(await takesIn(ann, path.split('/').at(-1)!)).toHaveLength(1);

    const listed = (await ann.ask('GET', `${path}/terms`)).body;
    expect(validator(Terms)(listed)).toMatchObject({ ok: true, value: [{ title: 'Autumn', fromAt: 0 }] });
    const { body } = await ann.ask('GET', term);
    expect(validator(TermDetail)(body)).toMatchObject({ ok: true });
    expect(body).toMatchObject({ names: ['Ada'], records: { marks: before.marks, paper: before.paper } });
    expect((await ben.ask('GET', term)).status).toBe(404);
    expect((await ann.ask('GET', `${path}/terms/${uuid()}`)).status).toBe(404);

    await hear(child);
    await hear(child, { takenAt: 7 * DAY });
    await made(ann, `${path}/paper/${uuid()}`, { title: 'Later', outOf: 5, takenAt: 6, points: { [child]: 1 } });
    const next = await recordsOf(path);
    expect(next.marks).toMatchObject([{ takes: 1 }]);
    expect(next.paper).toMatchObject([{ title: 'Later' }]);
    // What was clapped before it was closed, and arrived after, is in the term that is over.
    const late = (await ann.ask('GET', term)).body as { records: ClassRecords };
    expect(late.records.marks).toMatchObject([{ child: 0, pattern: 0, takes: 2 }]);
    expect(late.records.patterns).toEqual(before.patterns);
    const other = await room();
    expect((await ann.ask('PUT', `${other.path}/terms/${term.split('/').at(-1)}`, { title: 'Mine' })).status).toBe(404);
  });
});

describe('children who go on in another class', () => {
  it('take everything with them, once', async () => {
    const [from, to] = [await room(['Ada', 'Bo']), await room(['Cy'])];
    for (const child of from.ids) await hear(child);
    await made(ann, `${from.path}/paper/${uuid()}`, {
      title: 'Quiz',
      outOf: 10,
      takenAt: 5,
      points: { [from.ids[0]!]: 7, [from.ids[1]!]: 3 },
    });
    const move = () => ann.ask('POST', `${from.path}/moves`, { to: to.id, children: [from.ids[0]] });
    expect((await move()).status).toBe(204);
    expect((await move()).status).toBe(204);
    const [left, right] = [await recordsOf(from.path), await recordsOf(to.path)];
    expect(left.children).toEqual([from.ids[1]]);
    expect(left.paper).toMatchObject([{ points: [{ child: 0, points: 3 }] }]);
    expect(new Set(right.children)).toEqual(new Set([from.ids[0], to.child]));
    expect(right.marks).toHaveLength(1);
    expect(right.paper).toMatchObject([{ title: 'Quiz', points: [{ points: 7 }] }]);
    expect(await takesIn(ann, to.id)).toHaveLength(1);
    // Heard in the new class, it counts there.
    await hear(from.ids[0]!);
    expect((await recordsOf(to.path)).marks).toMatchObject([{ takes: 2 }]);
    // Another child of the same column comes into the same column.
    await ann.ask('POST', `${from.path}/moves`, { to: to.id, children: [from.ids[1]] });
    expect((await recordsOf(to.path)).paper).toMatchObject([{ points: [{}, {}] }]);
  });

  it('keep closed terms behind them in a class that begins with them', async () => {
    const [from, to] = [await room(), await room([])];
    await hear(from.child);
    await made(ann, `${from.path}/terms/${uuid()}`, { title: 'Year' });
    await ann.ask('POST', `${from.path}/moves`, { to: to.id, children: [from.child] });
    const { marks, elements } = await recordsOf(to.path);
    expect(marks).toEqual([]);
    expect(elements.length).toBeGreaterThan(0);
  });

  it('go into no class of somebody else, and not in circles', async () => {
    const [from, bens] = [await room(), await room(['Cy'], ben)];
    const move = (to: string, children: readonly string[]) => ann.ask('POST', `${from.path}/moves`, { to, children });
    expect((await move(bens.id, [from.child])).status).toBe(404);
    expect((await move(from.id, [from.child])).status).toBe(422);
    const other = await room();
    expect((await move(other.id, [bens.child])).status).toBe(404);
    expect((await move(other.id, [uuid()])).status).toBe(404);
    expect((await recordsOf(from.path)).children).toEqual([from.child]);
  });
});

describe('a practice week', () => {
  const item = (change: object = {}) => ({
    patternId: uuid(),
    title: 'Steps',
    text: '4/4 q q h',
    bpm: 72,
    times: 2,
    days: [0, 2],
    ...change,
  });
  const plan = (change: Partial<PracticePlan> = {}): PracticePlan => ({
    title: 'Week',
    items: [item()],
    children: null,
    ...change,
  });

  it('is ticked off by takes of its patterns on its days', async () => {
    const { path, ids } = await room(['Ada', 'Bo']);
    const steps = item();
    await made(ann, `/api/patterns/${steps.patternId}`, { title: 'Steps', text: steps.text });
    const week = `${path}/practice/${uuid()}`;
    // What is practised beside it was not heard.
    await made(ann, week, { starts: '2026-09-28', plan: plan({ items: [steps, item()] }) });
    const on = (day: number, hour = 9) => new Date(2026, 8, 28 + day, hour).getTime();
    const played = (childId: string, takenAt: number) =>
      hear(childId, { takenAt, patternId: steps.patternId, patternText: steps.text, onsets: [0, 1, 2] });
    await played(ids[0]!, on(0));
    await played(ids[0]!, on(0, 23));
    await played(ids[0]!, on(6, 23));
    await played(ids[1]!, on(2, 0));
    // Before, after, and another pattern.
    await played(ids[1]!, on(-1, 23));
    await played(ids[1]!, on(7, 0));
    await hear(ids[1]!, { takenAt: on(1) });
    const { body } = await ann.ask('GET', `${path}/practice`);
    expect(validator(PracticeWeeks)(body)).toMatchObject({ ok: true });
    const [found] = body as PracticeWeeksOf;
    const sorted = [...found!.practised].sort((a, b) => a.day - b.day);
    expect(sorted).toEqual([
      { childId: ids[0], item: 0, day: 0, times: 2 },
      { childId: ids[1], item: 0, day: 2, times: 1 },
      { childId: ids[0], item: 0, day: 6, times: 1 },
    ]);
    await made(ann, week, { starts: '2026-10-05', plan: plan({ items: [steps] }) });
    expect((await ann.ask('GET', `${path}/practice`)).body).toMatchObject([
      { practised: [{ childId: ids[1], day: 0 }] },
    ]);
    expect((await ann.ask('DELETE', week)).status).toBe(204);
    expect((await ann.ask('DELETE', week)).status).toBe(404);
  });

  it.each([
    ['a day that is none', { starts: '2026-02-30', plan: plan() }],
    ['a text that is none', { starts: '2026-09-28', plan: plan({ items: [item({ text: '4/4 q q' })] }) }],
    ['no days', { starts: '2026-09-28', plan: plan({ items: [item({ days: [] })] }) }],
    ['a day twice', { starts: '2026-09-28', plan: plan({ items: [item({ days: [1, 1] })] }) }],
    ['nothing to practise', { starts: '2026-09-28', plan: plan({ items: [] }) }],
  ])('refuses %s', async (_what, week) => {
    const { path } = await room();
    expect((await ann.ask('PUT', `${path}/practice/${uuid()}`, week)).status).toBe(422);
  });

  it('that two changed is put together, and where both changed the same the second is told', async () => {
    const week = `${(await room()).path}/practice/${uuid()}`;
    const was = { starts: '2026-09-28', plan: plan() };
    await made(ann, week, was);
    await made(ann, week, { ...was, starts: '2026-10-05', was });
    const other = { ...was, plan: plan({ title: 'Other' }) };
    expect((await ann.ask('PUT', week, { ...other, was })).body).toMatchObject({ ...other, starts: '2026-10-05' });
    const clash = await ann.ask('PUT', week, { ...was, starts: '2026-10-12', was });
    expect([clash.status, clash.body]).toMatchObject([409, { error: { parts: ['starts'] } }]);
  });

  it('belongs to its class', async () => {
    const [one, other, bens] = [await room(), await room(), await room(['Cy'], ben)];
    const id = uuid();
    await made(ann, `${one.path}/practice/${id}`, { starts: '2026-09-28', plan: plan() });
    for (const path of [other.path, bens.path])
      expect((await ann.ask('PUT', `${path}/practice/${id}`, { starts: '2026-09-28', plan: plan() })).status).toBe(404);
  });
});
type PracticeWeeksOf = { practised: { childId: string; item: number; day: number; times: number }[] }[];

describe('all of a class in a file', () => {
  async function full() {
    const one = await room(['Ada', 'Bo']);
    await made(ann, one.path, { ...CLASS, onTimeMs: 70, recordingDays: 9 });
    await made(ann, `${one.path}/children/${one.ids[1]}`, { name: 'Bo', adaptations: { wider: 2 } });
    const pattern = uuid();
    await made(ann, `/api/patterns/${pattern}`, { title: 'Steps', text: TEXT });
    // Where it lies at home does not go along.
    const shelf = { patterns: [{ id: pattern, folder: 'Old', archived: true }] };
    expect((await ann.ask('PUT', '/api/patterns/shelf', shelf)).status).toBe(204);
    await hear(one.child, { takenAt: 1 });
    await made(ann, `${one.path}/terms/${uuid()}`, { title: 'Autumn' });
    const take = await hear(one.child, { patternId: pattern, free: true });
    await hear(one.ids[1]!, { onsets: [0.12, 1.1, 2, 2.5, 3], releases: [0.5, null, 2.2, 2.7, 3.2], feet: [0, 1] });
    await ann.ask('PUT', `/api/takes/${take}/override`, { mark: 1, reason: 'gave up' });
    await ann.send('PUT', `/api/takes/${take}/recording`, Buffer.from('claps'), { 'content-type': 'audio/webm' });
    const settings = {
      patternIds: [pattern],
      seed: 1,
      bpm: 60,
      heardBy: 'tap',
      tries: 1,
      order: 'list',
      startsItself: false,
    };
    const lineUp = `${one.path}/line-ups/${uuid()}`;
    const turns = one.ids.map((childId) => ({ childId, patternId: pattern }));
    await made(ann, lineUp, { title: 'First', settings, startedAt: Date.now(), turns });
    await ann.ask('PUT', `${lineUp}/turns/${one.child}`, { state: 'heard', mark: 3 });
    const items = [{ patternId: pattern, title: 'Steps', text: TEXT, bpm: 60, times: 1, days: [0] }];
    const week = { title: 'Week', items, children: [one.child] };
    await made(ann, `${one.path}/practice/${uuid()}`, { starts: '2026-09-28', plan: week });
    return { ...one, pattern, take };
  }
  const copyOf = async (path: string) => {
    const { body } = await ann.ask('GET', `${path}/copy`);
    const checked = validator(ClassCopy)(body);
    if (!checked.ok) throw new Error(checked.message);
    return checked.value;
  };
  /** Without what is another by its nature: names, moments, and the order of takes. */
  const plain = (copy: ClassCopy) => {
    const names = new Map<string, string>();
    const text = JSON.stringify({ ...copy, savedAt: 0, patterns: [], sounds: [] }).replace(
      /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g,
      (id) => names.get(id) ?? (names.set(id, `#${names.size}`), names.get(id)!),
    );
    return JSON.parse(text) as ClassCopy;
  };

  it('comes in again as it was, for another teacher, with nothing missing', async () => {
    const { path, take } = await full();
    const copy = await copyOf(path);
    expect(copy.sounds).toMatchObject([
      { takeId: take, mime: 'audio/webm', base64: Buffer.from('claps').toString('base64') },
    ]);
    const target = uuid();
    const to = `/api/classes/${target}`;
    const names = new Map<string, string>();
    const all = [copy.children, copy.takes, copy.paper, copy.lineUps, copy.practice, copy.terms, copy.patterns].flat();
    for (const { id } of all) names.set(id, uuid());
    const own = JSON.parse(JSON.stringify(copy).replace(/[0-9a-f-]{36}/g, (id) => names.get(id) ?? id)) as ClassCopy;
    await made(ben, to, own.settings);
    for (const { id, ...child } of own.children) await made(ben, `${to}/children/${id}`, child);
    for (const { id, ...pattern } of own.patterns) await made(ben, `/api/patterns/${id}`, pattern);
    const { terms, termFrom, takes, paper, lineUps, practice } = own;
    const pieces: ClassPieces[] = [{ terms }, { termFrom }, { takes }, { paper }, { lineUps }, { practice }];
    for (const piece of pieces) await made(ben, `${to}/copied`, piece);
    // Sent again after a failure in the middle, everything is there once.
    for (const piece of pieces) await made(ben, `${to}/copied`, piece);
    const until = Date.now() + DAY;
    const sound = own.sounds[0]!;
    await ben.send('PUT', `/api/takes/${sound.takeId}/recording?until=${until}`, Buffer.from(sound.base64, 'base64'), {
      'content-type': sound.mime,
    });
    const back = (await ben.ask('GET', `${to}/copy`)).body as ClassCopy;
    expect(plain(back)).toEqual(plain(copy));
    expect(back.sounds).toMatchObject([{ until, base64: sound.base64 }]);
    const [before, after] = [await recordsOf(path), await recordsOf(to, ben)];
    const marks = ({ marks: list }: ClassRecords) => list.map((mark) => JSON.stringify(mark)).sort();
    expect(marks(after)).toEqual(marks(before));
    expect(after.elements).toEqual(before.elements);
  });

  it('is the owner’s alone, and takes no more than fits', async () => {
    const { path, child, take } = await full();
    expect((await ben.ask('GET', `${path}/copy`)).status).toBe(404);
    await ann.ask('PUT', `${path}/shares`, { name: 'Ben', role: 'hear' });
    expect((await ben.ask('GET', `${path}/copy`)).status).toBe(403);
    const bens = await room(['Cy'], ben);
    const copy = await copyOf(path);
    const put = (pieces: object) => ben.ask('PUT', `${bens.path}/copied`, pieces);
    const one = copy.takes.find(({ id }) => id === take)!;
    expect((await put({ takes: [one] })).status).toBe(404);
    expect((await put({ takes: [{ ...one, childId: bens.child }] })).status).toBe(404);
    expect((await put({ takes: [{ ...one, id: uuid(), childId: bens.child, patternText: '4/4 x' }] })).status).toBe(
      422,
    );
    expect((await put({ takes: [{ ...one, id: uuid(), childId: bens.child, mark: 4 }] })).status).toBe(422);
    expect((await put({ paper: [{ ...copy.paper[0]!, id: uuid() }] })).status).toBe(404);
    expect((await put({ paper: [copy.paper[0]!] })).status).toBe(404);
    expect((await put({ lineUps: [{ ...copy.lineUps[0]!, id: uuid() }] })).status).toBe(404);
    expect((await put({ practice: [copy.practice[0]!] })).status).toBe(404);
    expect((await put({ terms: [copy.terms[0]!] })).status).toBe(404);
    expect((await recordsOf(bens.path, ben)).marks).toEqual([]);
    expect((await ann.ask('GET', `/api/takes/${take}`)).body).toMatchObject({ childId: child });
  });
});

describe('working out marks anew', () => {
  it('is broken off: the class judges as before, and every mark is as it was', async () => {
    const { id, path, child } = await room();
    const late = RIGHT.map((time, i) => time + (i % 2 ? 0.05 : 0));
    for (let i = 0; i < 30; i++) await hear(child, { takenAt: i, onsets: late });
    const accuracies = async () => [...new Set((await takesIn(ann, id)).map(({ accuracy }) => accuracy))];
    const before = await accuracies();
    const state = async () => (await ann.ask('GET', `${path}/rejudging`)).body as RejudgingState;
    const settings = async () => {
      const { ages, onTimeMs, borders } = (await ann.ask('GET', path)).body as ClassDetail;
      return { ages, onTimeMs, borders };
    };
    // A server that has not come far holds the job.
    const marks = { ages: '9-10', onTimeMs: null, borders: null, clickCounts: true } as const;
    await open.db.update(classes).set({ onTimeMs: 25, ages: '11-13', judgingRevision: 1 }).where(eq(classes.id, id));
    await open.db.insert(rejudgings).values({
      classId: id,
      revision: 1,
      total: 30,
      takenAt: Number.MAX_SAFE_INTEGER,
      takeId: '',
      done: 0,
      before: marks,
      owner: 'another',
      leasedUntil: Date.now() + DAY,
    });
    const third = (await takesIn(ann, id)).slice(0, 3);
    for (const one of third) await open.db.update(takes).set({ accuracy: 0.1 }).where(eq(takes.id, one.id));
    expect(await state()).toEqual({ running: true, done: 0, total: 30, cancels: true });
    expect((await ben.ask('DELETE', `${path}/rejudging`)).status).toBe(404);
    expect((await ann.ask('DELETE', `${path}/rejudging`)).status).toBe(204);
    expect(await settings()).toEqual({ ages: '9-10', onTimeMs: null, borders: null });
    for (let i = 0; i < 400 && (await state()).running; i++) await new Promise((later) => setTimeout(later, 30));
    expect(await accuracies()).toEqual(before);
    // Nothing is left to break off, and that is no fault.
    expect((await ann.ask('DELETE', `${path}/rejudging`)).status).toBe(204);
    expect(await settings()).toEqual({ ages: '9-10', onTimeMs: null, borders: null });
  });
});

describe('the administrator of a school', () => {
  it('makes accounts, hands out codes and closes them, and sees no more than that', async () => {
    const { body, status } = await ann.ask('POST', STAFF, { name: ' Cora ' });
    expect(status).toBe(201);
    const given = (body as { code: string }).code;
    const cora = new Visitor(server.url);
    expect((await cora.signIn('Cora', given)).status).toBe(401);
    const reset = { name: 'Cora', code: given, password: 'nine green buoys' };
    expect((await cora.ask('POST', '/api/session/reset', reset)).status).toBe(200);
    const { child, path } = await room(['Dee'], cora);
    await hear(child, {}, cora);
    for (const address of [path, `${path}/records`, `${path}/copy`])
      expect((await ann.ask('GET', address)).status).toBe(404);

    const list = (await ann.ask('GET', STAFF)).body;
    expect(validator(Staff)(list)).toMatchObject({ ok: true });
    const found = (list as { id: string; name: string }[]).find(({ name }) => name === 'Cora')!;
    expect((await ann.ask('PUT', `${STAFF}/${found.id}`, { closed: true })).status).toBe(204);
    expect((await cora.ask('GET', '/api/classes')).status).toBe(401);
    const again = await new Visitor(server.url).ask('POST', '/api/session', { name: 'Cora', password: reset.password });
    expect([again.status, code(again.body)]).toEqual([403, 'account-closed']);
    await ann.ask('PUT', `${STAFF}/${found.id}`, { closed: false });
    const { body: second } = await ann.ask('POST', `${STAFF}/${found.id}/code`, {});
    const anew = { name: 'Cora', code: (second as { code: string }).code, password: 'ten green buoys' };
    expect((await cora.ask('POST', '/api/session/reset', anew)).status).toBe(200);
    expect((await cora.ask('GET', path)).status).toBe(200);
  });

  it('is told what cannot be, and nobody else may', async () => {
    expect(code((await ann.ask('POST', STAFF, { name: 'Ben' })).body)).toBe('name-taken');
    expect((await ann.ask('POST', STAFF, { name: '' })).status).toBe(422);
    const { teacher: self } = (await ann.ask('GET', '/api/session')).body as { teacher: Teacher };
    expect(self.schools).toEqual([{ id: FIRST_SCHOOL, name: 'Our school', as: 'Ann', administrator: true }]);
    expect(code((await ann.ask('PUT', `${STAFF}/${self.id}`, { closed: true })).body)).toBe('own-account');
    expect((await ann.ask('POST', `${STAFF}/${uuid()}/code`, {})).status).toBe(404);
    expect((await ann.ask('PUT', `${STAFF}/${uuid()}`, { closed: true })).status).toBe(404);
    for (const [method, path, body] of [
      ['GET', STAFF, undefined],
      ['POST', STAFF, { name: 'Eva' }],
      ['PUT', `${STAFF}/${self.id}`, { closed: true }],
      ['POST', `${STAFF}/${self.id}/code`, {}],
    ] as const)
      expect([path, code((await ben.ask(method, path, body)).body)]).toEqual([path, 'not-administrator']);
    expect(
      (await new Visitor(server.url).ask('POST', '/api/session', { name: 'Ann', password: PASSWORD })).status,
    ).toBe(200);
  });
});
