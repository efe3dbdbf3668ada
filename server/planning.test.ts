import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type LessonEdit, SavedLessons } from '../contract/lesson.ts';
import { HeardWeeks, TermPlan, type TermPlanEdit } from '../contract/termPlan.ts';
import { validator } from '../contract/validate.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

let server: RunningServer;
let ann: Visitor;
let ben: Visitor;
beforeAll(async () => {
  server = await serverWithTeachers(await freshDatabase());
  [ann, ben] = [new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
});
afterAll(() => server.stop());

const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null };
const ROPE = { patternId: uuid(), title: 'Long rope', text: '4/4 h q q | q q h' };
const LESSON: LessonEdit = {
  title: 'Halves',
  minutes: 40,
  day: '2026-09-28',
  starts: '09:40',
  blocks: [
    { key: 0, kind: 'warm-up', patterns: [], steps: [{ element: 'half', step: 'meet' }] },
    { key: 3, kind: 'read', minutes: 7.5, note: 'slowly', patterns: [ROPE], steps: [] },
  ],
  held: null,
};
const TERM: TermPlanEdit = {
  from: '2026-09-07',
  until: '2026-12-18',
  slots: [{ weekday: 3, starts: '11:20', minutes: 45 }],
  holidays: [{ from: '2026-10-19', until: '2026-10-25' }],
  order: ['half', 'tie'],
  contents: [[{ element: 'half', step: 'meet' }], []],
  left: [],
};
const code = (body: unknown) => (body as { error: { code: string } }).error.code;

async function room(visitor = ann) {
  const path = `/api/classes/${uuid()}`;
  expect((await visitor.ask('PUT', path, CLASS)).status).toBe(201);
  return path;
}

async function lessonsOf(path: string, visitor = ann) {
  const { body } = await visitor.ask('GET', `${path}/lessons`);
  expect(validator(SavedLessons)(body)).toMatchObject({ ok: true });
  return body as SavedLessons;
}
type SavedLessons = (LessonEdit & { id: string })[];
type Heard = { week: string; element: string; children: number; right: number; weight: number };

describe('a lesson', () => {
  it('is kept whole; those of no day come first, then the latest', async () => {
    const path = await room();
    const [first, later, any] = [uuid(), uuid(), uuid()];
    expect((await ann.ask('PUT', `${path}/lessons/${first}`, LESSON)).status).toBe(201);
    await ann.ask('PUT', `${path}/lessons/${later}`, { ...LESSON, day: '2026-10-01' });
    await ann.ask('PUT', `${path}/lessons/${any}`, { ...LESSON, day: null, starts: null });
    const held = { at: 1000, seconds: 2400, leftOut: [3] };
    expect((await ann.ask('PUT', `${path}/lessons/${first}`, { ...LESSON, held })).status).toBe(200);
    const listed = await lessonsOf(path);
    expect(listed.map(({ id }) => id)).toEqual([any, later, first]);
    expect(listed[2]).toEqual({ id: first, ...LESSON, held });
    expect((await ann.ask('DELETE', `${path}/lessons/${first}`)).status).toBe(204);
    expect((await ann.ask('DELETE', `${path}/lessons/${first}`)).status).toBe(404);
    expect(await lessonsOf(path)).toHaveLength(2);
  });

  it('changed by two is put together, and where both changed the same the second is told', async () => {
    const path = await room();
    const lesson = `${path}/lessons/${uuid()}`;
    await ann.ask('PUT', lesson, LESSON);
    await ann.ask('PUT', lesson, { ...LESSON, minutes: 45, was: LESSON });
    const { body } = await ann.ask('PUT', lesson, { ...LESSON, title: 'Halves again', was: LESSON });
    expect(body).toMatchObject({ title: 'Halves again', minutes: 45 });
    const clash = await ann.ask('PUT', lesson, { ...LESSON, minutes: 30, was: LESSON });
    expect([clash.status, code(clash.body)]).toEqual([409, 'changed-meanwhile']);
    expect(clash.body).toMatchObject({ error: { parts: ['minutes'], theirs: { minutes: 45 } } });
    expect((await lessonsOf(path))[0]!.minutes).toBe(45);
  });

  it.each<[object, string]>([
    [{ day: '2026-02-30' }, 'no such day'],
    [{ starts: '9:40' }, 'starts'],
    [{ minutes: 0 }, 'minutes'],
    [{ title: ' ' }, 'title'],
    [{ blocks: [LESSON.blocks[0], LESSON.blocks[0]] }, 'same key'],
    [{ blocks: [{ ...LESSON.blocks[0], kind: 'nap' }] }, 'kind'],
    [{ blocks: [{ ...LESSON.blocks[1], patterns: [{ ...ROPE, text: '4/4 q q' }] }] }, 'add up'],
    [{ blocks: [{ ...LESSON.blocks[0], steps: [{ element: 'half', step: 'sing' }] }] }, 'step'],
    [{ held: { at: 1, seconds: 1, leftOut: [1, 1] } }, 'leftOut'],
  ])('%j is refused with a word on it', async (change, word) => {
    const path = await room();
    const { status, body } = await ann.ask('PUT', `${path}/lessons/${uuid()}`, { ...LESSON, ...change });
    expect([400, 422]).toContain(status);
    expect(JSON.stringify(body)).toContain(word);
    expect(await lessonsOf(path)).toEqual([]);
  });

  it('is nobody else’s, and who may only look changes nothing', async () => {
    const path = await room();
    const lesson = `lessons/${uuid()}`;
    await ann.ask('PUT', `${path}/${lesson}`, LESSON);
    const own = await room(ben);
    for (const [method, at, body] of [
      ['GET', `${path}/lessons`, undefined],
      ['PUT', `${path}/lessons/${uuid()}`, LESSON],
      ['PUT', `${own}/${lesson}`, LESSON],
      ['DELETE', `${own}/${lesson}`, undefined],
      ['GET', `${path}/term-plan`, undefined],
      ['PUT', `${path}/term-plan`, TERM],
      ['GET', `${path}/heard-weeks?from=2026-09-01`, undefined],
    ] as const)
      expect((await ben.ask(method, at, body)).status, `${method} ${at}`).toBe(404);
    await ann.ask('PUT', `${path}/shares`, { name: 'Ben', role: 'look' });
    expect(await lessonsOf(path, ben)).toHaveLength(1);
    for (const [method, at, body] of [
      ['PUT', `${path}/${lesson}`, LESSON],
      ['DELETE', `${path}/${lesson}`, undefined],
      ['PUT', `${path}/term-plan`, TERM],
    ] as const)
      expect(code((await ben.ask(method, at, body)).body), `${method} ${at}`).toBe('only-look');
  });
});

describe('the plan of a term', () => {
  it('is none, then what was kept, put together where two changed it', async () => {
    const path = `${await room()}/term-plan`;
    expect(await ann.ask('GET', path)).toMatchObject({ status: 200, body: null });
    expect((await ann.ask('PUT', path, TERM)).body).toEqual(TERM);
    await ann.ask('PUT', path, { ...TERM, until: '2026-12-11', was: TERM });
    const { body } = await ann.ask('PUT', path, { ...TERM, order: ['tie'], was: TERM });
    expect(body).toEqual({ ...TERM, until: '2026-12-11', order: ['tie'] });
    expect(validator(TermPlan)(body)).toMatchObject({ ok: true });
    expect((await ann.ask('GET', path)).body).toEqual(body);
    expect((await ann.ask('PUT', path, { ...TERM, order: ['half'], was: TERM })).status).toBe(409);
  });

  it.each<[object, string]>([
    [{ until: '2026-09-01' }, 'ends before it begins'],
    [{ until: '2028-09-01' }, 'at most 400 days'],
    [{ from: '2026-02-30' }, 'no such day'],
    [{ holidays: [{ from: '2026-10-19', until: '2026-10-18' }] }, 'end before they begin'],
    [{ holidays: [{ from: '2026-10-19', until: '2026-10-32' }] }, 'until'],
    [{ slots: [{ weekday: 7, starts: '11:20', minutes: 45 }] }, 'weekday'],
    [{ order: ['half', 'half'] }, 'order'],
    [{ left: [{}] }, 'left'],
  ])('%j is refused with a word on it', async (change, word) => {
    const path = `${await room()}/term-plan`;
    const { status, body } = await ann.ask('PUT', path, { ...TERM, ...change });
    expect([400, 422]).toContain(status);
    expect(JSON.stringify(body)).toContain(word);
    expect((await ann.ask('GET', path)).body).toBeNull();
  });
});

describe('what was heard week by week', () => {
  it('adds up the takes of each week from a day on', async () => {
    const path = await room();
    const [ada, bo] = [uuid(), uuid()];
    for (const [id, name] of [
      [ada, 'Ada'],
      [bo, 'Bo'],
    ])
      await ann.ask('PUT', `${path}/children/${id}`, { name });
    const take = (childId: string, day: string, onsets: number[]) =>
      ann.ask('PUT', `/api/takes/${uuid()}`, {
        childId,
        patternId: null,
        title: 'Rope',
        patternText: '4/4 h q q | q q h',
        bpm: 60,
        onsets,
        free: false,
        source: 'tap',
        takenAt: +new Date(`${day}T10:00:00`),
      });
    for (const [child, day, onsets] of [
      [ada, '2026-09-02', [0, 2, 3, 4, 5, 6]],
      [ada, '2026-09-14', [0, 2, 3, 4, 5, 6]],
      [bo, '2026-09-20', [0, 1, 2, 3, 4, 5]],
      [bo, '2026-09-21', [0, 2, 3, 4, 5, 6]],
    ] as const)
      expect((await take(child, day, [...onsets])).status).toBe(200);
    const { body } = await ann.ask('GET', `${path}/heard-weeks?from=2026-09-07`);
    expect(validator(HeardWeeks)(body)).toMatchObject({ ok: true });
    const halves = (body as Heard[]).flatMap(({ element, week, children, right, weight }) =>
      element === 'half' ? [`${week} ${children} ${right.toFixed(2)} of ${weight.toFixed(2)}`] : [],
    );
    // Two places a take; one of four was cut short.
    expect(halves).toEqual(['2026-09-14 2 3.00 of 4.00', '2026-09-21 1 2.00 of 2.00']);
  });

  it.each(['', '?from=soon', '?from=2026-02-30'])('asked %j says what it needs', async (search) => {
    const { status, body } = await ann.ask('GET', `${await room()}/heard-weeks${search}`);
    expect([status, code(body)]).toEqual([422, 'bad-request']);
  });
});

describe('the file of a class', () => {
  it('has its lessons and its term, and they come in again beside what is there', async () => {
    const path = await room();
    await ann.ask('PUT', `${path}/lessons/${uuid()}`, LESSON);
    await ann.ask('PUT', `${path}/term-plan`, TERM);
    const { body } = await ann.ask('GET', `${path}/copy`);
    const { lessons, termPlan } = body as { lessons: SavedLessons; termPlan: TermPlanEdit };
    expect(lessons).toMatchObject([LESSON]);
    const other = await room();
    const own = { lessons: [{ ...lessons[0]!, id: uuid() }], termPlan };
    expect((await ann.ask('PUT', `${other}/copied`, own)).status).toBeLessThan(300);
    expect(await lessonsOf(other)).toMatchObject([LESSON]);
    expect((await ann.ask('GET', `${other}/term-plan`)).body).toEqual(TERM);
    // Sent again they are there once; a term that was changed since stays.
    await ann.ask('PUT', `${other}/term-plan`, { ...TERM, order: [] });
    await ann.ask('PUT', `${other}/copied`, own);
    expect(await lessonsOf(other)).toHaveLength(1);
    expect((await ann.ask('GET', `${other}/term-plan`)).body).toMatchObject({ order: [] });
    // Of another class, or what makes no sense.
    expect((await ann.ask('PUT', `${other}/copied`, { lessons })).status).toBe(404);
    const wrong = { lessons: [{ ...LESSON, id: uuid(), day: '2026-02-30' }] };
    expect(JSON.stringify((await ann.ask('PUT', `${other}/copied`, wrong)).body)).toContain('lessons.0.day');
  });
});
