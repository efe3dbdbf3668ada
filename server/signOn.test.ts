import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { FIRST_SCHOOL } from '../contract/school.ts';
import type { SessionState } from '../contract/session.ts';
import { configFrom } from './config.ts';
import { openDatabase } from './database.ts';
import { identities } from './schema.ts';
import { makeInvitation } from './services/invitations.ts';
import { type StandInProvider, standInProvider } from './standInProvider.test-helper.ts';
import type { RunningServer } from './start.ts';
import { type Answer, Visitor, freshDatabase, serverWithTeachers } from './testServer.test-helper.ts';

let provider: StandInProvider;
let server: RunningServer;
let open: ReturnType<typeof openDatabase>;

beforeAll(async () => {
  provider = await standInProvider();
  const databaseUrl = await freshDatabase();
  const { issuer, clientId, clientSecret } = provider;
  server = await serverWithTeachers(databaseUrl, { signOn: { issuer, clientId, clientSecret, name: 'Town sign-in' } });
  open = openDatabase(databaseUrl, { connections: 1 });
});
afterAll(async () => {
  await open.pool.end();
  await server.stop();
  await provider.close();
});
beforeEach(() => (provider.wrong = 'nothing'));

const code = ({ status, body }: Answer) =>
  `${status} ${(body as { error?: { code: string } } | undefined)?.error?.code ?? (body as { kind?: string })?.kind}`;

/** A browser with every cookie it was given. */
class Browser extends Visitor {
  private readonly jar = new Map<string, string>();

  override async ask(method: string, path: string, body?: unknown): Promise<Answer> {
    const cookie = [...this.jar].map(([name, value]) => `${name}=${value}`).join('; ');
    const answer = await super.ask(method, path, body, { cookie });
    for (const one of answer.headers.getSetCookie()) {
      const [name = '', value = ''] = one.split(';')[0]!.split('=');
      this.jar.set(name, value);
    }
    return answer;
  }
}

/** Goes there and comes back with an answer. */
async function away(browser: Browser, path = '/api/session/sign-on'): Promise<string> {
  const { body } = await browser.ask('POST', path, {});
  const there = await fetch((body as { url: string }).url, { redirect: 'manual' });
  return new URL(there.headers.get('location')!).search.slice(1);
}

const back = (browser: Browser, query: string) => browser.ask('POST', '/api/session/sign-on/answer', { query });
const who = async (browser: Browser) => ((await browser.ask('GET', '/api/session')).body as SessionState).teacher?.name;

describe('another place vouches for teachers', () => {
  it('is offered at the door, and where it is not, nobody is sent away', async () => {
    const door = (await new Browser(server.url).ask('GET', '/api/session')).body as SessionState;
    expect(door.signOn).toEqual({ name: 'Town sign-in' });
  });

  it('who is nobody here yet makes an account with an invitation, and is in next time', async () => {
    provider.person = { sub: 'dana', name: 'Dana Reef' };
    const browser = new Browser(server.url);
    const query = await away(browser);
    expect((await back(browser, query)).body).toEqual({ kind: 'new', name: 'Dana Reef' });
    const state = new URLSearchParams(query).get('state');
    const wrong = { name: 'Dana', code: 'abcde', state };
    expect(code(await browser.ask('POST', '/api/session/sign-on/account', wrong))).toBe('401 wrong-code');
    const invited = await makeInvitation(open.db, FIRST_SCHOOL, false, 1);
    const made = await browser.ask('POST', '/api/session/sign-on/account', { name: 'Dana', state, ...invited });
    expect([made.status, await who(browser)]).toEqual([200, 'Dana']);
    const again = new Browser(server.url);
    expect((await back(again, await away(again))).status).toBe(200);
    expect(await who(again)).toBe('Dana');
    expect(JSON.stringify(await open.db.select().from(identities))).not.toContain('dana');
  });

  it('who is here already says who she is there, comes in by it, and can forget it', async () => {
    provider.person = { sub: 'ann' };
    const ann = new Browser(server.url);
    await ann.signIn('Ann');
    expect((await ann.ask('GET', '/api/account')).body).toMatchObject({
      signOn: { name: 'Town sign-in', since: null },
    });
    expect((await back(ann, await away(ann, '/api/account/sign-on'))).body).toEqual({ kind: 'linked' });
    const other = new Browser(server.url);
    await back(other, await away(other));
    expect(await who(other)).toBe('Ann');
    const ben = new Browser(server.url);
    await ben.signIn('Ben');
    expect(code(await back(ben, await away(ben, '/api/account/sign-on')))).toBe('409 sign-on-taken');
    await ann.ask('DELETE', '/api/account/sign-on');
    const third = new Browser(server.url);
    expect(code(await back(third, await away(third)))).toBe('200 new');
  });

  it.each(['nonce', 'audience', 'issuer', 'key', 'expired'] as const)(
    'with a wrong %s nobody comes in',
    async (wrong) => {
      provider.person = { sub: 'mallory' };
      provider.wrong = wrong;
      const browser = new Browser(server.url);
      expect(code(await back(browser, await away(browser)))).toBe('401 sign-on-refused');
      expect(await who(browser)).toBeUndefined();
    },
  );

  it('an answer is good once, in the browser that asked, for what it was asked for', async () => {
    provider.person = { sub: 'cleo' };
    const [cleo, thief] = [new Browser(server.url), new Browser(server.url)];
    await cleo.signIn('Cleo');
    const query = await away(cleo, '/api/account/sign-on');
    await away(thief);
    expect(code(await back(thief, query))).toBe('401 sign-on-refused');
    // Signed out meanwhile, or another teacher in this browser.
    await cleo.ask('DELETE', '/api/session');
    expect(code(await back(cleo, query))).toBe('401 sign-on-refused');
    await cleo.signIn('Cleo');
    expect((await back(cleo, query)).status).toBe(200);
    expect(code(await back(cleo, query))).toBe('401 sign-on-refused');
    expect(code(await back(cleo, 'state=made-up&code=1'))).toBe('401 sign-on-refused');
    expect(code(await back(cleo, 'nothing'))).toBe('401 sign-on-refused');
  });

  it('a flood of people who never come back fills no table', async () => {
    await open.pool.query(`insert into sign_ons (state_hash, browser_hash, nonce, verifier, expires_at)
      select concat('flood ', seq), '', '', '', ${Date.now() + 60_000} from seq_1_to_5000`);
    expect(code(await new Browser(server.url).ask('POST', '/api/session/sign-on', {}))).toBe('429 busy');
    // Whose time is over makes room.
    await open.pool.query("update sign_ons set expires_at = 5 where state_hash like 'flood %'");
    expect((await new Browser(server.url).ask('POST', '/api/session/sign-on', {})).status).toBe(200);
    const [rows] = await open.pool.query("select 1 from sign_ons where state_hash like 'flood %'");
    expect(rows).toEqual([]);
  });

  it('an account that its school has closed stays closed', async () => {
    provider.person = { sub: 'dana' };
    await open.pool.query("update members set closed = true where name = 'Dana'");
    const browser = new Browser(server.url);
    expect(code(await back(browser, await away(browser)))).toBe('403 account-closed');
  });
});

describe('the settings of the other place', () => {
  const env = { DATABASE_URL: 'mysql://a@b/c', PAGES: '' };
  const oidc = { OIDC_ISSUER: 'https://id.example', OIDC_CLIENT_ID: 'c', OIDC_CLIENT_SECRET: 's' };
  it('are none, or all, with a name to show', () => {
    expect(configFrom(env).signOn).toBeUndefined();
    expect(configFrom({ ...env, ...oidc }).signOn).toMatchObject({ clientId: 'c', name: 'id.example' });
    expect(configFrom({ ...env, ...oidc, OIDC_NAME: 'Town' }).signOn?.name).toBe('Town');
  });
  it.each([
    [{ OIDC_ISSUER: 'nowhere' }, 'OIDC_ISSUER'],
    [{ OIDC_ISSUER: 'http://id.example' }, 'https'],
    [{ OIDC_CLIENT_SECRET: '' }, 'OIDC_CLIENT_SECRET'],
  ])('%j is refused', (more, word) => {
    expect(() => configFrom({ ...env, ...oidc, ...more })).toThrow(word);
  });
  it('where there is no such place, or it does not answer, that is said', async () => {
    const none = await serverWithTeachers(await freshDatabase());
    expect(code(await new Visitor(none.url).ask('POST', '/api/session/sign-on', {}))).toBe('404 no-sign-on');
    await none.stop();
    const place = { issuer: new URL('http://127.0.0.1:9'), clientId: 'c', clientSecret: 's', name: 'Gone' };
    const gone = await serverWithTeachers(await freshDatabase(), { signOn: place });
    expect(code(await new Visitor(gone.url).ask('POST', '/api/session/sign-on', {}))).toBe('503 sign-on-away');
    await gone.stop();
  });
});
