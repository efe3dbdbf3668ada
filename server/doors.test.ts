import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { v4 as uuid } from 'uuid';
import type { Account, PasskeyRequest, SessionState } from '../contract/session.ts';
import { openDatabase } from './database.ts';
import { passwordTrouble } from './password.ts';
import { findTeacherByName } from './repository/teachers.ts';
import { signInTries as signInTriesTable } from './schema.ts';
import { allowReset } from './services/session.ts';
import { signInTries, waitBefore } from './services/signInTries.ts';
import type { RunningServer } from './start.ts';
import { PASSWORD, Visitor, freshDatabase, serverOn, serverWithTeachers } from './testServer.test-helper.ts';

let databaseUrl: string;
let server: RunningServer;
let open: ReturnType<typeof openDatabase>;

beforeAll(async () => {
  databaseUrl = await freshDatabase();
  server = await serverWithTeachers(databaseUrl, 'Ann');
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

describe('how long a try to sign in waits', () => {
  it.each([
    [1, 1, 1, 0],
    [5, 5, 5, 0],
    [6, 6, 6, 1],
    [7, 7, 7, 2],
    [9, 9, 9, 8],
    [11, 11, 11, 32],
    [500, 500, 500, 40],
    [1, 31, 1, 1],
    [1, 5_000, 1, 5],
    [1, 1, 42, 2],
    [1, 1, 10_000, 20],
  ])(
    '%i from this address on this account, %i on the account, %i from the address: %i s',
    (both, account, address, s) => expect(waitBefore({ both, account, address })).toBe(s),
  );
  it('never shrinks with more tries, and is never longer than forty seconds', () => {
    const tries = fc.integer({ min: 1, max: 100_000 });
    fc.assert(
      fc.property(tries, tries, tries, (both, account, address) => {
        const now = waitBefore({ both, account, address });
        expect(now).toBeLessThanOrEqual(40);
        expect(waitBefore({ both: both + 1, account: account + 1, address: address + 1 })).toBeGreaterThanOrEqual(now);
      }),
    );
  });
});

describe('tries to sign in', () => {
  const database = () => new URL(databaseUrl).pathname.slice(1);
  const counting = () => {
    const waits: number[] = [];
    const pause = (ms: number) => Promise.resolve(waits.push(ms / 1000));
    return { waits, tries: signInTries(open.pool, database(), pause) };
  };
  const wrong = () => Promise.reject(new Error('wrong'));

  it('are counted for all servers together, and a right one is let in and forgiven', async () => {
    const [one, other] = [counting(), counting()];
    for (let i = 0; i < 4; i++) {
      await expect(one.tries.look('Cleo', '10.0.0.1', wrong)).rejects.toThrow('wrong');
      await expect(other.tries.look(' cleo', '10.0.0.1', wrong)).rejects.toThrow('wrong');
    }
    expect([...one.waits, ...other.waits]).toEqual([0, 0, 0, 2, 0, 0, 1, 4]);
    expect(await other.tries.look('Cleo', '10.0.0.1', () => Promise.resolve('in'))).toBe('in');
    expect(other.waits.at(-1)).toBe(8);
    await one.tries.look('Cleo', '10.0.0.1', () => Promise.resolve('in'));
    expect(one.waits.at(-1)).toBe(0);
  });
  it('from elsewhere hardly hold up the teacher', async () => {
    const { waits, tries } = counting();
    for (let i = 0; i < 40; i++) await tries.look('Dora', `10.1.0.${i}`, wrong).catch(() => undefined);
    await tries.look('Dora', '10.2.0.1', () => Promise.resolve());
    expect(waits.at(-1)).toBe(5);
  });
  it('that are right never wait, however many teachers come in from one school', async () => {
    const { waits, tries } = counting();
    for (let i = 0; i < 45; i++) await tries.look(`teacher ${i % 3}`, '10.5.0.1', () => Promise.resolve());
    expect(Math.max(...waits)).toBe(0);
  });
  it('from one network of the newer addresses count together, and so do both ways to write an older one', async () => {
    const { waits, tries } = counting();
    for (const end of ['1', '2:3', 'ffff', '9', '8', '7'])
      await tries.look('Eve', `2001:db8:1:2::${end}`, wrong).catch(() => undefined);
    for (const address of ['10.3.0.1', '::ffff:10.3.0.1', '10.3.0.1', '10.3.0.1', '10.3.0.1', '::ffff:10.3.0.1'])
      await tries.look('Finn', address, wrong).catch(() => undefined);
    expect(waits).toEqual([0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1]);
  });
  it('that come all at once wait for each other, and too many are sent away', async () => {
    const { tries } = counting();
    const all = await Promise.allSettled(Array.from({ length: 12 }, () => tries.look('Gus', '10.4.0.1', wrong)));
    const why = all.map((one) => ((one as PromiseRejectedResult).reason as Error).message);
    expect(why.filter((word) => word === 'wrong')).toHaveLength(6);
    expect(why.filter((word) => word.includes('Too much of yours'))).toHaveLength(6);
  });
  it('leave neither names nor addresses behind', async () => {
    const rows = JSON.stringify(await open.db.select().from(signInTriesTable));
    expect(rows).toMatch(/account:/);
    expect(rows).not.toMatch(/Dora|dora|10\.2/);
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
