import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LineUps } from '../contract/lineUp.ts';
import type { ClassDetail, ClassSummary } from '../contract/schoolClass.ts';
import { Shares } from '../contract/sharing.ts';
import { validator } from '../contract/validate.ts';
import type { RunningServer } from './start.ts';
import { Visitor, freshDatabase, serverOn, serverWithTeachers, takesIn } from './testServer.test-helper.ts';

const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null, counts: 'best' };
const TAKE = { patternId: null, title: 'First', patternText: '4/4 q q q q', bpm: 60, onsets: [0, 1, 2, 3], takenAt: 5 };

let databaseUrl: string;
let server: RunningServer;
let ann: Visitor;
let ben: Visitor;
let cleo: Visitor;
beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  [ann, ben, cleo] = [new Visitor(server.url), new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
  await cleo.signIn('Cleo');
});
afterAll(() => server.stop());

const code = (body: unknown) => (body as { error: { code: string } }).error.code;

/** A class of Ann's with one child and one take. */
async function room() {
  const [id, child, take] = [uuid(), uuid(), uuid()];
  const path = `/api/classes/${id}`;
  await ann.ask('PUT', path, CLASS);
  await ann.ask('PUT', `${path}/children/${child}`, { name: 'Ada' });
  await ann.ask('PUT', `/api/takes/${take}`, { ...TAKE, childId: child });
  return { id, path, child, take };
}
const shareWith = (path: string, role: string, name = 'Ben') => ann.ask('PUT', `${path}/shares`, { name, role });

describe('a class that is shared', () => {
  it('stands in both lists with what each may do, and whose it is', async () => {
    const { id, path } = await room();
    await shareWith(path, 'look');
    const list = async (who: Visitor) =>
      ((await who.ask('GET', '/api/classes')).body as ClassSummary[]).find((one) => one.id === id);
    expect(await list(ann)).toMatchObject({ role: 'owner', owner: 'Ann', children: 1 });
    expect(await list(ben)).toMatchObject({ role: 'look', owner: 'Ann', children: 1 });
    expect((await ben.ask('GET', path)).body).toMatchObject({ role: 'look', owner: 'Ann' });
    await ann.ask('DELETE', path);
    expect(await list(ben)).toBeUndefined();
    expect((await ben.ask('GET', '/api/bin')).body).toEqual([]);
  });

  it('is shared anew, taken back, or left', async () => {
    const { path } = await room();
    await shareWith(path, 'look');
    await shareWith(path, 'hear', ' Ben ');
    const { body } = await ann.ask('GET', `${path}/shares`);
    expect(validator(Shares)(body)).toMatchObject({ ok: true, value: [{ name: 'Ben', role: 'hear' }] });
    const { teacherId } = (body as { teacherId: string }[])[0]!;
    expect((await ann.ask('DELETE', `${path}/shares/${uuid()}`)).status).toBe(404);
    expect((await ann.ask('DELETE', `${path}/shares/${teacherId}`)).status).toBe(204);
    expect((await ben.ask('GET', path)).status).toBe(404);
    await shareWith(path, 'hear');
    expect((await ben.ask('DELETE', `${path}/shares/${teacherId}`)).status).toBe(204);
    expect((await ben.ask('GET', path)).status).toBe(404);
  });

  it('is taken back by whose class it is: nobody it is shared with takes it from another', async () => {
    const { path } = await room();
    await shareWith(path, 'hear');
    await shareWith(path, 'hear', 'Cleo');
    const shares = (await ann.ask('GET', `${path}/shares`)).body as { teacherId: string; name: string }[];
    const cleos = shares.find(({ name }) => name === 'Cleo')!.teacherId;
    const refused = await ben.ask('DELETE', `${path}/shares/${cleos}`);
    expect([refused.status, code(refused.body)]).toEqual([403, 'not-yours']);
    expect((await cleo.ask('GET', path)).status).toBe(200);
  });

  it.each([['Nobody'], ['Ann']])('is not shared with %s', async (name) => {
    const { path } = await room();
    const { status, body } = await shareWith(path, 'hear', name);
    expect([status, code(body)]).toEqual([422, 'no-teacher']);
  });

  it('a line-up brings the patterns of whoever started it, and its takes keep them', async () => {
    const { id, path, child } = await room();
    await shareWith(path, 'hear');
    const pattern = uuid();
    await ann.ask('PUT', `/api/patterns/${pattern}`, { title: 'Steps', text: '4/4 q q h' });
    const settings = {
      patternIds: [pattern],
      seed: 1,
      bpm: 60,
      heardBy: 'tap',
      tries: 1,
      order: 'list',
      startsItself: false,
    };
    const turns = [{ childId: child, patternId: pattern }];
    const lineUp = uuid();
    await ann.ask('PUT', `${path}/line-ups/${lineUp}`, { title: 'First', settings, startedAt: 1, turns });
    const { body } = await ben.ask('GET', `${path}/line-ups`);
    expect(validator(LineUps)(body)).toMatchObject({ ok: true });
    expect(body).toMatchObject([{ patterns: [{ id: pattern, title: 'Steps', text: '4/4 q q h' }] }]);
    expect((await ben.ask('GET', '/api/patterns')).body).toEqual([]);
    const take = { ...TAKE, childId: child, patternId: pattern, lineUpId: lineUp };
    expect((await ben.ask('PUT', `/api/takes/${uuid()}`, take)).status).toBe(200);
    expect(await takesIn(ann, id)).toContainEqual(expect.objectContaining({ patternId: pattern }));
  });
});

describe('two who change the same', () => {
  it('keep what only the other changed, and the second is told where both did', async () => {
    const { path } = await room();
    const was = (({ id: _i, children: _c, role: _r, owner: _o, ...settings }) => settings)(
      (await ann.ask('GET', path)).body as ClassDetail,
    );
    const put = (change: object) => ann.ask('PUT', path, { ...was, ...change, was });
    expect((await put({ name: 'Terns' })).status).toBe(200);
    expect((await put({ school: 'ta' })).body).toMatchObject({ name: 'Terns', school: 'ta' });
    expect((await put({ name: 'Terns' })).status).toBe(200);
    const { status, body } = await put({ name: 'Crabs', ages: '7-8' });
    expect([status, code(body)]).toEqual([409, 'changed-meanwhile']);
    expect(body).toMatchObject({ error: { theirs: { name: 'Terns', school: 'ta' }, parts: ['name'] } });
    expect((await ann.ask('GET', path)).body).toMatchObject({ name: 'Terns', school: 'ta', ages: '9-10' });
    // Without the word of what it was made from, a change takes the place of what is there.
    expect((await ann.ask('PUT', path, CLASS)).body).toMatchObject({ name: 'Gulls' });
  });

  it('a child, a pattern and a column of marks likewise', async () => {
    const { path, child } = await room();
    const kid = (name: string, adaptations: object | null) => ({ name, adaptations });
    const putChild = (to: object, was: object) => ann.ask('PUT', `${path}/children/${child}`, { ...to, was });
    const before = kid('Ada', null);
    expect((await putChild(kid('Ada', { slower: 0.75 }), before)).status).toBe(200);
    expect((await putChild(kid('Eda', null), before)).body).toMatchObject({
      name: 'Eda',
      adaptations: { slower: 0.75 },
    });
    expect((await putChild(kid('Ida', null), before)).status).toBe(409);

    const pattern = `/api/patterns/${uuid()}`;
    const steps = { title: 'Steps', text: '4/4 q q h' };
    await ann.ask('PUT', pattern, steps);
    await ann.ask('PUT', pattern, { ...steps, text: '4/4 h h', was: steps });
    const second = await ann.ask('PUT', pattern, { title: 'Stairs', text: '4/4 w', was: steps });
    expect([second.status, second.body]).toMatchObject([
      409,
      { error: { theirs: { text: '4/4 h h' }, parts: ['text'] } },
    ]);

    const column = `${path}/paper/${uuid()}`;
    const other = uuid();
    await ann.ask('PUT', `${path}/children/${other}`, { name: 'Bo' });
    const marks = (points: object) => ({ title: 'Quiz', outOf: 10, takenAt: 7, points });
    const none = marks({ [child]: null, [other]: null });
    await ann.ask('PUT', column, none);
    await ann.ask('PUT', column, { ...marks({ [child]: 4, [other]: null }), was: none });
    expect((await ann.ask('PUT', column, { ...marks({ [child]: null, [other]: 6 }), was: none })).status).toBe(200);
    const { body } = await ann.ask('GET', `${path}/records`);
    expect((body as { paper: { points: unknown[] }[] }).paper[0]!.points).toHaveLength(2);
    const clash = await ann.ask('PUT', column, { ...marks({ [child]: 1, [other]: null }), was: none });
    expect([clash.status, clash.body]).toMatchObject([409, { error: { parts: [child] } }]);
  });
});

describe('news of a class', () => {
  /** Reads a stream of events until it is told to stop. */
  async function listen(visitor: Visitor, url: string, path: string) {
    const breakOff = new AbortController();
    const response = await fetch(`${url}${path}/events`, { headers: visitor.headers, signal: breakOff.signal });
    const heard: string[] = [];
    let ended = false;
    void (async () => {
      const decoder = new TextDecoder();
      for await (const piece of response.body!)
        heard.push(...[...decoder.decode(piece as Uint8Array).matchAll(/^data: (.*)$/gm)].map(([, word]) => word!));
      ended = true;
    })().catch(() => undefined);
    const until = async (true_: () => boolean) => {
      for (let i = 0; i < 1_200 && !true_(); i++) await wait(50);
      return true_();
    };
    return { status: response.status, heard, until, ended: () => ended, stop: () => breakOff.abort() };
  }

  it('comes through whatever server a change was made, to all who may look', async () => {
    const { path, child } = await room();
    await shareWith(path, 'look');
    const second = await serverOn(databaseUrl);
    const [here, there] = [await listen(ann, server.url, path), await listen(ben, second.url, path)];
    expect([here.status, there.status]).toEqual([200, 200]);
    expect(await here.until(() => here.heard.length === 1 && there.heard.length === 1)).toBe(true);
    await ann.ask('PUT', `/api/takes/${uuid()}`, { ...TAKE, childId: child });
    expect(await here.until(() => here.heard.length > 1 && there.heard.length > 1)).toBe(true);
    expect(here.heard.at(-1)).toBe(there.heard.at(-1));
    await second.stop();
    expect(await there.until(there.ended)).toBe(true);
    here.stop();
  });

  it('says each change once, and nothing where nothing has changed', async () => {
    const [quiet, busy] = [await room(), await room()];
    const [still, news] = [await listen(ann, server.url, quiet.path), await listen(ann, server.url, busy.path)];
    expect(await still.until(() => still.heard.length > 0 && news.heard.length > 0)).toBe(true);
    // As often as it was looked for the busy one, it was looked for the quiet one.
    for (const name of ['Terns', 'Crabs', 'Seals']) {
      const before = news.heard.length;
      await ann.ask('PUT', busy.path, { ...CLASS, name });
      expect(await news.until(() => news.heard.length > before)).toBe(true);
    }
    expect([still.heard.length, news.heard.length]).toEqual([1, 4]);
    expect(new Set(news.heard).size).toBe(4);
    still.stop();
    news.stop();
  });

  it('ends when the class is not shared any more, removed, or its teacher has signed out', async () => {
    const { path } = await room();
    await shareWith(path, 'look');
    const bens = await listen(ben, server.url, path);
    const [{ teacherId }] = (await ann.ask('GET', `${path}/shares`)).body as [{ teacherId: string }];
    await ann.ask('DELETE', `${path}/shares/${teacherId}`);
    expect(await bens.until(bens.ended)).toBe(true);
    const another = new Visitor(server.url);
    await another.signIn('Ann');
    const out = await listen(another, server.url, path);
    await another.ask('DELETE', '/api/session');
    const anns = await listen(ann, server.url, path);
    await ann.ask('PUT', path, { ...CLASS, name: 'Terns' });
    expect(await out.until(out.ended)).toBe(true);
    expect(anns.ended()).toBe(false);
    await ann.ask('DELETE', path);
    expect(await anns.until(anns.ended)).toBe(true);
    expect((await listen(ben, server.url, path)).status).toBe(404);
  });

  it('is not held open without end by one teacher', async () => {
    const { path } = await room();
    const open = await Promise.all(Array.from({ length: 22 }, () => listen(ann, server.url, path)));
    expect(open.filter(({ status }) => status === 429)).toHaveLength(2);
    for (const one of open) one.stop();
    const again = async () => {
      const one = await listen(ann, server.url, path);
      one.stop();
      return one.status;
    };
    for (let i = 0; i < 40 && (await again()) !== 200; i++) await wait(50);
    expect(await again()).toBe(200);
  });
});
