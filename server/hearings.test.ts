import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Hearings, TakesTogether } from '../contract/together.ts';
import { validator } from '../contract/validate.ts';
import { classHeard } from '../core/ensemble/classHeard.ts';
import { strikesOfTakes } from '../core/ensemble/strikes.ts';
import { patternOf } from '../core/rhythm/arbitrary.test-helper.ts';
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
const TEXT = '4/4 q q (q) q | h q q';
const CHILDREN = Array.from({ length: 6 }, (_, i) => [0, 1, 3, 4, 6, 7].map((beat) => beat * 0.75 + i * 0.01));
const heard = classHeard(patternOf(TEXT), 80, strikesOfTakes(CHILDREN));
const HEARING = { takenAt: 1000, title: 'Low tide', patternText: TEXT, bpm: 80, from: 'microphone', heard };
const code = (body: unknown) => (body as { error: { code: string } }).error.code;

async function room(visitor = ann) {
  const path = `/api/classes/${uuid()}`;
  expect((await visitor.ask('PUT', path, CLASS)).status).toBe(201);
  return path;
}
async function hearingsOf(path: string) {
  const { body } = await ann.ask('GET', `${path}/together`);
  expect(validator(Hearings)(body)).toMatchObject({ ok: true });
  return body as Hearings;
}
type Hearings = (typeof HEARING & { id: string })[];

describe('how a class clapped together', () => {
  it('is kept as it was heard, newest first, once however often it is sent, and can be taken away', async () => {
    const path = await room();
    const [older, newer] = [uuid(), uuid()];
    const put = (id: string, hearing: object) => ann.ask('PUT', `${path}/together/${id}`, hearing);
    expect((await put(older, HEARING)).status).toBe(201);
    expect((await put(newer, { ...HEARING, takenAt: 2000, from: 'takes' })).status).toBe(201);
    expect((await put(older, HEARING)).status).toBe(200);
    expect(await hearingsOf(path)).toEqual([
      { id: newer, ...HEARING, takenAt: 2000, from: 'takes' },
      { id: older, ...HEARING },
    ]);
    expect((await ann.ask('DELETE', `${path}/together/${older}`)).status).toBe(204);
    expect((await ann.ask('DELETE', `${path}/together/${older}`)).status).toBe(404);
    expect((await hearingsOf(path)).map(({ id }) => id)).toEqual([newer]);
    // It is in the bin by its title, and comes back whole.
    const { body } = await ann.ask('GET', '/api/bin');
    expect(body).toMatchObject([{ kind: 'hearing', id: older, name: 'Low tide' }]);
    expect((await ann.ask('POST', `/api/bin/hearing/${older}/out`, {})).status).toBeLessThan(300);
    expect((await hearingsOf(path)).map(({ id }) => id)).toEqual([newer, older]);
  });

  it.each([
    [{ heard: { ...heard, child: 'Ada' } }, 'heard.child'],
    [{ heard: { ...heard, notes: [{ ...heard.notes[0], loudness: -1 }] } }, 'loudness'],
    [{ from: 'a friend' }, 'from'],
    [{ bpm: 0 }, 'bpm'],
  ])('%j is refused with a word on it', async (change, word) => {
    const path = await room();
    const { status, body } = await ann.ask('PUT', `${path}/together/${uuid()}`, { ...HEARING, ...change });
    expect([status, code(body)]).toEqual([422, 'bad-request']);
    expect(JSON.stringify(body)).toContain(word);
  });

  it('of a class goes into no other, and another teacher neither sees nor takes it', async () => {
    const [path, other] = [await room(), await room()];
    const id = uuid();
    expect((await ann.ask('PUT', `${path}/together/${id}`, HEARING)).status).toBe(201);
    expect((await ann.ask('PUT', `${other}/together/${id}`, HEARING)).status).toBe(404);
    expect((await ann.ask('DELETE', `${other}/together/${id}`)).status).toBe(404);
    expect((await ben.ask('GET', `${path}/together`)).status).toBe(404);
    expect((await ben.ask('PUT', `${path}/together/${uuid()}`, HEARING)).status).toBe(404);
    expect(await hearingsOf(path)).toHaveLength(1);
  });

  it('goes into the file of the class and out of it', async () => {
    const path = await room();
    const id = uuid();
    await ann.ask('PUT', `${path}/together/${id}`, HEARING);
    const { body } = await ann.ask('GET', `${path}/copy`);
    const { together } = body as { together: Hearings };
    expect(together).toEqual([{ id, ...HEARING }]);
    const other = await room();
    const anew = uuid();
    const sent = await ann.ask('PUT', `${other}/copied`, { together: [{ ...together[0], id: anew }] });
    expect(sent.status).toBeLessThan(300);
    expect(await hearingsOf(other)).toEqual([{ id: anew, ...HEARING }]);
  });
});

describe('single takes beside each other', () => {
  const BEATS = [0, 1, 3, 4, 6, 7].map((beat) => beat * 0.75);
  async function withTakes() {
    const path = await room();
    const [ada, bo, patternId] = [uuid(), uuid(), uuid()];
    for (const [id, name] of [
      [ada, 'Ada'],
      [bo, 'Bo'],
    ])
      await ann.ask('PUT', `${path}/children/${id}`, { name });
    await ann.ask('PUT', `/api/patterns/${patternId}`, { title: 'Low tide', text: TEXT });
    const take = async (childId: string, more: object = {}) => {
      const id = uuid();
      const { status } = await ann.ask('PUT', `/api/takes/${id}`, {
        childId,
        patternId,
        title: 'Low tide',
        patternText: TEXT,
        bpm: 80,
        onsets: BEATS,
        takenAt: 1000,
        ...more,
      });
      expect(status).toBeLessThan(300);
      return id;
    };
    const seen = async (visitor = ann, pattern = patternId) => {
      const { status, body } = await visitor.ask('GET', `${path}/together/takes?pattern=${pattern}`);
      if (status === 200) expect(validator(TakesTogether)(body)).toMatchObject({ ok: true });
      return { status, body: body as TakesTogether };
    };
    return { path, ada, bo, take, seen };
  }

  it('are those of the pattern, newest first, a free one on its own beat; what was marked by hand counts', async () => {
    const { ada, bo, take, seen } = await withTakes();
    const [first, second] = [
      await take(ada),
      await take(bo, { takenAt: 2000, free: true, onsets: BEATS.map((t) => 5 + t * 1.1) }),
    ];
    await ann.ask('PUT', `/api/takes/${first}/override`, { mark: 1, reason: 'late' });
    await take(bo, { source: 'practice', takenAt: 3000 });
    const { body } = await seen();
    expect(body).toMatchObject({ patternText: TEXT, title: 'Low tide', others: 0 });
    expect(body.takes.map(({ id, childId, mark }) => [id, childId, mark])).toEqual([
      [second, bo, 4],
      [first, ada, 1],
    ]);
    for (const { onsets } of body.takes) onsets.forEach((onset, i) => expect(onset).toBeCloseTo(BEATS[i]!, 6));
  });

  it('of another text, and free ones of which nothing was right, are counted only', async () => {
    const { ada, bo, take, seen } = await withTakes();
    await take(ada, { patternText: '4/4 w', onsets: [0], takenAt: 500 });
    const kept = await take(bo);
    await take(bo, { free: true, onsets: [3], takenAt: 600 });
    const { body } = await seen();
    expect([body.others, body.takes.map(({ id }) => id)]).toEqual([2, [kept]]);
  });

  it('are none of a child in the bin, of another pattern, and of another teacher’s class', async () => {
    const { path, ada, take, seen } = await withTakes();
    await take(ada);
    expect((await seen(ann, uuid())).body).toEqual({ patternText: '', title: '', others: 0, takes: [] });
    expect((await seen(ben)).status).toBe(404);
    await ann.ask('DELETE', `${path}/children/${ada}`);
    expect((await seen()).body.takes).toEqual([]);
  });
});
