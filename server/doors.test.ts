import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import fc from 'fast-check';
import type { RowDataPacket } from 'mysql2';
import { v4 as uuid } from 'uuid';
import type { Account, PasskeyRequest, SessionState } from '../contract/session.ts';
import { openDatabase } from './database.ts';
import { passwordTrouble } from './password.ts';
import { findTeacherByName } from './repository/teachers.ts';
import { signInTries as signInTriesTable } from './schema.ts';
import { allowReset } from './services/session.ts';
import { DoorQueue } from './door/queue.ts';
import { restAfter, signInTries } from './services/signInTries.ts';
import type { RunningServer } from './start.ts';
import { PASSWORD, Visitor, freshDatabase, serverOn, serverWithTeachers } from './testServer.test-helper.ts';

let databaseUrl: string;
let server: RunningServer;
let open: ReturnType<typeof openDatabase>;

beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl, { demoTeacher: 'Ann' });
  open = openDatabase(databaseUrl, { connections: 4 });
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
});

const code = (body: unknown) => (body as { error?: { code: string } } | undefined)?.error?.code;
const signedIn = async (name: string, password = PASSWORD) => {
  const visitor = new Visitor(server.url);
  expect((await visitor.signIn(name, password)).status).toBe(200);
  return visitor;
};

describe('how long the next try rests after failures', () => {
  it.each([
    [1, 1, 1, 0],
    [4, 4, 4, 0],
    [5, 5, 5, 0.25],
    [7, 7, 7, 1],
    [9, 9, 9, 2],
    [500, 29, 39, 2],
    [1, 30, 1, 0.25],
    [1, 5_000, 1, 0.25],
    [1, 1, 40, 0.25],
    [1, 1, 10_000, 0.5],
  ])(
    '%i from this address on this account, %i on the account, %i from the address: %f s',
    (both, account, address, s) => expect(restAfter({ both, account, address })).toBe(Math.min(2, s)),
  );
  it('never shrinks with more failures, and whoever knows the password is never far behind', () => {
    const failures = fc.integer({ min: 1, max: 100_000 });
    fc.assert(
      fc.property(failures, failures, failures, (both, account, address) => {
        const now = restAfter({ both, account, address });
        expect(now).toBeLessThanOrEqual(2);
        expect(restAfter({ both: both + 1, account: account + 1, address: address + 1 })).toBeGreaterThanOrEqual(now);
      }),
    );
  });
});

describe('tries to sign in', () => {
  const database = () => new URL(databaseUrl).pathname.slice(1);
  const counting = () => signInTries(open.pool, database());
  const wrong = () => Promise.reject(new Error('wrong'));
  const from = (account: string, address: string) => ({
    address,
    claims: false,
    who: () => Promise.resolve({ account }),
  });
  const pointsOf = async (begins: string) =>
    (await open.db.select().from(signInTriesTable))
      .flatMap(({ key, points }) => (key.startsWith(begins) ? [points] : []))
      .sort((a, b) => b - a);

  it('are counted for all servers together, and a right one is let in and forgiven', async () => {
    const [one, other] = [counting(), counting()];
    for (let i = 0; i < 2; i++) {
      await expect(one.look(from('cleo', '10.0.0.1'), wrong)).rejects.toThrow('wrong');
      await expect(other.look(from('cleo', '10.0.0.1'), wrong)).rejects.toThrow('wrong');
    }
    expect(await pointsOf('both')).toEqual([4]);
    expect(await other.look(from('cleo', '10.0.0.1'), () => Promise.resolve('in'))).toBe('in');
    expect(await pointsOf('both')).toEqual([]);
  });
  it('are looked at one after the other where too many failed, and a right one among them gets in', async () => {
    const tries = counting();
    const started: number[] = [];
    const guess = () => {
      started.push(performance.now());
      return wrong();
    };
    for (let i = 0; i < 6; i++) await tries.look(from('gus', '10.4.0.1'), guess).catch(() => undefined);
    const guesses = Promise.allSettled(Array.from({ length: 3 }, () => tries.look(from('gus', '10.4.0.1'), guess)));
    const right = tries.look(from('gus', '10.4.0.1'), () => Promise.resolve('in'));
    expect(await right).toBe('in');
    await guesses;
    expect(started).toHaveLength(9);
  });
  it('from one network of the newer addresses count together, and so do both ways to write an older one', async () => {
    await open.db.delete(signInTriesTable);
    const tries = counting();
    for (const end of ['1', '2:3', 'ffff', '9'])
      await tries.look(from('eve', `2001:db8:1:2::${end}`), wrong).catch(() => undefined);
    for (const address of ['10.3.0.1', '::ffff:10.3.0.1', '10.3.0.1'])
      await tries.look(from('finn', address), wrong).catch(() => undefined);
    expect([await pointsOf('both'), await pointsOf('address')]).toEqual([
      [4, 3],
      [4, 3],
    ]);
  });
  it('of a place that is full are sent away before anything is looked at', async () => {
    const tries = signInTries(
      open.pool,
      database(),
      new DoorQueue({ slots: 0, mostOfPlace: 2, mostOfAll: 9, patienceMs: 300 }),
    );
    const waiting = [1, 2].map((i) => tries.look(from(`hal ${i}`, '10.8.0.2'), wrong).catch((error: Error) => error));
    const asked = vi.fn(() => Promise.resolve({ account: 'x' }));
    const more = { address: '10.8.0.2', claims: false, who: asked };
    await expect(tries.look(more, wrong)).rejects.toThrow(/Try again in 1 seconds/);
    expect(asked).not.toHaveBeenCalled();
    // One that says it is known is looked up, and sent away when it is not.
    await expect(tries.look({ ...more, claims: true }, wrong)).rejects.toThrow(/Try again/);
    expect(asked).toHaveBeenCalledOnce();
    await Promise.all(waiting);
  });
  it('leave neither names nor addresses behind', async () => {
    const rows = JSON.stringify(await open.db.select().from(signInTriesTable));
    expect(rows).toMatch(/account:/);
    expect(rows).not.toMatch(/finn|2001|10\.3/);
  });
  it('from the same building do not hold up a browser in which the teacher has been before', async () => {
    await open.db.delete(signInTriesTable);
    const first = await fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Ben', password: PASSWORD }),
    });
    const device = first.headers.getSetCookie().find((cookie) => cookie.startsWith('clapboard_device='))!;
    expect(device).toMatch(/HttpOnly/);
    const keys = async () => (await open.db.select().from(signInTriesTable)).map(({ key }) => key);
    const tryWith = async (cookie: string) => {
      const before = await keys();
      await new Visitor(server.url).ask('POST', '/api/session', { name: 'Ben', password: 'no' }, { cookie });
      return (await keys()).filter((key) => key.startsWith('both') && !before.includes(key)).length;
    };
    // A count of its own for a guesser, another one for the known browser, none more for one that only says so.
    expect(await tryWith('')).toBe(1);
    expect(await tryWith(device.split(';')[0]!)).toBe(1);
    expect(await tryWith('clapboard_device=made-up')).toBe(0);
  });
  it('however a name is spelled, what finds the teacher is counted as hers', async () => {
    // Every character that the database takes for a letter of the name, out of all of Unicode.
    const name = 'Ben';
    const alike: string[] = [];
    const all = Array.from({ length: 0x1_ffff }, (_, code) => code).filter(
      (one) => one > 0x7f && (one < 0xd800 || one > 0xdfff),
    );
    for (let at = 0; at < all.length; at += 4_000) {
      const some = all.slice(at, at + 4_000).map((one) => String.fromCodePoint(one));
      const rows = some.map(() => 'select ? as ch').join(' union all ');
      const [found] = await open.pool.query<RowDataPacket[]>(
        `select ch from (${rows}) t where ch collate utf8mb4_unicode_ci in ('b', 'e', 'n')
           or ch collate utf8mb4_general_ci in ('b', 'e', 'n')`,
        some,
      );
      alike.push(...found.map(({ ch }) => ch as string));
    }
    expect(alike.length).toBeGreaterThan(40);
    await open.db.delete(signInTriesTable);
    let found = 0;
    for (const letter of alike) {
      const plain = letter
        .normalize('NFKD')
        .toLowerCase()
        .replace(/[^a-z]/g, '');
      const at = ['b', 'e', 'n'].indexOf(plain);
      for (const i of at < 0 ? [0, 1, 2] : [at]) {
        const spelled = name.slice(0, i) + letter + name.slice(i + 1);
        if (!(await findTeacherByName(open.db, spelled))) continue;
        found++;
        // So many do not wait for each other yet.
        if (found <= 4) await new Visitor(server.url).signIn(spelled, 'no');
      }
    }
    expect(found).toBeGreaterThan(20);
    expect(await pointsOf('account')).toHaveLength(1);
    await open.db.delete(signInTriesTable);
  });
  it('twenty right ones at once all get in', async () => {
    const all = await Promise.all(Array.from({ length: 20 }, () => new Visitor(server.url).signIn('Cleo')));
    expect(all.map(({ status }) => status)).toEqual(Array<number>(20).fill(200));
  });
  it('the teacher gets in beside seven who guess at her from her own address, by each of the ways', async () => {
    const going = { on: true };
    const guessers = Array.from({ length: 7 }, async (_, i) => {
      for (let n = 0; going.on; n++) {
        const { status } = await new Visitor(server.url).signIn('Cleo', `guess ${i} ${n}`);
        if (status === 503) await new Promise((resolve) => setTimeout(resolve, 50));
        expect([401, 503]).toContain(status);
      }
    });
    try {
      const before = await new Visitor(server.url).signIn('Cleo');
      expect(before.status).toBe(200);
      const device = before.headers
        .getSetCookie()
        .find((one) => one.startsWith('clapboard_device='))!
        .split(';')[0]!;
      const known = await new Visitor(server.url).ask(
        'POST',
        '/api/session',
        { name: 'Cleo', password: PASSWORD },
        { cookie: device },
      );
      expect(known.status).toBe(200);
      const given = await allowReset(open.db, (await findTeacherByName(open.db, 'Cleo'))!.id);
      const coded = await new Visitor(server.url).ask('POST', '/api/session/reset', {
        name: 'Cleo',
        code: given,
        password: PASSWORD,
      });
      expect(coded.status).toBe(200);
    } finally {
      going.on = false;
      await Promise.all(guessers);
    }
  });
  it('with made-up names take no turn from anybody', async () => {
    const names = Array.from({ length: 50 }, (_, i) => new Visitor(server.url).signIn(`Nobody ${i}`, 'no'));
    const right = await signedIn('Ben');
    expect(right).toBeTruthy();
    expect((await Promise.all(names)).every(({ status }) => status === 401 || status === 503)).toBe(true);
  });
  it('are few enough in a morning of one teacher with slips', async () => {
    for (let i = 0; i < 4; i++) expect((await new Visitor(server.url).signIn('Ben', 'no')).status).toBe(401);
    await signedIn('Ben');
  });
});

describe('a page of another site', () => {
  it.each([
    [{ 'sec-fetch-site': 'cross-site' }, 403],
    [{ 'sec-fetch-site': 'same-site' }, 403],
    [{ origin: 'https://elsewhere.test' }, 403],
    [{ origin: 'null' }, 403],
    [{ 'sec-fetch-site': 'same-origin' }, 200],
    [{ 'sec-fetch-site': 'none' }, 200],
    [{}, 200],
  ])('that sends %j to the visit route gets %i', async (headers, status) => {
    const answer = await new Visitor(server.url).ask('POST', '/api/session/visit', {}, headers);
    expect(answer.status).toBe(status);
  });
  it('with our own address as its origin is ours', async () => {
    const answer = await new Visitor(server.url).ask('POST', '/api/session/visit', {}, { origin: server.url });
    expect(answer.status).toBe(200);
  });
  it('does not keep a teacher out by asking nine times', async () => {
    for (let i = 0; i < 9; i++)
      await new Visitor(server.url).ask('POST', '/api/session/visit', {}, { 'sec-fetch-site': 'cross-site' });
    await signedIn('Ann');
  });
  it('writes nothing with a cookie either, but may read what is open', async () => {
    const ann = await signedIn('Ann');
    const path = `/api/classes/${uuid()}`;
    const room = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null };
    expect((await ann.ask('PUT', path, room, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
    expect((await ann.ask('GET', path)).status).toBe(404);
    expect((await ann.ask('GET', '/healthz', undefined, { 'sec-fetch-site': 'cross-site' })).status).toBe(200);
  });
});

describe('a page of another teacher', () => {
  it('reads and writes nothing in this one’s session, and is told why', async () => {
    const [ann, ben] = [await signedIn('Ann'), await signedIn('Ben')];
    const annsPage = { 'clapboard-teacher': ((await ann.ask('GET', '/api/session')).body as SessionState).teacher!.id };
    expect((await ann.ask('GET', '/api/classes', undefined, annsPage)).status).toBe(200);
    const refused = await ben.ask('GET', '/api/classes', undefined, annsPage);
    expect([refused.status, code(refused.body)]).toEqual([401, 'other-teacher']);
  });
});

describe('a password', () => {
  it.each([
    ['marrow-lane', 'Robin Quay', false],
    ['a long password', 'Ann', false],
    ['correct horse', 'Ann', false],
    ['1234567890', 'Ann', true],
    ['password123', 'Ann', true],
    ['Sunshine2024!', 'Ann', true],
    ['QWERTYUIOP', 'Ann', true],
    ['aaaaaaaaaab', 'Ann', true],
    ['ababababab', 'Ann', true],
    ['Robin Quay 12', 'Robin Quay', true],
    ['Clapboard2026', 'Ann', true],
  ])('“%s” of %s is refused: %s', (password, name, refused) =>
    expect(passwordTrouble(password, name) !== undefined).toBe(refused),
  );
  it('is changed with the one of now, and other devices are signed out', async () => {
    const [here, there] = [await signedIn('Ben'), await signedIn('Ben')];
    const change = (current: string, password: string) =>
      here.ask('PUT', '/api/account/password', { current, password });
    expect((await change('not it', 'tide tables 9')).body).toMatchObject({ error: { field: 'current' } });
    expect((await change(PASSWORD, 'short')).body).toMatchObject({ error: { field: 'password' } });
    expect(code((await change(PASSWORD, 'password123')).body)).toBe('weak-password');
    expect((await there.ask('GET', '/api/classes')).status).toBe(200);
    expect((await change(PASSWORD, 'tide tables 9')).status).toBe(204);
    expect([(await here.ask('GET', '/api/classes')).status, (await there.ask('GET', '/api/classes')).status]).toEqual([
      200, 401,
    ]);
    expect((await new Visitor(server.url).signIn('Ben')).status).toBe(401);
    expect(
      (
        await (
          await signedIn('Ben', 'tide tables 9')
        ).ask('PUT', '/api/account/password', {
          current: 'tide tables 9',
          password: PASSWORD,
        })
      ).status,
    ).toBe(204);
  });
  it('is chosen anew once with a code, which ends every session', async () => {
    const before = await signedIn('Ben');
    const ben = (await findTeacherByName(open.db, 'Ben'))!;
    const given = await allowReset(open.db, ben.id);
    const visitor = new Visitor(server.url);
    const reset = (name: string, typed: string) =>
      visitor.ask('POST', '/api/session/reset', { name, code: typed, password: 'harbour lights' });
    expect(code((await reset('Ben', 'aaaaa-bbbbb-ccccc-ddddd')).body)).toBe('wrong-code');
    expect(code((await reset('Ann', given)).body)).toBe('wrong-code');
    expect((await before.ask('GET', '/api/classes')).status).toBe(200);
    expect((await reset('Ben', given.toUpperCase().replaceAll('-', ' '))).body).toMatchObject({
      teacher: { name: 'Ben' },
    });
    expect((await visitor.ask('GET', '/api/classes')).status).toBe(200);
    expect((await before.ask('GET', '/api/classes')).status).toBe(401);
    expect(code((await reset('Ben', given)).body)).toBe('wrong-code');
    await signedIn('Ben', 'harbour lights');
  });
});

describe('other devices', () => {
  it('are counted and signed out, on every server at once', async () => {
    const second = await serverOn(databaseUrl);
    const [here, there] = [await signedIn('Ann'), new Visitor(second.url)];
    await there.signIn('Ann');
    expect((await there.ask('GET', '/api/classes')).status).toBe(200);
    const devices = async () => ((await here.ask('GET', '/api/account')).body as Account).devices;
    expect((await devices()).filter((one) => !one.here).length).toBeGreaterThan(0);
    expect((await here.ask('DELETE', '/api/account/other-sessions')).status).toBe(204);
    expect((await there.ask('GET', '/api/classes')).status).toBe(401);
    expect(await devices()).toMatchObject([{ here: true }]);
    await second.stop();
  });
  it('are named by their browsers, and signed out one by one', async () => {
    const fox = 'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:128.0) Gecko/20100101 Firefox/128.0';
    const [ann, ben, other] = [await signedIn('Ann'), await signedIn('Ben', 'harbour lights'), new Visitor(server.url)];
    const typed = { name: 'Ann', password: PASSWORD };
    await other.ask('POST', '/api/session', typed, { 'user-agent': fox });
    const { devices } = (await ann.ask('GET', '/api/account')).body as Account;
    const found = devices.find(({ name }) => name === 'Firefox on Windows')!;
    expect(found).toMatchObject({ here: false });
    expect((await ben.ask('DELETE', `/api/account/sessions/${found.id}`)).status).toBe(404);
    expect((await other.ask('GET', '/api/classes')).status).toBe(200);
    expect((await ann.ask('DELETE', `/api/account/sessions/${found.id}`)).status).toBe(204);
    expect((await other.ask('GET', '/api/classes')).status).toBe(401);
    expect((await ann.ask('GET', '/api/classes')).status).toBe(200);
  });
});

describe('a passkey', () => {
  const answer = { id: 'AAAA', rawId: 'AAAA', type: 'public-key', clientExtensionResults: {} };
  it('that was not asked for is none', async () => {
    const ann = await signedIn('Ann');
    const response = { clientDataJSON: 'AAAA', attestationObject: 'AAAA' };
    const added = await ann.ask('POST', '/api/account/passkeys', {
      challengeId: uuid(),
      name: 'Laptop',
      answer: { ...answer, response },
    });
    expect([added.status, code(added.body)]).toEqual([401, 'passkey-refused']);
    expect((await ann.ask('DELETE', '/api/account/passkeys/none')).status).toBe(404);
  });
  it.each([
    ['of nobody', 'AAAA'],
    ['with no letters at all', ''],
  ])('%s lets nobody in', async (_what, id) => {
    const visitor = new Visitor(server.url);
    const asked = (await visitor.ask('POST', '/api/session/passkey/options', {})).body as PasskeyRequest;
    const response = { clientDataJSON: 'AAAA', authenticatorData: 'AAAA', signature: 'AAAA' };
    const got = await visitor.ask('POST', '/api/session/passkey', {
      challengeId: asked.challengeId,
      answer: { ...answer, id, rawId: id, response },
    });
    expect([got.status, code(got.body)]).toEqual([401, 'passkey-refused']);
  });
  it('is asked of those who are signed in only', async () => {
    expect((await new Visitor(server.url).ask('POST', '/api/account/passkeys/options', {})).status).toBe(401);
  });
});

describe('what was never signed in', () => {
  it('is not read: a large body is answered before it is all there', async () => {
    const visitor = new Visitor(server.url);
    const sound = Buffer.alloc(20_000_000);
    const answer = await visitor.send('PUT', `/api/takes/${uuid()}/recording`, sound, { 'content-type': 'audio/wav' });
    expect(answer.status).toBe(401);
    const large = await visitor.ask('POST', '/api/session', { name: 'x'.repeat(60_000), password: 'y' });
    expect(large.status).toBe(413);
  });
});
