import { eq } from 'drizzle-orm';
import { v4 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Cleared, FIRST_SCHOOL, type School } from '../contract/school.ts';
import type { SessionState } from '../contract/session.ts';
import type { StaffMember } from '../contract/staff.ts';
import { EVERY_ROUTE, askFor } from './everyRoute.test-helper.ts';
import { openDatabase } from './database.ts';
import { addSchool, adoptTeachers, countSchools, makeAdministrator } from './repository/schools.ts';
import { findTeacherByName } from './repository/teachers.ts';
import { children, classes, recordings, schools, takes } from './schema.ts';
import { makeInvitation } from './services/invitations.ts';
import { clearSchools, dayAt } from './services/retention.ts';
import type { RunningServer } from './start.ts';
import { type Answer, PASSWORD, Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

const DAY = 24 * 3600 * 1000;
const OTHER = uuid();

let server: RunningServer;
let open: ReturnType<typeof openDatabase>;
let ann: Visitor;
let ben: Visitor;
/** The administrator of the other school. */
let zoe: Visitor;

const code = ({ status, body }: Answer) =>
  `${status} ${(body as { error?: { code: string } } | undefined)?.error?.code}`;
const invited = (schoolId: string, administrator = false, uses = 1) =>
  makeInvitation(open.db, schoolId, administrator, uses);
const teacherOf = async (visitor: Visitor) =>
  ((await visitor.ask('GET', '/api/session')).body as SessionState).teacher!;

beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl);
  open = openDatabase(databaseUrl, { connections: 2 });
  await makeAdministrator(open.db, FIRST_SCHOOL, (await findTeacherByName(open.db, 'Ann'))!.id);
  [ann, ben, zoe] = [new Visitor(server.url), new Visitor(server.url), new Visitor(server.url)];
  await ann.signIn('Ann');
  await ben.signIn('Ben');
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

describe('one school', () => {
  it('asks nobody which, and its teachers know what it keeps', async () => {
    const door = (await new Visitor(server.url).ask('GET', '/api/session')).body as SessionState;
    expect(door).toEqual({ teacher: null, demo: false });
    expect((await ben.ask('GET', `/api/schools/${FIRST_SCHOOL}`)).body).toMatchObject({
      name: 'Our school',
      retention: { takes: null, recordings: null, terms: null, left: null },
    });
  });

  it('teachers of a server of before are adopted by it', async () => {
    await open.pool.query("insert into teachers (id, name, password_hash, closed) values (uuid(), 'Old', 'x', true)");
    await adoptTeachers(open.db);
    const staff = (await ann.ask('GET', `/api/schools/${FIRST_SCHOOL}/staff`)).body as StaffMember[];
    expect(staff.find(({ name }) => name === 'Old')).toMatchObject({ closed: true, administrator: false });
  });

  it('is set by its administrators, who are told what cannot be', async () => {
    const path = `/api/schools/${FIRST_SCHOOL}`;
    const { id: _id, retentionFrom: _from, ...school } = (await ann.ask('GET', path)).body as School;
    const edit = { ...school, name: ' Marrow Lane ', zone: 'Europe/Berlin', language: 'de' };
    expect((await ann.ask('PUT', path, edit)).body).toMatchObject({ name: 'Marrow Lane', retentionFrom: 0 });
    expect(code(await ann.ask('PUT', path, { ...edit, zone: 'Atlantis/Deep' }))).toBe('422 bad-zone');
    const short = { ...edit, retention: { ...edit.retention, takes: 5 } };
    expect((await ann.ask('PUT', path, short)).status).toBe(422);
    expect((await ann.ask('GET', path)).body).toMatchObject({
      name: 'Marrow Lane',
      zone: 'Europe/Berlin',
      language: 'de',
    });
    expect((await teacherOf(ann)).schools[0]!.name).toBe('Marrow Lane');
  });
});

describe('invitations', () => {
  const PATH = `/api/schools/${FIRST_SCHOOL}/invitations`;
  const accept = (name: string, given: string) =>
    new Visitor(server.url).ask('POST', '/api/session/invitation', { name, code: given, password: 'nine wet ropes' });

  it('make an account each, as often as they say, and no more', async () => {
    const { body } = await ann.ask('POST', PATH, { administrator: false, uses: 2 });
    const { code: given } = body as { code: string };
    expect((await accept('Ben', given)).status).toBe(409);
    const made = await accept(' Dora ', given.toUpperCase().replaceAll('-', ' '));
    expect((made.body as SessionState).teacher).toMatchObject({ name: 'Dora', schools: [{ administrator: false }] });
    expect((await ann.ask('GET', PATH)).body).toMatchObject([{ administrator: false, left: 1 }]);
    expect((await accept('Egon', given)).status).toBe(200);
    expect(code(await accept('Fritz', given))).toBe('401 wrong-code');
    expect((await ann.ask('GET', PATH)).body).toEqual([]);
    expect((await new Visitor(server.url).signIn('Dora', 'nine wet ropes')).status).toBe(200);
  });

  it('are used once however many come at the same time', async () => {
    const { code: given } = await invited(FIRST_SCHOOL);
    const answers = await Promise.all(['Ida', 'Jo', 'Kit'].map((name) => accept(name, given)));
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 401, 401]);
  });

  it('are taken back, run out, and a weak password uses none up', async () => {
    const { body } = await ann.ask('POST', PATH, { administrator: true, uses: 1 });
    const { code: given } = body as { code: string };
    const weak = { name: 'Gil', code: given, password: 'password12' };
    expect(code(await new Visitor(server.url).ask('POST', '/api/session/invitation', weak))).toBe('422 weak-password');
    const [{ id }] = (await ann.ask('GET', PATH)).body as [{ id: string }];
    expect((await ann.ask('DELETE', `${PATH}/${id}`)).status).toBe(204);
    expect((await ann.ask('DELETE', `${PATH}/${id}`)).status).toBe(404);
    expect(code(await accept('Gil', given))).toBe('401 wrong-code');
    const old = await invited(FIRST_SCHOOL);
    await open.pool.query('update invitations set expires_at = 5');
    expect(code(await accept('Gil', old.code))).toBe('401 wrong-code');
  });
});

describe('a second school', () => {
  beforeAll(async () => {
    await addSchool(open.db, { id: OTHER, name: 'Harbour School' }, Date.now());
    const { code: given } = await invited(OTHER, true);
    // The same name as somebody of the first school, and another password.
    const zoeIn = { name: 'Ben', code: given, password: 'eight long oars' };
    expect((await zoe.ask('POST', '/api/session/invitation', zoeIn)).status).toBe(200);
  });

  it('is asked for at the door: a name is one of a school', async () => {
    const door = (await new Visitor(server.url).ask('GET', '/api/session')).body as SessionState;
    expect(door.schools?.map(({ name }) => name)).toEqual(['Harbour School', 'Marrow Lane']);
    const enter = (more: object) =>
      new Visitor(server.url).ask('POST', '/api/session', { name: 'Ben', password: PASSWORD, ...more });
    expect(code(await enter({}))).toBe('422 which-school');
    expect((await enter({ school: FIRST_SCHOOL })).status).toBe(200);
    expect(code(await enter({ school: OTHER }))).toBe('401 wrong-password');
    expect(code(await enter({ school: uuid() }))).toBe('401 wrong-password');
    expect((await enter({ school: OTHER, password: 'eight long oars' })).status).toBe(200);
  });

  it('nothing of one is there for the other, whatever the route and whoever asks', async () => {
    const ids = { classId: uuid(), childId: uuid(), takeId: uuid(), patternId: uuid(), schoolId: FIRST_SCHOOL };
    for (const [route, { needs }] of Object.entries(EVERY_ROUTE)) {
      if (needs !== 'school' && needs !== 'administrator') continue;
      const { method, path, body } = askFor(route, ids);
      expect([route, code(await zoe.ask(method, path, body))]).toEqual([route, '404 not-found']);
    }
    expect(JSON.stringify((await zoe.ask('GET', `/api/schools/${OTHER}/staff`)).body)).not.toContain('Ann');
    const room = await classAt(ann, FIRST_SCHOOL);
    expect(code(await zoe.ask('GET', room.path))).toBe('404 not-found');
    // A name of another school is nobody's here.
    expect(code(await ann.ask('PUT', `${room.path}/shares`, { name: 'Zoe', role: 'hear' }))).toBe('422 no-teacher');
    await ann.ask('PUT', `${room.path}/shares`, { name: 'Ben', role: 'hear' });
    expect(code(await zoe.ask('GET', room.path))).toBe('404 not-found');
    expect((await ben.ask('GET', room.path)).body).toMatchObject({ role: 'hear', owner: 'Ann' });
  });

  it('a class is made at a school of its teacher’s, and stays there', async () => {
    const path = `/api/classes/${uuid()}`;
    const edit = { name: 'Terns', ages: '9-10', school: 'ta', rests: null };
    expect(code(await ann.ask('PUT', path, { ...edit, schoolId: OTHER }))).toBe('404 not-found');
    expect((await zoe.ask('PUT', path, { ...edit, schoolId: OTHER })).status).toBe(201);
    expect((await zoe.ask('GET', path)).body).toMatchObject({ schoolId: OTHER });
    expect(await countSchools(open.db)).toMatchObject([
      { name: 'Harbour School', teachers: 1, classes: 1, children: 0, takes: 0 },
      { name: 'Marrow Lane' },
    ]);
  });
});

/** A class with a child that has takes of these ages, in days. */
async function classAt(who: Visitor, schoolId: string, ages: readonly number[] = []) {
  const [id, child] = [uuid(), uuid()];
  const path = `/api/classes/${id}`;
  await who.ask('PUT', path, { name: 'Terns', ages: '9-10', school: 'ta', rests: null, schoolId });
  await who.ask('PUT', `${path}/children/${child}`, { name: 'Ada' });
  const ids: string[] = [];
  for (const days of ages) {
    const takeId = uuid();
    ids.push(takeId);
    const take = { childId: child, patternId: null, title: 'First', patternText: '4/4 q q h', bpm: 72, free: false };
    const played = { onsets: [0, 0.83, 1.66], source: 'tap', takenAt: Date.now() - days * DAY };
    const { status, body } = await who.ask('PUT', `/api/takes/${takeId}`, { ...take, ...played });
    if (status >= 300) throw new Error(JSON.stringify(body));
  }
  return { id, path, child, takes: ids };
}

describe('a teacher at two schools', () => {
  let kim: Visitor;
  let kimId: string;
  beforeAll(async () => {
    kim = new Visitor(server.url);
    const first = { name: 'Kim', code: (await invited(FIRST_SCHOOL)).code, password: 'seven old nets' };
    await kim.ask('POST', '/api/session/invitation', first);
    kimId = (await teacherOf(kim)).id;
  });

  it('joins the second with an invitation, under a name that is free there', async () => {
    const { code: given } = await invited(OTHER);
    expect(code(await kim.ask('POST', '/api/account/schools', { code: given, name: 'Ben' }))).toBe('409 name-taken');
    expect((await kim.ask('POST', '/api/account/schools', { code: given, name: 'Kim H' })).status).toBe(204);
    expect((await teacherOf(kim)).schools).toMatchObject([
      { name: 'Harbour School', as: 'Kim H' },
      { name: 'Marrow Lane', as: 'Kim' },
    ]);
    const again = { code: (await invited(OTHER)).code, name: 'Kim 2' };
    expect(code(await kim.ask('POST', '/api/account/schools', again))).toBe('409 at-this-school');
    expect(code(await kim.ask('POST', '/api/account/schools', { code: 'made-up', name: 'K' }))).toBe('401 wrong-code');
    const door = { name: 'Kim H', password: 'seven old nets', school: OTHER };
    expect((await new Visitor(server.url).ask('POST', '/api/session', door)).status).toBe(200);
  });

  it('carries no child from one to the other', async () => {
    const [here, there] = [await classAt(kim, FIRST_SCHOOL), await classAt(kim, OTHER)];
    const move = { to: there.id, children: [here.child] };
    expect(code(await kim.ask('POST', `${here.path}/moves`, move))).toBe('422 other-school');
  });

  it('is closed at one and goes on at the other, without what is at the first', async () => {
    const [here, there] = [await classAt(kim, FIRST_SCHOOL, [1]), await classAt(kim, OTHER)];
    const staff = `/api/schools/${FIRST_SCHOOL}/staff/${kimId}`;
    expect((await ann.ask('PUT', staff, { closed: true })).status).toBe(204);
    expect(code(await kim.ask('GET', here.path))).toBe('404 not-found');
    expect(code(await kim.ask('GET', `/api/takes/${here.takes[0]}`))).toBe('404 not-found');
    expect((await kim.ask('GET', there.path)).status).toBe(200);
    const list = (await kim.ask('GET', '/api/classes')).body as { schoolId: string }[];
    expect(new Set(list.map(({ schoolId }) => schoolId))).toEqual(new Set([OTHER]));
    // Whoever closed the account opens it; an invitation does not.
    const back = { code: (await invited(FIRST_SCHOOL)).code, name: 'Kim 3' };
    expect(code(await kim.ask('POST', '/api/account/schools', back))).toBe('403 account-closed');
    const door = { name: 'Kim', password: 'seven old nets', school: FIRST_SCHOOL };
    expect((await new Visitor(server.url).ask('POST', '/api/session', door)).status).toBe(200);
    await ann.ask('PUT', staff, { closed: false });
    expect((await kim.ask('GET', here.path)).status).toBe(200);
  });

  it('gets no code from one of them: it would open what is at the other', async () => {
    const staff = `/api/schools/${FIRST_SCHOOL}/staff/${kimId}`;
    expect(code(await ann.ask('POST', `${staff}/code`, {}))).toBe('409 at-several-schools');
  });

  it('a bin is not reached any more either', async () => {
    const here = await classAt(kim, FIRST_SCHOOL, [1]);
    await kim.ask('DELETE', `/api/takes/${here.takes[0]}`);
    await kim.ask('DELETE', here.path);
    await ann.ask('PUT', `/api/schools/${FIRST_SCHOOL}/staff/${kimId}`, { closed: true });
    expect((await kim.ask('GET', '/api/bin')).body).toEqual([]);
    expect((await kim.ask('POST', `/api/bin/class/${here.id}/out`, {})).status).toBe(404);
    await ann.ask('PUT', `/api/schools/${FIRST_SCHOOL}/staff/${kimId}`, { closed: false });
    expect((await kim.ask('GET', '/api/bin')).body).not.toEqual([]);
  });
});

describe('what has had its time at a school', () => {
  const KEEPS = { takes: 100, recordings: 10, terms: 200, left: 3 };
  const set = (values: Partial<typeof schools.$inferInsert>) =>
    open.db
      .update(schools)
      .set({ retention: KEEPS, retentionFrom: 0, clearedNight: '', ...values })
      .where(eq(schools.id, OTHER));
  const takesOf = async (classId: string) =>
    (await open.db.select({ id: takes.id }).from(takes).where(eq(takes.classId, classId))).map(({ id }) => id);
  const said = async () => (await zoe.ask('GET', `/api/schools/${OTHER}/cleared`)).body as Cleared[];
  /** At three in the morning, UTC. */
  const night = () => new Date().setUTCHours(3, 0, 0, 0) + DAY;

  it('the day is that of the school', () => {
    const moment = Date.UTC(2026, 10, 30, 23, 30);
    expect(dayAt('UTC', moment)).toEqual({ day: '2026-11-30', hour: 23 });
    expect(dayAt('Europe/Berlin', moment)).toEqual({ day: '2026-12-01', hour: 0 });
    expect(dayAt('America/New_York', moment)).toEqual({ day: '2026-11-30', hour: 18 });
  });

  it('goes at night, is said, and what is newer, held, or of another school stays', async () => {
    await set({});
    const [mine, held, other] = [
      await classAt(zoe, OTHER, [200, 150, 20]),
      await classAt(zoe, OTHER, [200]),
      await classAt(ann, FIRST_SCHOOL, [200]),
    ];
    const heldChild = await classAt(zoe, OTHER, [200]);
    expect((await zoe.ask('PUT', `${held.path}/hold`, { why: 'a complaint' })).status).toBe(204);
    expect((await zoe.ask('GET', `${held.path}/hold`)).body).toEqual({ why: 'a complaint' });
    const hold = `${heldChild.path}/children/${heldChild.child}/hold`;
    expect((await zoe.ask('PUT', hold, { why: 'a report' })).status).toBe(204);
    const trial = await zoe.ask('GET', `/api/schools/${OTHER}/would-go?takes=100&recordings=&terms=x`);
    expect(trial.body).toEqual({ takes: 2, held: 2, recordings: 0, terms: 0 });
    const early = new Date(night()).setUTCHours(1);
    await clearSchools(open.db, early);
    expect(await takesOf(mine.id)).toHaveLength(3);
    await Promise.all([clearSchools(open.db, night()), clearSchools(open.db, night())]);
    expect(await takesOf(mine.id)).toEqual([mine.takes[2]]);
    expect([await takesOf(held.id), await takesOf(heldChild.id)]).toEqual([held.takes, heldChild.takes]);
    expect(await takesOf(other.id)).toEqual(other.takes);
    expect(await said()).toEqual([{ night: dayAt('UTC', night()).day, kind: 'takes', removed: 2 }]);
    // The marks of the grid are those of what is left.
    const records = (await zoe.ask('GET', `${mine.path}/records`)).body as { marks: { takes: number }[] };
    expect(records.marks).toMatchObject([{ takes: 1 }]);
    await zoe.ask('PUT', hold, { why: null });
    await clearSchools(open.db, night() + DAY);
    expect(await takesOf(heldChild.id)).toEqual([]);
    expect(code(await zoe.ask('GET', `${mine.path}/children/${heldChild.child}/hold`))).toBe('404 not-found');
  });

  it('nothing goes in the days after the times were made shorter', async () => {
    await set({ retention: { ...KEEPS, takes: null } });
    const room = await classAt(zoe, OTHER, [200]);
    const path = `/api/schools/${OTHER}`;
    const { id: _id, retentionFrom: _f, ...school } = (await zoe.ask('GET', path)).body as School;
    const saved = (await zoe.ask('PUT', path, { ...school, retention: KEEPS })).body as School;
    expect(Math.round((saved.retentionFrom - Date.now()) / DAY)).toBe(7);
    await clearSchools(open.db, night());
    expect(await takesOf(room.id)).toHaveLength(1);
    await clearSchools(open.db, night() + 8 * DAY);
    expect(await takesOf(room.id)).toEqual([]);
    // Longer times hold at once: nothing is lost by them.
    const longer = await zoe.ask('PUT', path, { ...school, retention: { ...KEEPS, takes: 400 } });
    expect(longer.body).toMatchObject({ retentionFrom: saved.retentionFrom });
  });

  it('sounds, closed terms and the bin have times of their own', async () => {
    await set({ retention: { ...KEEPS, takes: null } });
    const room = await classAt(zoe, OTHER, [20, 2]);
    const sound = (takeId: string) => ({
      takeId,
      mime: 'audio/wav',
      uploadId: uuid(),
      bytes: 3,
      expiresAt: Date.now() + 99 * DAY,
    });
    await open.db.insert(recordings).values(room.takes.map(sound));
    const term = `${room.path}/terms/${uuid()}`;
    await zoe.ask('PUT', term, { title: 'Autumn' });
    await open.pool.query('update terms set until_at = ?', [Date.now() - 300 * DAY]);
    const left = await classAt(zoe, OTHER, []);
    await zoe.ask('DELETE', `${left.path}/children/${left.child}`);
    await open.db
      .update(children)
      .set({ binnedAt: Date.now() - 5 * DAY })
      .where(eq(children.id, left.child));
    await clearSchools(open.db, night());
    const sounds = await open.db.select({ id: recordings.takeId }).from(recordings);
    expect(sounds.map(({ id }) => id)).toEqual([room.takes[1]]);
    expect((await zoe.ask('GET', term)).status).toBe(404);
    expect(await open.db.select().from(children).where(eq(children.id, left.child))).toEqual([]);
    const kinds = (await said()).filter(({ night: one }) => one === dayAt('UTC', night()).day).map(({ kind }) => kind);
    expect(kinds).toEqual(expect.arrayContaining(['children', 'recordings', 'terms']));
  });

  it('a held child lies in the bin as long as it is held', async () => {
    await set({});
    const room = await classAt(zoe, OTHER);
    await zoe.ask('PUT', `${room.path}/children/${room.child}/hold`, { why: 'a report' });
    await zoe.ask('DELETE', room.path);
    await open.db
      .update(classes)
      .set({ binnedAt: Date.now() - 5 * DAY })
      .where(eq(classes.id, room.id));
    await clearSchools(open.db, night() + 20 * DAY);
    expect(await open.db.select().from(children).where(eq(children.id, room.child))).toHaveLength(1);
    await open.db.update(children).set({ held: null }).where(eq(children.id, room.child));
    await clearSchools(open.db, night() + 21 * DAY);
    expect(await open.db.select().from(classes).where(eq(classes.id, room.id))).toEqual([]);
  });
});
