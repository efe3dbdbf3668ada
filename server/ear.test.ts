import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { EarTallies } from '../contract/ear.ts';
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
const TALLY = { kind: 'choose', takenAt: 1000, right: 7, asked: 10, mistakes: { 'rest-clapped': 2, split: 1 } };
const code = (body: unknown) => (body as { error: { code: string } }).error.code;

async function room(visitor = ann) {
  const path = `/api/classes/${uuid()}`;
  expect((await visitor.ask('PUT', path, CLASS)).status).toBe(201);
  return path;
}
async function talliesOf(path: string, visitor = ann) {
  const { body } = await visitor.ask('GET', `${path}/ear`);
  expect(validator(EarTallies)(body)).toMatchObject({ ok: true });
  return body as EarTallies[];
}
type EarTallies = typeof TALLY & { id: string };

describe('how a class did by ear', () => {
  it('is kept, newest first, once however often it is sent, and can be taken away', async () => {
    const path = await room();
    const [older, newer] = [uuid(), uuid()];
    const put = (id: string, tally: object) => ann.ask('PUT', `${path}/ear/${id}`, tally);
    expect((await put(older, TALLY)).status).toBe(201);
    expect((await put(newer, { ...TALLY, kind: 'signs', takenAt: 2000, mistakes: {} })).status).toBe(201);
    expect((await put(older, TALLY)).status).toBe(200);
    expect(await talliesOf(path)).toEqual([
      { id: newer, ...TALLY, kind: 'signs', takenAt: 2000, mistakes: {} },
      { id: older, ...TALLY },
    ]);
    expect((await ann.ask('DELETE', `${path}/ear/${older}`)).status).toBe(204);
    expect((await ann.ask('DELETE', `${path}/ear/${older}`)).status).toBe(404);
    expect((await talliesOf(path)).map(({ id }) => id)).toEqual([newer]);
  });

  it.each([
    [{ right: 11 }, 'more right answers'],
    [{ asked: 0 }, 'asked'],
    [{ kind: 'sing' }, 'kind'],
    [{ mistakes: { 'A B': 1 } }, 'mistakes'],
    [{ mistakes: { split: 0 } }, 'mistakes'],
  ])('%j is refused with a word on it', async (change, word) => {
    const path = await room();
    const { status, body } = await ann.ask('PUT', `${path}/ear/${uuid()}`, { ...TALLY, ...change });
    expect([400, 422]).toContain(status);
    expect(JSON.stringify(body)).toContain(word);
    expect(await talliesOf(path)).toEqual([]);
  });

  it('is nobody else’s, and who may only look adds nothing', async () => {
    const path = await room();
    const id = uuid();
    await ann.ask('PUT', `${path}/ear/${id}`, TALLY);
    expect((await ben.ask('GET', `${path}/ear`)).status).toBe(404);
    expect((await ben.ask('PUT', `${path}/ear/${uuid()}`, TALLY)).status).toBe(404);
    const own = await room(ben);
    expect((await ben.ask('PUT', `${own}/ear/${id}`, TALLY)).status).toBe(404);
    expect((await ben.ask('DELETE', `${own}/ear/${id}`)).status).toBe(404);
    await ann.ask('PUT', `${path}/shares`, { name: 'Ben', role: 'look' });
    expect(await talliesOf(path, ben)).toHaveLength(1);
    const { status, body } = await ben.ask('DELETE', `${path}/ear/${id}`);
    expect([status, code(body)]).toEqual([403, 'only-look']);
  });

  it('goes into the file of a class and out of it', async () => {
    const path = await room();
    await ann.ask('PUT', `${path}/ear/${uuid()}`, TALLY);
    const { body } = await ann.ask('GET', `${path}/copy`);
    const { ear } = body as { ear: EarTallies[] };
    expect(ear).toMatchObject([TALLY]);
    const other = await room();
    const id = uuid();
    expect((await ann.ask('PUT', `${other}/copied`, { ear: [{ ...ear[0], id }] })).status).toBeLessThan(300);
    expect(await talliesOf(other)).toEqual([{ id, ...TALLY }]);
    expect((await ann.ask('PUT', `${other}/copied`, { ear })).status).toBe(404);
  });
});

describe('words over a stretch of a pattern', () => {
  const BRACKETS = [{ from: { measure: 1, beat: 2 }, to: { measure: 1, beat: 3 }, words: 'watch the rest' }];
  const PATTERN = { title: 'Steps', text: '4/4 q (q) q q' };
  const saved = async (id: string) => {
    const { body } = await ann.ask('GET', '/api/patterns');
    return (body as { id: string }[]).find((one) => one.id === id);
  };

  it('stay when only the rest is changed, and go when none are sent', async () => {
    const id = uuid();
    const put = (edit: object) => ann.ask('PUT', `/api/patterns/${id}`, edit);
    expect((await put(PATTERN)).status).toBe(201);
    expect(await saved(id)).toEqual({ id, ...PATTERN });
    // From a page that knows of none.
    expect((await put({ ...PATTERN, brackets: BRACKETS, was: { ...PATTERN, brackets: [] } })).status).toBe(200);
    expect(await saved(id)).toEqual({ id, ...PATTERN, brackets: BRACKETS });
    const was = { ...PATTERN, brackets: BRACKETS };
    expect((await put({ ...PATTERN, title: 'Other' })).status).toBe(200);
    expect(await saved(id)).toMatchObject({ title: 'Other', brackets: BRACKETS });
    // Somebody else changed the words meanwhile: the second is told.
    await put({ ...PATTERN, brackets: [{ ...BRACKETS[0], words: 'two' }] });
    const clash = await put({ ...PATTERN, was, brackets: [{ ...BRACKETS[0], words: 'three' }] });
    expect([clash.status, code(clash.body)]).toEqual([409, 'changed-meanwhile']);
    await put({ ...PATTERN, brackets: [] });
    expect(await saved(id)).toEqual({ id, ...PATTERN });
  });

  it.each([
    [[{ ...BRACKETS[0], words: ' ' }], 'words'],
    [[{ ...BRACKETS[0], from: { measure: 1, beat: 0 } }], 'from'],
    [Array.from({ length: 25 }, () => BRACKETS[0]), 'brackets'],
  ])('%j is refused', async (brackets, word) => {
    const { status, body } = await ann.ask('PUT', `/api/patterns/${uuid()}`, { ...PATTERN, brackets });
    expect([400, 422]).toContain(status);
    expect(JSON.stringify(body)).toContain(word);
  });
});
