import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Ids, bodiesWith } from './everyRoute.test-helper.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

let server: RunningServer;
let ann: Visitor;
const ids = { classId: uuid(), childId: uuid(), takeId: uuid(), patternId: uuid() } as Ids;
const path = `/api/classes/${ids.classId}`;
beforeAll(async () => {
  server = await serverWithTeachers(await freshDatabase());
  ann = new Visitor(server.url);
  await ann.signIn('Ann');
  await ann.ask('PUT', path, { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null });
  await ann.ask('PUT', `${path}/children/${ids.childId}`, { name: 'Ada' });
});
afterAll(() => server.stop());

const { PIECES, LINE } = bodiesWith(ids);
const [take, column, week, tally, lesson, term] = [
  PIECES.takes[0]!,
  PIECES.paper[0]!,
  PIECES.practice[0]!,
  PIECES.ear[0]!,
  PIECES.lessons[0]!,
  PIECES.terms[0]!,
];
const turn = { childId: ids.childId, patternId: ids.patternId, state: 'heard', mark: 1, takeId: null };
const line = { ...LINE, id: uuid(), turns: [turn] };

it.each([
  ['terms.0.title', { terms: [{ ...term, title: ' ' }] }],
  ['terms.0.title', { terms: [{ ...term, title: 'x'.repeat(61) }] }],
  ['terms.0.untilAt', { terms: [{ ...term, fromAt: 5, untilAt: 2 }] }],
  ['terms.0.untilAt', { terms: [{ ...term, untilAt: 9e15 }] }],
  ['terms.0.names', { terms: [{ ...term, names: ['x'.repeat(61)] }] }],
  ['terms.1.id', { terms: [term, term] }],
  ['takes.0.override', { takes: [{ ...take, override: 5 }] }],
  ['takes.1.id', { takes: [take, take] }],
  ['paper.0', { paper: [{ ...column, points: { [ids.childId]: 11 } }] }],
  ['paper.0', { paper: [{ ...column, scale: 'A-F' }] }],
  ['paper.1.id', { paper: [column, column] }],
  ['lineUps.0.turns', { lineUps: [{ ...line, turns: [{ ...turn, mark: 7 }] }] }],
  ['lineUps.0.turns.1.id', { lineUps: [{ ...line, turns: [turn, turn] }] }],
  ['practice.0.starts', { practice: [{ ...week, starts: '2026-02-31' }] }],
  [
    'practice.0.plan.items.0.text',
    { practice: [{ ...week, plan: { ...week.plan, items: [{ ...week.plan.items[0]!, text: '4/4 q' }] } }] },
  ],
  ['ear.0.right', { ear: [{ ...tally, right: 11 }] }],
  ['lessons.0.day', { lessons: [{ ...lesson, day: '2026-13-01' }] }],
  ['lessons.1.id', { lessons: [lesson, lesson] }],
  ['termPlan.until', { termPlan: { ...PIECES.termPlan, until: '2026-01-01' } }],
])('a file that is wrong at %s is refused with that place, and nothing of it is read in', async (field, pieces) => {
  const sound = { ear: [{ ...tally, id: uuid() }] };
  const { status, body } = await ann.ask('PUT', `${path}/copied`, { ...sound, ...pieces });
  expect([status, (body as { error: { field: string } }).error.field]).toEqual([422, field]);
  for (const part of ['terms', 'practice', 'ear', 'lessons', 'line-ups'])
    expect((await ann.ask('GET', `${path}/${part}`)).body).toEqual([]);
});

it('a long lesson lets others be answered in between', async () => {
  const text = `4/4 ${Array.from({ length: 250 }, () => 's s s s s s s s s s s s s s s s').join(' | ')}`;
  const patterns = Array.from({ length: 12 }, () => ({ patternId: ids.patternId, title: 'Long', text }));
  const blocks = Array.from({ length: 3 }, (_, key) => ({ ...lesson.blocks[0]!, key, patterns }));
  const sent = { ...lesson, blocks, held: null } as Record<string, unknown>;
  delete sent['id'];
  let answered = 0;
  let going = true;
  const others = (async () => {
    while (going) {
      await fetch(`${server.url}/livez`);
      answered++;
    }
  })();
  const { status } = await ann.ask('PUT', `${path}/lessons/${uuid()}`, sent);
  going = false;
  await others;
  expect(status).toBe(201);
  // Without a breath between the texts none would be.
  expect(answered).toBeGreaterThan(5);
});
