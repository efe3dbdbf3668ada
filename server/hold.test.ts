import { setTimeout as wait } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { JudgingPreview, type RejudgingState } from '../contract/judging.ts';
import type { ClassRecords } from '../contract/records.ts';
import type { ClassDetail } from '../contract/schoolClass.ts';
import { TakeDetail } from '../contract/take.ts';
import { validator } from '../contract/validate.ts';
import { type Database, Overtaken, openDatabase, retried } from './database.ts';
import { loggable } from './driverErrors.ts';
import { judgesWith } from './judging/judges.ts';
import { rebuildRecords } from './repository/childRecords.ts';
import { removeExpired } from './repository/recordings.ts';
import { updateJudgement } from './repository/takes.ts';
import { childElements, childPatterns, classes, recordingChunks, rejudgings, takes } from './schema.ts';
import { workOnRejudgings } from './services/rejudging.ts';
import { PATIENCE_MS } from './problem.ts';
import type { RunningServer } from './start.ts';
import { type Answer, Visitor, freshDatabase, serverWithTeachers, takesIn } from './testServer.test-helper.ts';
import { turnsOf } from './turns.ts';

const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null, recordingDays: 3 };

let databaseUrl: string;
let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
let ben: Visitor;

beforeAll(async () => {
  databaseUrl = await freshDatabase();
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

async function newClass(visitor = ann) {
  const [room, child] = [uuid(), uuid()];
  await visitor.ask('PUT', `/api/classes/${room}`, CLASS);
  await visitor.ask('PUT', `/api/classes/${room}/children/${child}`, { name: 'Ada' });
  return { room, child };
}
const take = (child: string, change: object = {}) => ({
  childId: child,
  patternId: null,
  title: 'First',
  patternText: '4/4 q q q q',
  bpm: 60,
  onsets: [0, 1.1, 2, 3],
  takenAt: 5,
  ...change,
});
/** What is known of a child, to a millionth. */
async function recordsIn(db: Database, childId: string) {
  const rounded = <Row extends object>(rows: readonly Row[]) =>
    rows.map((row) =>
      Object.fromEntries(
        Object.entries(row).map(([key, value]) => [
          key,
          typeof value === 'number' ? Math.round(value * 1e6) / 1e6 : (value as unknown),
        ]),
      ),
    ) as Row[];
  return {
    elements: rounded(await db.select().from(childElements).where(eq(childElements.childId, childId))),
    patterns: rounded(await db.select().from(childPatterns).where(eq(childPatterns.childId, childId))),
  };
}

const statuses = (answers: readonly Answer[]) => [...new Set(answers.map(({ status }) => status))].sort();

/** What was refused after it had waited its time is asked again, as the app does; what is refused at once is not. */
async function patiently(ask: () => Promise<Answer>): Promise<Answer> {
  for (;;) {
    const asked = performance.now();
    const answer = await ask();
    if (answer.status !== 503 || performance.now() - asked < PATIENCE_MS) return answer;
  }
}

describe('many at once', () => {
  it('thirty children, their names, takes and marks: none fails, and all are there', async () => {
    const { room } = await newClass();
    const ids = Array.from({ length: 30 }, () => ({ child: uuid(), take: uuid() }));
    const each = (action: (one: (typeof ids)[number], i: number) => Promise<Answer>) =>
      Promise.all(ids.map((one, i) => patiently(() => action(one, i))));
    const path = `/api/classes/${room}`;
    expect(
      statuses(await each(({ child }, i) => ann.ask('PUT', `${path}/children/${child}`, { name: `c${i}` }))),
    ).toEqual([201]);
    const mixed = await Promise.all([
      each((one) => ann.ask('PUT', `/api/takes/${one.take}`, take(one.child))),
      each((one) => ann.ask('PUT', `${path}/children/${one.child}`, { name: 'again' })),
      each(() => ann.ask('PUT', path, { ...CLASS, name: 'Terns' })),
      each(() => ann.ask('GET', path)),
    ]);
    expect(mixed.map(statuses)).toEqual([[200], [200], [200], [200]]);
    expect((await takesIn(ann, room)).map(({ id }) => id).sort()).toEqual(ids.map((one) => one.take).sort());
  });
  it('the same thing three times: each is answered well, and it is there once', async () => {
    const { room, child } = await newClass();
    const things = Array.from(
      { length: 5 },
      () =>
        [
          ['takes', take(child)],
          ['patterns', { title: 'Steps', text: '4/4 q q h' }],
          ['classes', CLASS],
          [`classes/${room}/children`, { name: 'Bo' }],
        ] as const,
    ).flat();
    const answers = await Promise.all(
      things.flatMap(([where, body]) => {
        const path = `/api/${where}/${uuid()}`;
        return [1, 2, 3].map(() => ann.ask('PUT', path, body));
      }),
    );
    expect(statuses(answers).filter((status) => status > 201)).toEqual([]);
    expect(await takesIn(ann, room)).toHaveLength(5);
  });
  it('takes of one class, some of before, some sent twice or of nobody: records are as if one by one', async () => {
    const { room, child } = await newClass();
    const other = uuid();
    await ann.ask('PUT', `/api/classes/${room}/children/${other}`, { name: 'Bo' });
    const texts = ['4/4 q q q q', '4/4 q q h', '4/4 q e e q q'];
    const sent = Array.from({ length: 60 }, (_, i) => ({
      id: uuid(),
      // The first half in order, then some that are older than what is known.
      body: take(i % 3 === 0 ? other : child, {
        takenAt: 10_000 + (i < 40 ? i * 1_000 : ((i * 7) % 40) * 1_000 + 500),
        patternText: texts[(i >> 1) % texts.length],
        onsets: [0, 1 + (i % 5) * 0.04, 2, 3],
      }),
    }));
    const put = ({ id, body }: (typeof sent)[number]) => ann.ask('PUT', `/api/takes/${id}`, body);
    const answers = await Promise.all(sent.flatMap((one, i) => (i % 10 === 0 ? [put(one), put(one)] : [put(one)])));
    const nobody = await Promise.all([uuid(), uuid()].map((id) => ann.ask('PUT', `/api/takes/${id}`, take(uuid()))));
    expect([statuses(answers), statuses(nobody)]).toEqual([[200], [404]]);
    expect(new Set((await takesIn(ann, room)).map(({ id }) => id)).size).toBe(60);
    for (const one of [child, other]) {
      const before = await recordsIn(open.db, one);
      expect(before.elements.length).toBeGreaterThan(1);
      expect(before.patterns.reduce((sum, { takes: heard }) => sum + heard, 0)).toBe(one === other ? 20 : 40);
      await rebuildRecords(open.db, one);
      expect(await recordsIn(open.db, one)).toEqual(before);
    }
  });
  it('a class that is deleted meanwhile: what comes too late is not found, nothing fails', async () => {
    const rooms = await Promise.all(Array.from({ length: 6 }, () => newClass()));
    const asked = rooms.map(async ({ room, child }, i) => {
      const some = () => Array.from({ length: 6 }, () => ann.ask('PUT', `/api/takes/${uuid()}`, take(child)));
      const before = some();
      // So that some are judged before and stored after it.
      await wait(i * 4);
      return Promise.all([...before, ann.ask('DELETE', `/api/classes/${room}`), ...some()]);
    });
    const answers = (await Promise.all(asked)).flat();
    expect(statuses(answers).filter((status) => ![200, 204, 404].includes(status))).toEqual([]);
  });
  it('jobs of one owner take turns, those of others do not wait for them', async () => {
    const turns = turnsOf(1, 3);
    const log: string[] = [];
    const job = (name: string, ms: number) => async () => {
      log.push(name);
      await wait(ms);
    };
    const all = [turns('a', job('a1', 60)), turns('a', job('a2', 1)), turns('b', job('b1', 1))];
    await Promise.all(all);
    expect(log).toEqual(['a1', 'b1', 'a2']);
    const many = await Promise.allSettled(Array.from({ length: 6 }, () => turns('a', job('a', 5))));
    expect(many.filter(({ status }) => status === 'rejected')).toHaveLength(2);
  });
  it('a job whose turn comes too late is refused, and the next one has its own', async () => {
    const turns = turnsOf(1, 3, 50);
    const done: string[] = [];
    const job = (name: string, ms: number) => async () => {
      await wait(ms);
      done.push(name);
    };
    const [, late] = await Promise.allSettled([turns('a', job('1', 120)), turns('a', job('2', 0))]);
    await turns('a', job('3', 0));
    expect([done, late.status]).toEqual([['1', '3'], 'rejected']);
  });
  it.each(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD', 'ER_DUP_ENTRY', 'ER_NO_REFERENCED_ROW_2'])(
    '%s: done again, and no other error is',
    async (code) => {
      let tries = 0;
      const failing = (known: string) => () => {
        tries++;
        return tries === 1
          ? Promise.reject(Object.assign(new Error(), { cause: { code: known } }))
          : Promise.resolve(7);
      };
      expect([await retried(failing(code)), tries]).toEqual([7, 2]);
      tries = 0;
      await expect(retried(failing('ER_DATA_TOO_LONG'))).rejects.toThrow();
    },
  );
  it('what collides all the time is refused after a while, and told when to come again', async () => {
    let tries = 0;
    const now = vi.spyOn(performance, 'now').mockImplementation(() => tries * 4_000);
    const collide = () => {
      tries++;
      return tries > 9 ? Promise.resolve() : Promise.reject(new Overtaken('again'));
    };
    await expect(retried(collide)).rejects.toMatchObject({ status: 429, detail: { retryAfter: 1 } });
    now.mockRestore();
    expect(tries).toBe(3);
  });
});

describe('a statement that takes too long', () => {
  it('fails, and takes its connection along: the next one does not wait for it', async () => {
    const { pool } = openDatabase(databaseUrl, { connections: 1, statementMs: 1_500 });
    await expect(pool.query('select sleep(5)')).rejects.toMatchObject({ code: 'PROTOCOL_SEQUENCE_TIMEOUT' });
    const [rows] = await pool.query('select 1 as one');
    expect(rows).toEqual([{ one: 1 }]);
    const held = await pool.getConnection();
    await expect(pool.query('select 1')).rejects.toMatchObject({ code: 'POOL_TIMEOUT' });
    held.release();
    expect((await pool.query('select 1 as one'))[0]).toEqual([{ one: 1 }]);
    await pool.end();
  });
});

describe('a database that is busy', () => {
  const turns = (limits: Parameters<typeof openDatabase>[1], each: number) => {
    const { pool } = openDatabase(databaseUrl, { connections: 1, ...limits });
    const all = Promise.allSettled(Array.from({ length: 12 }, () => pool.query(`select sleep(${each})`)));
    return all.then(async (ended) => {
      await pool.end();
      return ended.filter(({ status }) => status === 'rejected').length;
    });
  };
  it('is waited for while others get their turn, however long that is in all', async () => {
    // All of them take longer than the patience, one of them ten times less: a machine may stop for a moment.
    expect(await turns({ connectionMs: 3_000 }, 0.3)).toBe(0);
  });
  it('is given up when nobody gets a turn', async () => {
    expect(await turns({ connectionMs: 100, statementMs: 1_000 }, 0.5)).toBeGreaterThan(0);
  });
});

describe('a long take', () => {
  const long = (measures: number) =>
    Array.from({ length: measures }, () => 's'.repeat(16).split('').join(' ')).join(' | ');
  it('is judged while everybody else is answered', async () => {
    const [mine, hers] = [await newClass(), await newClass(ben)];
    const onsets = Array.from({ length: 2_300 }, (_, i) => i * 0.26 + (i % 7) * 0.03);
    const id = uuid();
    const judged = patiently(() =>
      ann.ask('PUT', `/api/takes/${id}`, take(mine.child, { patternText: `4/4 ${long(155)}`, onsets })),
    );
    const order: string[] = [];
    const both = [
      judged.then(() => order.push('long')),
      ben.ask('PUT', `/api/takes/${uuid()}`, take(hers.child)).then(() => order.push('short')),
    ];
    await Promise.all(both);
    expect([(await judged).status, order]).toEqual([200, ['short', 'long']]);
  });
  it('beyond all classrooms is refused with what to do', async () => {
    const { child } = await newClass();
    const onsets = Array.from({ length: 9_000 }, (_, i) => i / 10);
    const answer = await ann.ask(
      'PUT',
      `/api/takes/${uuid()}`,
      take(child, { patternText: `4/4 ${long(235)}`, onsets }),
    );
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([422, expect.stringContaining('fewer measures')]);
  });
  it('that takes too long is given up, and the next one is judged', async () => {
    const judges = judgesWith(-3_800);
    const settings = { ages: '9-10' } as const;
    const played = {
      patternText: `4/4 ${long(200)}`,
      bpm: 60,
      onsets: Array.from({ length: 3_000 }, (_, i) => i * 0.27),
    };
    await expect(
      judges.judge(
        'a',
        Array.from({ length: 40 }, () => ({ settings, played })),
      ),
    ).rejects.toThrow('too long');
    await judges.close();
    const others = judgesWith();
    expect(await others.judge('a', [{ settings, played: { ...played, patternText: '4/4 x' } }])).toEqual([
      { trouble: expect.stringContaining('cannot be read') as unknown },
    ]);
    await others.close();
  });
});

describe('settings that judge otherwise', () => {
  const many = 60;
  async function heard() {
    const { room, child } = await newClass();
    const ids = Array.from({ length: many }, () => uuid());
    await Promise.all(
      ids.map((id, i) => ann.ask('PUT', `/api/takes/${id}`, take(child, { takenAt: i % 7, onsets: [0, 1.06, 2, 3] }))),
    );
    return { room, ids };
  }
  const accuracies = async (room: string) => [...new Set((await takesIn(ann, room)).map(({ accuracy }) => accuracy))];
  /** Saved by a server that dies before it has judged one take again. */
  async function savedAndKilled(room: string) {
    await open.db.update(classes).set({ onTimeMs: 25, judgingRevision: 1 }).where(eq(classes.id, room));
    const job = { revision: 1, total: many, takenAt: Number.MAX_SAFE_INTEGER, takeId: '', done: 0 };
    await open.db.insert(rejudgings).values({ classId: room, ...job, owner: 'dead', leasedUntil: Date.now() + 300 });
  }

  it('change every mark of the class', async () => {
    const { room } = await heard();
    expect(await accuracies(room)).toEqual([1]);
    await ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, onTimeMs: 25 });
    await jobIsDone(room);
    expect(await accuracies(room)).toEqual([0.875]);
    expect((await ann.ask('GET', `/api/classes/${room}/rejudging`)).body).toEqual({ running: false });
    expect((await ben.ask('GET', `/api/classes/${room}/rejudging`)).status).toBe(404);
  });
  it('are applied by another server when the first one was killed', async () => {
    const { room } = await heard();
    await savedAndKilled(room);
    const state = (await ann.ask('GET', `/api/classes/${room}/rejudging`)).body as RejudgingState;
    expect(state).toMatchObject({ running: true, done: 0, total: many });
    for (let i = 0; i < 100 && (await accuracies(room))[0] !== 0.875; i++) await wait(50);
    await jobIsDone(room);
    expect(await accuracies(room)).toEqual([0.875]);
  });
  it('go on where they were, and one server at a time works on a class', async () => {
    const { room, ids } = await heard();
    await savedAndKilled(room);
    // As far as take 20 in the list the dead one had come.
    const list = await takesIn(ann, room);
    const at = list[20]!;
    await open.db
      .update(rejudgings)
      .set({ takenAt: at.takenAt, takeId: at.id, done: 21 })
      .where(eq(rejudgings.classId, room));
    const judges = judgesWith();
    const ending = new AbortController();
    const problems: unknown[] = [];
    const workers = [1, 2, 3].map(() =>
      workOnRejudgings({ db: open.db, judges }, ending.signal, (error) => problems.push(error), 500),
    );
    await jobIsDone(room);
    ending.abort();
    await Promise.all(workers);
    await judges.close();
    const after = await takesIn(ann, room);
    expect(after.map(({ id }) => id)).toEqual(list.map(({ id }) => id));
    expect(after.map(({ accuracy }) => accuracy)).toEqual(list.map((_, i) => (i <= 20 ? 1 : 0.875)));
    expect([ids.length, problems]).toEqual([many, []]);
  });
  it('do not undo what a teacher corrects meanwhile', async () => {
    const { room, ids } = await heard();
    const [id] = ids;
    await Promise.all([
      ann.ask('PUT', `/api/classes/${room}`, { ...CLASS, onTimeMs: 25 }),
      ann.ask('PUT', `/api/takes/${id}/onsets`, { onsets: [0, 1, 3] }),
      ann.ask('PUT', `/api/takes/${id}/onsets`, { onsets: [0, 1] }),
    ]);
    await jobIsDone(room);
    const { body } = await ann.ask('GET', `/api/takes/${id}`);
    const { onsets, accuracy } = body as TakeDetail;
    expect(accuracy).toBe(onsets.length === 2 ? 0.5 : 0.75);
  });
  it('write nothing over claps that are others by now', async () => {
    const { child } = await newClass();
    const id = uuid();
    await ann.ask('PUT', `/api/takes/${id}`, take(child));
    const [row] = await open.db.select().from(takes).where(eq(takes.id, id));
    expect(await updateJudgement(open.db, id, { ...row!, accuracy: 0 }, [0, 1, 2])).toBe(false);
    expect((await ann.ask('GET', `/api/takes/${id}`)).body).toMatchObject({ accuracy: row!.accuracy });
    expect(await updateJudgement(open.db, id, { ...row!, accuracy: 0 }, row!.onsets)).toBe(true);
  });
  it('are tried on the newest takes only, and the preview says so', async () => {
    const { room } = await heard();
    const trial = { ages: '9-10', onTimeMs: 25, borders: null };
    const { body } = await ann.ask('POST', `/api/classes/${room}/judging-preview`, trial);
    expect(validator(JudgingPreview)(body).ok).toBe(true);
    expect(body).toMatchObject({ takes: many, all: many });
  });

  async function jobIsDone(room: string): Promise<void> {
    for (let i = 0; i < 200; i++) {
      const rows = await open.db.select().from(rejudgings).where(eq(rejudgings.classId, room));
      if (rows.length === 0) return;
      await wait(50);
    }
    throw new Error('the job is not done');
  }
});

describe('a recording', () => {
  const audio = { 'content-type': 'audio/wav' };
  const sound = (bytes: number) => {
    const made = Buffer.alloc(bytes);
    for (let i = 0; i < bytes; i++) made[i] = (i * 7 + (i >> 8)) % 251;
    return made;
  };
  async function stored() {
    const { room, child } = await newClass();
    const id = uuid();
    await ann.ask('PUT', `/api/takes/${id}`, take(child));
    return { room, child, path: `/api/takes/${id}/recording`, id };
  }
  const heard = async (path: string) => {
    const response = await fetch(server.url + path, { headers: ann.headers });
    return { status: response.status, bytes: Buffer.from(await response.arrayBuffer()), headers: response.headers };
  };
  const pieces = async (id: string) =>
    (await open.db.select({ n: recordingChunks.number }).from(recordingChunks).where(eq(recordingChunks.takeId, id)))
      .length;

  it.each([1, 262_144, 262_145, 2_000_001])('of %i bytes comes back as it was', async (bytes) => {
    const { path } = await stored();
    const sent = sound(bytes);
    expect((await ann.send('PUT', path, sent, audio)).status).toBe(204);
    const back = await heard(path);
    expect([back.status, back.headers.get('content-length'), back.bytes.equals(sent)]).toEqual([
      200,
      String(bytes),
      true,
    ]);
  });
  it('takes the place of the one before, and its pieces go with the take', async () => {
    const { path, id } = await stored();
    await ann.send('PUT', path, sound(600_000), audio);
    await ann.send('PUT', path, sound(10), audio);
    expect([(await heard(path)).bytes.length, await pieces(id)]).toEqual([10, 1]);
    await ann.ask('DELETE', `/api/takes/${id}`);
    // It lies in the bin with its take, and goes with it.
    expect(await pieces(id)).toBe(1);
    expect((await ann.ask('DELETE', `/api/bin/take/${id}`)).status).toBe(204);
    expect(await pieces(id)).toBe(0);
  });
  it('that breaks off is none, and leaves nothing behind', async () => {
    const { path, id } = await stored();
    const half = new ReadableStream<Uint8Array>({
      start(controller) {
        controller.enqueue(sound(400_000));
        setTimeout(() => controller.error(new Error('the network went away')), 100);
      },
    });
    const init = { method: 'PUT', body: half, duplex: 'half', headers: { ...ann.headers, ...audio } };
    await expect(fetch(server.url + path, init as RequestInit)).rejects.toThrow();
    await wait(300);
    expect([(await heard(path)).status, await pieces(id)]).toEqual([404, 0]);
  });
  it('too long is refused whether it says how long it is or not', async () => {
    const { path, id } = await stored();
    expect((await ann.send('PUT', path, Buffer.alloc(31_500_000), audio)).status).toBe(413);
    let left = 130;
    const endless = new ReadableStream<Uint8Array>({
      pull: (controller) => (left-- > 0 ? controller.enqueue(new Uint8Array(262_144)) : controller.close()),
    });
    const init = { method: 'PUT', body: endless, duplex: 'half', headers: { ...ann.headers, ...audio } };
    const answer = await fetch(server.url + path, init as RequestInit).catch(() => ({ status: 413 }));
    expect([answer.status, (await heard(path)).status, await pieces(id)]).toEqual([413, 404, 0]);
  });
  it.each([
    ['text/html', 422],
    ['audio/', 422],
    ['', 422],
    ['audio/x; codecs="a"', 204],
    ['video/webm', 204],
  ])('called “%s” gets %i', async (mime, status) => {
    const { path } = await stored();
    expect((await ann.send('PUT', path, sound(5), mime === '' ? {} : { 'content-type': mime })).status).toBe(status);
  });
  it('that was never finished is cleared away later; what is kept stays', async () => {
    const { path, id } = await stored();
    await ann.send('PUT', path, sound(5), audio);
    const orphan = { uploadId: uuid(), takeId: id, number: 0, sound: Buffer.from('x') };
    await open.db.insert(recordingChunks).values({ ...orphan, arrivedAt: Date.now() - 3_000_000 });
    await removeExpired(open.db, Date.now());
    expect(await pieces(id)).toBe(2);
    await removeExpired(open.db, Date.now() + 3_600_000);
    expect([await pieces(id), (await heard(path)).status]).toEqual([1, 200]);
  });
});

describe('texts of every script', () => {
  const longest = (n: number) =>
    ['👩🏽‍🎤', '🥁', '𝄞', '한', '﷽']
      .join('')
      .repeat(n)
      .slice(0, 4 * n);
  const fit = (n: number) => [...longest(n)].slice(0, n).join('');
  it('fit wherever the contract lets them in', async () => {
    const [room, child, id, pattern] = [uuid(), uuid(), uuid(), uuid()];
    const name = fit(60);
    const cells = { q: fit(60) };
    const settings = { ...CLASS, name, wordSet: { title: fit(60), cells } };
    expect((await ann.ask('PUT', `/api/classes/${room}`, { ...settings, wordSet: null })).status).toBe(201);
    expect((await ann.ask('PUT', `/api/classes/${room}/children/${child}`, { name })).status).toBe(201);
    const words = `4/4 ${'q'.padEnd(100, ' ')} q h `.repeat(1) + '| w '.repeat(900);
    const text = `${words}${' '.repeat(20_000 - words.length)}`;
    expect((await ann.ask('PUT', `/api/patterns/${pattern}`, { title: name, text })).status).toBe(201);
    const stored = await ann.ask(
      'PUT',
      `/api/takes/${id}`,
      take(child, { title: fit(120), patternText: text, patternId: pattern }),
    );
    expect(stored.status).toBe(200);
    expect((await ann.ask('PUT', `/api/takes/${id}/override`, { mark: 1, reason: fit(200) })).status).toBe(200);
    const { body } = await ann.ask('GET', `/api/takes/${id}`);
    expect(body).toMatchObject({ title: fit(120), patternText: text, overrideReason: fit(200) });
    expect(((await ann.ask('GET', `/api/classes/${room}`)).body as ClassDetail).name).toBe(name);
  });
  it('one letter more is refused with the field', async () => {
    const { room } = await newClass();
    const answer = await ann.ask('PUT', `/api/classes/${room}/children/${uuid()}`, { name: fit(61) });
    expect(answer.body).toMatchObject({ error: { field: 'name' } });
  });
});

describe('what is kept of a class', () => {
  const recordsOf = (room: string, headers = {}) => ann.ask('GET', `/api/classes/${room}/records`, undefined, headers);
  it('is another one when the class is deleted and made again under its id', async () => {
    const { room } = await newClass();
    const first = await recordsOf(room);
    await ann.ask('DELETE', `/api/classes/${room}`);
    expect((await ann.ask('PUT', `/api/classes/${room}`, CLASS)).status).toBe(409);
    await ann.ask('DELETE', `/api/bin/class/${room}`);
    await ann.ask('PUT', `/api/classes/${room}`, CLASS);
    const second = await recordsOf(room);
    expect((second.body as ClassRecords).children).toEqual([]);
    expect(second.headers.get('etag')).not.toBe(first.headers.get('etag'));
    expect((await recordsOf(room, { 'if-none-match': first.headers.get('etag')! })).status).toBe(200);
    expect((await recordsOf(room, { 'if-none-match': second.headers.get('etag')! })).status).toBe(304);
  });
  it('is what a restored backup holds, also when it was changed as often since', async () => {
    const { room, child } = await newClass();
    const read = async () => ((await recordsOf(room)).body as ClassRecords).marks[0]?.takes ?? 0;
    const [backup] = await open.db.select().from(classes).where(eq(classes.id, room));
    const first = uuid();
    await ann.ask('PUT', `/api/takes/${first}`, take(child));
    expect(await read()).toBe(1);
    await open.db.delete(takes).where(eq(takes.id, first));
    await rebuildRecords(open.db, child);
    await open.db.update(classes).set(backup!).where(eq(classes.id, room));
    expect(await read()).toBe(0);
    await Promise.all([uuid(), uuid()].map((id) => ann.ask('PUT', `/api/takes/${id}`, take(child))));
    expect(await read()).toBe(2);
  });
  it('is stored by no browser', async () => {
    const { room } = await newClass();
    for (const path of [`/api/classes/${room}`, '/api/classes', '/api/patterns', '/api/session', '/api/nothing'])
      expect((await ann.ask('GET', path)).headers.get('cache-control')).toBe('no-store');
  });
});

describe('what is written into the log', () => {
  it('never holds what was to be stored', async () => {
    const failing = async () => {
      await open.db.insert(takes).values({ id: 'x'.repeat(99), title: 'Ada’s secret' } as never);
    };
    const error = await failing().catch((reason: unknown) => reason);
    expect(String(error)).toContain('secret');
    const logged = JSON.stringify(loggable(error));
    expect(logged).not.toMatch(/secret|insert into|xxx/);
    expect(logged).toMatch(/ER_|"type"/);
    expect(JSON.stringify(loggable(new TypeError('x is not a function')))).toContain('x is not a function');
    expect(loggable('a word')).toEqual({ type: 'string' });
  });
});

it('a stored take is answered as it is read', async () => {
  const { child } = await newClass();
  const id = uuid();
  const played = take(child, {
    feet: [0, 1, 2, 3],
    releases: [0.5, null, 2.2, 3.1],
    onsets: [0, 1, 2, 3],
    free: false,
  });
  const stored = await ann.ask('PUT', `/api/takes/${id}`, played);
  expect(stored.body).toEqual((await ann.ask('GET', `/api/takes/${id}`)).body);
  expect((await ann.ask('PUT', `/api/takes/${id}`, take(child, { onsets: [] }))).body).toEqual(stored.body);
  expect(validator(TakeDetail)(stored.body).ok).toBe(true);
});
