import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ChildRoom, Room, RoomCodes } from '../contract/room.ts';
import { PICTURES, type Picture } from '../contract/roomPictures.ts';
import { openDatabase } from './database.ts';
import { rooms } from './schema.ts';
import { eq, sql } from 'drizzle-orm';
import { forgetRooms } from './services/rooms.ts';
import type { RunningServer } from './start.ts';
import { Device, QUESTION_TASK, TAKE_TASK, deviceOf, namesIn, openRoom, streamOf } from './room.test-helper.ts';
import { Visitor, freshDatabase, serverOn, serverWithTeachers, takesIn } from './testServer.test-helper.ts';

let databaseUrl: string;
let server: RunningServer;
let ann: Visitor;
let open: ReturnType<typeof openDatabase>;
beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 1 });
  ann = new Visitor(server.url);
  await ann.signIn('Ann');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

const problem = ({ status, body }: { status: number; body: unknown }) =>
  `${status} ${(body as { error?: { code: string } } | undefined)?.error?.code}`;

/** Other pictures than those of a room; the first ones may be the same. */
function wrongOnes(pictures: readonly Picture[], same = 0): Picture[] {
  const others = PICTURES.filter((one) => !pictures.includes(one));
  return pictures.map((one, i) => (i < same ? one : others[i]!));
}

describe('coming into a room', () => {
  it('is by its pictures in their order, then by a name that is free; a taken one is seen no more', async () => {
    const { pictures, children, room, opened } = await openRoom(ann, ['Ada', 'Bo', 'Cy']);
    expect(opened.status).toBe(201);
    expect(new Set(pictures).size).toBe(4);
    const [ada, bo] = [new Device(server.url), new Device(server.url)];
    expect(problem(await ada.enter(wrongOnes(pictures)))).toBe('404 wrong-pictures');
    expect(problem(await ada.enter([...pictures].reverse()))).toBe('404 wrong-pictures');
    const door = await ada.enter(pictures);
    expect([door.status, namesIn(door)]).toEqual([201, ['Ada', 'Bo', 'Cy']]);
    expect(problem(await ada.ask('GET', '/api/room/seat'))).toBe('401 no-name');
    expect((await ada.sit(children[0]!.id)).body).toMatchObject({ name: 'Ada', round: null });
    expect(namesIn(await bo.enter(pictures))).toEqual(['Bo', 'Cy']);
    expect(problem(await bo.sit(children[0]!.id))).toBe('409 name-taken');
    expect(problem(await bo.sit(uuid()))).toBe('409 name-taken');
    await bo.sit(children[1]!.id);
    // Once it has its name it sees none of the others.
    const { name, ...shown } = await bo.seat();
    expect(name).toBe('Bo');
    expect(JSON.stringify(shown)).not.toMatch(/Ada|Cy/);
    expect(namesIn(await bo.ask('GET', '/api/room/door'))).toEqual([]);
    expect((await room()).seats.map((seat) => [seat.name, seat.place])).toEqual([
      ['Ada', 0],
      ['Bo', 1],
    ]);
  });

  it('a stranger with the pictures has the free names and nothing else', async () => {
    const { pictures, children, round } = await openRoom(ann, ['Ada', 'Bo']);
    await round({});
    const stranger = new Device(server.url);
    const { body } = await stranger.enter(pictures);
    expect(body).toEqual({ codes: false, names: children });
    for (const [method, path, sent] of [
      ['GET', '/api/room/seat', undefined],
      ['GET', '/api/room/events', undefined],
      ['PUT', '/api/room/rounds/1/ready', {}],
      ['PUT', '/api/room/rounds/1/answer', { option: 0 }],
      ['PUT', `/api/room/takes/${uuid()}`, { round: 1, onsets: [0] }],
      ['GET', '/api/classes', undefined],
    ] as const)
      expect((await stranger.ask(method, path, sent)).status).toBe(401);
  });

  it('a device that dropped out comes back as itself, and a name that is freed can be taken again', async () => {
    const { pictures, children, at, room } = await openRoom(ann, ['Ada', 'Bo']);
    const device = await deviceOf(server.url, pictures, children[0]!.id);
    expect((await device.seat()).name).toBe('Ada');
    expect((await device.sit(children[0]!.id)).status).toBe(200);
    expect((await ann.ask('DELETE', `${at}/seats/${children[0]!.id}`)).status).toBe(204);
    expect(problem(await ann.ask('DELETE', `${at}/seats/${children[0]!.id}`))).toBe('404 not-found');
    expect(problem(await device.ask('GET', '/api/room/seat'))).toBe('401 no-seat');
    const other = await deviceOf(server.url, pictures, children[0]!.id);
    expect((await other.seat()).name).toBe('Ada');
    expect((await other.ask('DELETE', '/api/room/seat')).status).toBe(204);
    expect((await room()).seats).toEqual([]);
  });

  it('by codes says no name to anybody', async () => {
    const { pictures, children, path, at } = await openRoom(ann, ['Ada', 'Bo'], { codes: true });
    const codes = (await ann.ask('GET', `${path}/room-codes`)).body as RoomCodes;
    expect(codes.map(({ name }) => name)).toEqual(['Ada', 'Bo']);
    expect(new Set(codes.map(({ code }) => code)).size).toBe(2);
    expect((await ann.ask('GET', `${path}/room-codes`)).body).toEqual(codes);
    const device = new Device(server.url);
    expect((await device.enter(pictures)).body).toEqual({ codes: true, names: [] });
    expect(problem(await device.sit(children[0]!.id))).toBe('409 other-way');
    const free = ['0000', '0001', '0002'].find((code) => codes.every((one) => one.code !== code))!;
    expect(problem(await device.ask('POST', '/api/room/seat', { code: free }))).toBe('404 wrong-code');
    expect(problem(await device.ask('POST', '/api/room/seat', { code: '12' }))).toBe('422 bad-request');
    const sat = await device.ask('POST', '/api/room/seat', { code: codes[1]!.code });
    expect(sat.body).toMatchObject({ name: 'Bo' });
    await ann.ask('PUT', at, { codes: false, marksShown: true, namesShown: false });
    expect(namesIn(await new Device(server.url).enter(pictures))).toEqual(['Ada']);
  });

  it('is full at the size of the class and three, and those who took no name are not waited for', async () => {
    const { pictures, children, roomId } = await openRoom(ann, ['Ada']);
    await deviceOf(server.url, pictures, children[0]!.id);
    for (let i = 0; i < 3; i++) expect((await new Device(server.url).enter(pictures)).status).toBe(201);
    expect(problem(await new Device(server.url).enter(pictures))).toBe('409 room-full');
    await open.db.execute(sql`update room_seats set seen_at = seen_at - 200000 where room_id = ${roomId}`);
    expect((await new Device(server.url).enter(pictures)).status).toBe(201);
  });

  it('two who take one name at once: one has it', async () => {
    const { pictures, children } = await openRoom(ann, ['Ada']);
    const devices = [1, 2, 3].map(() => new Device(server.url));
    for (const one of devices) await one.enter(pictures);
    const answers = await Promise.all(devices.map((one) => one.sit(children[0]!.id)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
  });
});

describe('a round', () => {
  it('of a question: what is right is told with the answer, and a child may think again until then', async () => {
    const { pictures, children, round, room } = await openRoom(ann, ['Ada', 'Bo']);
    const device = await deviceOf(server.url, pictures, children[0]!.id);
    const answer = (body: unknown) => device.ask('PUT', '/api/room/rounds/1/answer', body);
    expect(
      (await round({ task: { ...QUESTION_TASK, options: [...QUESTION_TASK.options], right: [2], reasons: [] } }))
        .status,
    ).toBe(422);
    const task = structuredClone(QUESTION_TASK) as never;
    expect((await round({ task, phase: 'going' })).status).toBe(204);
    const asked = await device.seat();
    expect(asked.round!.task).toMatchObject({ asked: 'Which one do you hear?', right: null, reasons: [] });
    expect(JSON.stringify(asked)).not.toContain('beat 2');
    expect(problem(await answer({ option: 2 }))).toBe('422 bad-request');
    expect(problem(await answer({ text: 'q' }))).toBe('422 bad-request');
    expect((await answer({ option: 0 })).status).toBe(204);
    expect((await answer({ option: 1 })).status).toBe(204);
    expect((await room()).seats[0]!.done).toMatchObject({ ready: true, option: 1 });
    await round({ task, phase: 'answer' });
    expect((await device.seat()).round!.task).toMatchObject({ right: [1], reasons: QUESTION_TASK.reasons });
    expect(problem(await answer({ option: 0 }))).toBe('409 answered');
    expect((await device.seat()).done.option).toBe(1);
  });

  it('of writing: a device is told how long it is, and no more', async () => {
    const { pictures, children, round } = await openRoom(ann, ['Ada']);
    const device = await deviceOf(server.url, pictures, children[0]!.id);
    const task = { kind: 'write' as const, text: '3/4 q e e q | h.', bpm: 72 };
    await round({ task, phase: 'going' });
    expect((await device.seat()).round!.task).toEqual({
      kind: 'write',
      meter: '3/4',
      measures: 2,
      bpm: 72,
      text: null,
    });
    expect((await device.ask('PUT', '/api/room/rounds/1/answer', { text: '3/4 q q q | h.' })).status).toBe(204);
    await round({ task, phase: 'answer' });
    const { round: shown, done } = await device.seat();
    expect([shown!.task, done.text]).toEqual([expect.objectContaining({ text: task.text }), '3/4 q q q | h.']);
  });

  it('of a take: stored once as the child’s, with its mark where marks are shown', async () => {
    const { pictures, children, round, at, path, classId, room } = await openRoom(ann, ['Ada', 'Bo']);
    const device = await deviceOf(server.url, pictures, children[0]!.id);
    const put = (id: string, body: object = {}) =>
      device.ask('PUT', `/api/room/takes/${id}`, { round: 1, onsets: [0, 1, 2], ...body });
    const id = uuid();
    expect(problem(await put(id))).toBe('404 not-found');
    await round({});
    expect(problem(await put(id))).toBe('422 bad-request');
    expect((await device.ask('PUT', '/api/room/rounds/1/ready')).status).toBe(204);
    expect((await room()).seats[0]!.done).toMatchObject({ ready: true, takeId: null });
    await round({ phase: 'going', startsAt: 1_700_000_000_000 });
    expect((await put(id)).body).toEqual({ mark: 4 });
    expect((await put(id)).status).toBe(200);
    expect(problem(await put(uuid()))).toBe('409 has-clapped');
    const [take, ...more] = await takesIn(ann, classId);
    expect(more).toEqual([]);
    expect(take).toMatchObject({ id, childId: children[0]!.id, title: 'Steps', mark: 4, takenAt: 1_700_000_000_000 });
    const results = (await ann.ask('GET', `${at}/rounds/1`)).body;
    expect(results).toMatchObject([{ childId: children[0]!.id, takeId: id, mark: 4, part: null }]);
    expect(problem(await ann.ask('GET', `${at}/rounds/7`))).toBe('404 not-found');
    expect((await room()).seats[0]).toMatchObject({ mark: 4, done: { takeId: id } });
    await ann.ask('PUT', at, { codes: false, marksShown: false, namesShown: false });
    expect(await device.seat()).toMatchObject({ mark: null });
    expect((await ann.ask('GET', `${path}/records`)).body).toMatchObject({ marks: [{ best: 4 }] });
  });

  it('many at once: one that sends two has one, a freed name has none, and no other is harmed', async () => {
    const names = Array.from({ length: 8 }, (_, i) => `Child ${i}`);
    const { pictures, children, round, classId, at } = await openRoom(ann, names);
    const devices = await Promise.all(children.map(({ id }) => deviceOf(server.url, pictures, id)));
    await round({ phase: 'going', startsAt: 1 });
    await ann.ask('DELETE', `${at}/seats/${children[7]!.id}`);
    const put = (device: (typeof devices)[number]) =>
      device.ask('PUT', `/api/room/takes/${uuid()}`, { round: 1, onsets: [0, 1, 2] });
    const answers = await Promise.all([put(devices[0]!), ...devices.map(put)]);
    const statuses = answers.map(({ status }) => status);
    expect(statuses.slice(0, 2).toSorted()).toEqual([200, 409]);
    expect(statuses.slice(2)).toEqual([200, 200, 200, 200, 200, 200, 401]);
    const whose = (await takesIn(ann, classId)).map(({ childId }) => childId);
    expect(whose.toSorted()).toEqual(
      children
        .slice(0, 7)
        .map(({ id }) => id)
        .toSorted(),
    );
  });

  it('taken by two servers at once: one sent again there is one, of two only one is taken', async () => {
    const { pictures, children, round, classId, at } = await openRoom(ann, ['Ada', 'Bo', 'Cy', 'Di']);
    const second = await serverOn(databaseUrl);
    const devices = await Promise.all(children.map(({ id }) => deviceOf(server.url, pictures, id)));
    const board = await streamOf<Room>(ann, second.url, `${at}/events`);
    await round({ phase: 'going', startsAt: 1 });
    const there = new Visitor(second.url);
    const answers = await Promise.all(
      devices.flatMap((device, i) => {
        const here = uuid();
        const take = { round: 1, onsets: [0, 1, 2] };
        return [
          device.ask('PUT', `/api/room/takes/${here}`, take),
          there.ask('PUT', `/api/room/takes/${i < 2 ? here : uuid()}`, take, device.headers),
        ];
      }),
    );
    const statuses = devices.map((_, i) => [answers[2 * i]!.status, answers[2 * i + 1]!.status].toSorted());
    expect(statuses).toEqual([...Array<number[]>(2).fill([200, 200]), ...Array<number[]>(2).fill([200, 409])]);
    const whose = (await takesIn(ann, classId)).map(({ childId }) => childId);
    expect(whose.toSorted()).toEqual(children.map(({ id }) => id).toSorted());
    expect(await board.until(() => board.last()?.seats.every(({ mark }) => mark !== null) === true)).toBe(true);
    board.stop();
    await second.stop();
  });

  it('a take under the id of another child’s is none, and its result stays untold', async () => {
    const { pictures, children, round, classId } = await openRoom(ann, ['Ada', 'Bo']);
    const [ada, bo] = [
      await deviceOf(server.url, pictures, children[0]!.id),
      await deviceOf(server.url, pictures, children[1]!.id),
    ];
    await round({ phase: 'going', startsAt: 1 });
    const id = uuid();
    await ada.ask('PUT', `/api/room/takes/${id}`, { round: 1, onsets: [0, 1, 2] });
    expect(problem(await bo.ask('PUT', `/api/room/takes/${id}`, { round: 1, onsets: [0] }))).toBe('409 has-clapped');
    expect((await bo.ask('PUT', `/api/room/takes/${uuid()}`, { round: 1, onsets: [0] })).status).toBe(200);
    expect(await takesIn(ann, classId)).toHaveLength(2);
  });

  it('of parts: each device has its own, one after the other', async () => {
    const { pictures, children, round, classId } = await openRoom(ann, ['Ada', 'Bo', 'Cy']);
    const devices = [];
    for (const { id } of children) devices.push(await deviceOf(server.url, pictures, id));
    const parts = [
      { name: 'Clap', text: '4/4 q q h' },
      { name: 'Stamp', text: '4/4 h h' },
    ];
    await round({ task: { ...TAKE_TASK, text: '4/4 q q h', parts }, phase: 'going', startsAt: 5 });
    const shown = await Promise.all(devices.map(async (one) => (await one.seat()).round!.task));
    expect(shown.map((task) => task.kind === 'take' && [task.part, task.text])).toEqual([
      ['Clap', '4/4 q q h'],
      ['Stamp', '4/4 h h'],
      ['Clap', '4/4 q q h'],
    ]);
    await devices[1]!.ask('PUT', `/api/room/takes/${uuid()}`, { round: 1, onsets: [0, 2] });
    expect((await takesIn(ann, classId))[0]).toMatchObject({ title: 'Steps · Stamp', mark: 4 });
  });

  it('counts on by one, also when two devices of the teacher press at once', async () => {
    const { round, room } = await openRoom(ann, ['Ada']);
    expect(problem(await round({ number: 2 }))).toBe('409 other-round');
    await round({ number: 1 });
    expect((await round({ number: 2 })).status).toBe(204);
    expect(problem(await round({ number: 1, phase: 'answer' }))).toBe('409 other-round');
    expect((await room()).round).toMatchObject({ number: 2, phase: 'ready' });
    expect(problem(await round({ number: 3, task: { ...TAKE_TASK, text: '4/4 q q', parts: [] } }))).toBe(
      '422 bar-check',
    );
  });
});

describe('the end of a room', () => {
  it('is said to all that ask, and a take that was clapped before it still counts', async () => {
    const { pictures, children, round, at, classId, roomId, path } = await openRoom(ann, ['Ada', 'Bo']);
    const device = await deviceOf(server.url, pictures, children[0]!.id);
    await round({ phase: 'going', startsAt: 1 });
    expect((await ann.ask('GET', `${path}/rooms`)).body).toMatchObject([{ id: roomId }]);
    expect((await ann.ask('DELETE', at)).status).toBe(204);
    expect((await ann.ask('GET', `${path}/rooms`)).body).toEqual([]);
    const late = await device.ask('PUT', `/api/room/takes/${uuid()}`, { round: 1, onsets: [0, 1, 2] });
    expect(late.status).toBe(200);
    expect(await takesIn(ann, classId)).toHaveLength(1);
    for (const [who, method, where] of [
      [ann, 'GET', at],
      [ann, 'DELETE', at],
      [ann, 'GET', `${at}/rounds/1`],
      [new Device(server.url), 'POST', '/api/room/enter'],
    ] as const)
      expect(problem(await who.ask(method, where, method === 'POST' ? { pictures } : undefined))).toBe(
        '410 room-ended',
      );
    const left = await device.ask('GET', '/api/room/seat');
    expect(problem(left)).toBe('410 room-ended');
    // The device forgets.
    expect(left.headers.get('set-cookie')).toMatch(
      /^clapboard_seat=; Max-Age=0; Path=\/api\/room; HttpOnly; SameSite=Strict/,
    );
    await forgetRooms(open.db, Date.now() + 11 * 60_000);
    expect(await open.db.select().from(rooms).where(eq(rooms.id, roomId))).toEqual([]);
    expect(problem(await ann.ask('GET', at))).toBe('404 not-found');
    expect(await takesIn(ann, classId)).toHaveLength(1);
  });

  it('comes by itself after ninety minutes', async () => {
    const { room, roomId, at, pictures } = await openRoom(ann, ['Ada']);
    const { openedAt, endsAt } = await room();
    expect(endsAt - openedAt).toBe(90 * 60_000);
    await open.db.update(rooms).set({ endsAt: 5 }).where(eq(rooms.id, roomId));
    expect(problem(await ann.ask('GET', at))).toBe('410 room-ended');
    expect(problem(await new Device(server.url).enter(pictures))).toBe('410 room-ended');
    expect(problem(await ann.ask('PUT', at, { codes: false, marksShown: true, namesShown: true }))).toBe(
      '410 room-ended',
    );
  });
});

describe('what is told of a room', () => {
  it('goes to every device through whatever server it came, and each sees its own', async () => {
    const { pictures, children, round, at } = await openRoom(ann, ['Ada', 'Bo']);
    const second = await serverOn(databaseUrl);
    const ada = await deviceOf(server.url, pictures, children[0]!.id);
    const board = await streamOf<Room>(ann, server.url, `${at}/events`);
    const adas = await streamOf<ChildRoom>(ada, second.url, '/api/room/events');
    expect(await board.until(() => board.last()?.seats.length === 1)).toBe(true);
    const bo = await deviceOf(second.url, pictures, children[1]!.id);
    expect(await board.until(() => board.last()?.seats.length === 2)).toBe(true);
    await round({ phase: 'going', startsAt: 77 });
    expect(await adas.until(() => adas.last()?.round?.startsAt === 77)).toBe(true);
    expect(adas.last()).toMatchObject({ name: 'Ada', round: { task: { text: '4/4 q q h' } } });
    await bo.ask('PUT', '/api/room/rounds/1/ready');
    expect(await board.until(() => board.last()?.seats[1]?.done.ready === true)).toBe(true);
    expect(JSON.stringify(adas.told)).not.toContain('Bo');
    await ann.ask('DELETE', at);
    expect(await adas.until(adas.ended)).toBe(true);
    expect(adas.told.at(-1)).toMatchObject({ event: 'over', data: { status: 410, code: 'room-ended' } });
    expect(await board.until(board.ended)).toBe(true);
    await second.stop();
  });

  it('says who is away', async () => {
    const { pictures, children, at } = await openRoom(ann, ['Ada']);
    const ada = await deviceOf(server.url, pictures, children[0]!.id);
    const board = await streamOf<Room>(ann, server.url, `${at}/events`);
    const adas = await streamOf<ChildRoom>(ada, server.url, '/api/room/events');
    expect(await board.until(() => board.last()?.seats[0]?.away === false)).toBe(true);
    adas.stop();
    expect(await board.until(() => board.last()?.seats[0]?.away === true)).toBe(true);
    board.stop();
  });

  it('ends for a device whose name was freed', async () => {
    const { pictures, children, at } = await openRoom(ann, ['Ada']);
    const ada = await deviceOf(server.url, pictures, children[0]!.id);
    const adas = await streamOf<ChildRoom>(ada, server.url, '/api/room/events');
    await ann.ask('DELETE', `${at}/seats/${children[0]!.id}`);
    expect(await adas.until(adas.ended)).toBe(true);
    expect(adas.told.at(-1)).toMatchObject({ event: 'over', data: { code: 'no-seat' } });
  });
});

describe('guessing', () => {
  it('waits longer and longer, and the teacher hears of it and draws other pictures', async () => {
    const { pictures, at, room, children } = await openRoom(ann, ['Ada', 'Bo']);
    const inside = await deviceOf(server.url, pictures, children[1]!.id);
    const guesser = new Device(server.url);
    const answers = [];
    for (let i = 0; i < 24; i++) answers.push(problem(await guesser.enter(wrongOnes(pictures, 2))));
    expect(answers.slice(0, 19)).toEqual(Array.from({ length: 19 }, () => '404 wrong-pictures'));
    expect(answers.at(-1)).toBe('429 wait');
    expect((await room()).guessed).toBe(true);
    // Other pictures: nobody waits for what was tried at those before, and who is in stays.
    await ann.ask('PUT', at, { codes: false, marksShown: true, namesShown: false, newPictures: true });
    const fresh = (await room()).pictures;
    expect(fresh).not.toEqual(pictures);
    expect((await inside.seat()).name).toBe('Bo');
  });
});

describe('the clock of the rooms', () => {
  it('is the database’s', async () => {
    const { body } = await new Device(server.url).ask('GET', '/api/room/clock');
    expect(Math.abs((body as { now: number }).now - Date.now())).toBeLessThan(2000);
  });
});
