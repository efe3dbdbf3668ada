import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { FIRST_SCHOOL } from '../contract/school.ts';
import type { ShelfItem, ShelfThing } from '../contract/schoolShelf.ts';
import { bodiesWith } from './everyRoute.test-helper.ts';
import { openDatabase } from './database.ts';
import { makeAdministrator } from './repository/schools.ts';
import { findTeacherByName } from './repository/teachers.ts';
import type { RunningServer } from './start.ts';
import { type Answer, Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

const SHELF = `/api/schools/${FIRST_SCHOOL}/shelf`;

let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
let ben: Visitor;
let cleo: Visitor;

const code = ({ status, body }: Answer) =>
  `${status} ${(body as { error?: { code: string } } | undefined)?.error?.code}`;
const STEPS: ShelfThing = { kind: 'pattern', pattern: { title: 'Steps', text: '4/4 q q h' } };
const item = (more: object = {}) => ({ title: 'Steps', about: 'for the first week', thing: STEPS, ...more });
const list = async (who: Visitor) => (await who.ask('GET', SHELF)).body as ShelfItem[];

beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 1 });
  await makeAdministrator(open.db, FIRST_SCHOOL, (await findTeacherByName(open.db, 'Ann'))!.id);
  [ann, ben, cleo] = [new Visitor(server.url), new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
  await cleo.signIn('Cleo');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

describe('the shelf of a school', () => {
  it('has what a colleague lays on it, who made it, and lets others take it', async () => {
    const id = uuid();
    expect((await ben.ask('PUT', `${SHELF}/${id}`, item())).status).toBe(201);
    expect((await ben.ask('PUT', `${SHELF}/${id}`, item({ about: 'again' }))).status).toBe(200);
    expect(await list(cleo)).toMatchObject([
      { id, title: 'Steps', about: 'again', kind: 'pattern', from: 'Ben, Our school', mine: false },
    ]);
    expect((await cleo.ask('GET', `${SHELF}/${id}`)).body).toMatchObject({ thing: STEPS });
  });

  it('is tidied by whose thing it is, and by an administrator', async () => {
    const id = uuid();
    await ben.ask('PUT', `${SHELF}/${id}`, item());
    expect(code(await cleo.ask('PUT', `${SHELF}/${id}`, item()))).toBe('403 not-yours');
    expect(code(await cleo.ask('DELETE', `${SHELF}/${id}`))).toBe('403 not-yours');
    expect((await list(ann)).find((one) => one.id === id)).toMatchObject({ mine: true });
    expect((await ann.ask('DELETE', `${SHELF}/${id}`)).status).toBe(204);
    expect(code(await ben.ask('DELETE', `${SHELF}/${id}`))).toBe('404 not-found');
    expect(code(await ben.ask('GET', `${SHELF}/${id}`))).toBe('404 not-found');
  });

  it('takes things of every kind, with who made them elsewhere', async () => {
    const { PLAN, SHEET, LESSON, TERM } = bodiesWith({
      classId: uuid(),
      childId: uuid(),
      takeId: uuid(),
      patternId: uuid(),
    });
    const { classId: _c, names: _n, ...sheet } = SHEET;
    const { day: _d, starts: _s, held: _h, ...lesson } = LESSON;
    const things = [
      { kind: 'lines', patterns: [{ title: 'A', text: '4/4 q q h' }] },
      { kind: 'plan', plan: PLAN },
      { kind: 'sheet', sheet },
      { kind: 'lesson', lesson },
      { kind: 'term', term: { order: TERM.order, contents: TERM.contents } },
    ];
    for (const thing of things) {
      const answer = await cleo.ask('PUT', `${SHELF}/${uuid()}`, item({ thing, from: 'Ilse, Hill School' }));
      expect([thing.kind, answer.status, answer.body]).toEqual([thing.kind, 201, expect.anything()]);
    }
    const kinds = (await list(cleo)).filter(({ from }) => from === 'Ilse, Hill School').map(({ kind }) => kind);
    expect(kinds.toSorted()).toEqual(['lesson', 'lines', 'plan', 'sheet', 'term']);
  });

  it.each([
    ['a sheet of a class', { kind: 'sheet', sheet: { classId: uuid(), names: true } }],
    ['a lesson that was held', { kind: 'lesson', lesson: { title: 'x', minutes: 40, blocks: [], held: null } }],
    ['a term with its days', { kind: 'term', term: { order: [], contents: [], slots: [] } }],
    ['something else', { kind: 'class' }],
  ])('takes no word of how it was with a class: %s', async (_what, thing) => {
    expect((await ben.ask('PUT', `${SHELF}/${uuid()}`, item({ thing }))).status).toBe(422);
  });

  it('takes no rhythm that cannot be read', async () => {
    const thing = { kind: 'pattern', pattern: { title: 'S', text: '4/4 q q' } };
    expect((await ben.ask('PUT', `${SHELF}/${uuid()}`, item({ thing }))).status).toBe(422);
  });

  describe('no child is named on it', () => {
    beforeAll(async () => {
      const path = `/api/classes/${uuid()}`;
      await ben.ask('PUT', path, { name: 'Terns', ages: '9-10', school: 'ta', rests: null });
      for (const name of ['Mia', 'Jo Lee', 'q']) await ben.ask('PUT', `${path}/children/${uuid()}`, { name });
    });
    const noted = (note: string) => ({
      kind: 'lesson',
      lesson: { title: 'Monday', minutes: 40, blocks: [{ key: 0, kind: 'lead', note, patterns: [], steps: [] }] },
    });
    it.each([
      ['a title', item({ title: 'Steps for Mia' })],
      ['a word on it', item({ about: 'Mia’s favourite' })],
      ['a note in a lesson', item({ thing: noted('then Lee, and Jo again') })],
      ['a title inside', item({ thing: { kind: 'pattern', pattern: { title: 'Mia', text: '4/4 q q h' } } })],
    ])('in %s', async (_where, body) => {
      expect(code(await ben.ask('PUT', `${SHELF}/${uuid()}`, body))).toBe('422 names-a-child');
    });
    it.each([
      ['part of a longer word', item({ about: 'from Miami' })],
      ['half of a name', item({ about: 'Jo clapped' })],
      ['a letter of a rhythm', item()],
    ])('%s is none', async (_what, body) => {
      expect((await ben.ask('PUT', `${SHELF}/${uuid()}`, body)).status).toBe(201);
    });
    it('a colleague who does not teach that child may say the word', async () => {
      expect((await cleo.ask('PUT', `${SHELF}/${uuid()}`, item({ about: 'Mia' }))).status).toBe(201);
    });
  });
});
