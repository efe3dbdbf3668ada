import type { TakesPage } from '../contract/records.ts';
import type { ClassDetail } from '../contract/schoolClass.ts';
import type { TakeSummary } from '../contract/take.ts';
import { v4 as uuid } from 'uuid';
import type { Config } from './config.ts';
import { openDatabase } from './database.ts';
import { migrateDatabase } from './migrate.ts';
import { hashPassword } from './password.ts';
import { addTeacher } from './repository/teachers.ts';
import { PATIENT } from './testDatabase.test-helper.ts';
import { type RunningServer, startServer } from './start.ts';

export { freshDatabase } from './testDatabase.test-helper.ts';

export const PASSWORD = 'a long password';

/** A server on this database with three teachers, Ann, Ben and Cleo. */
export async function serverWithTeachers(databaseUrl: string, more: Partial<Config> = {}): Promise<RunningServer> {
  await migrateDatabase(databaseUrl);
  const { db, pool } = openDatabase(databaseUrl, { connections: 1 });
  for (const name of ['Ann', 'Ben', 'Cleo'])
    await addTeacher(db, { id: uuid(), name, passwordHash: await hashPassword(PASSWORD) });
  await pool.end();
  return serverOn(databaseUrl, more);
}

/** A server on a database as it is. */
export function serverOn(databaseUrl: string, more: Partial<Config> = {}): Promise<RunningServer> {
  return startServer({
    databaseUrl,
    host: '127.0.0.1',
    port: 0,
    demoTeacher: undefined,
    pages: undefined,
    proxies: 0,
    logLevel: 'silent',
    metrics: { token: undefined, from: [] },
    warmUp: false,
    limits: PATIENT,
    ...more,
  });
}

export interface Answer {
  readonly status: number;
  readonly body: unknown;
  readonly headers: Headers;
}

/** Talks to a server as one browser would: with its cookie. */
export class Visitor {
  private cookie = '';

  constructor(private readonly url: string) {}

  async ask(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const init: RequestInit = { method, headers: { cookie: this.cookie, ...headers } };
    if (body !== undefined)
      Object.assign(init, {
        body: typeof body === 'string' ? body : JSON.stringify(body),
        headers: { ...init.headers, 'content-type': 'application/json' },
      });
    const response = await fetch(this.url + path, init);
    const cookie = response.headers.get('set-cookie');
    if (cookie) this.cookie = cookie.split(';')[0]!;
    const text = await response.text();
    return {
      status: response.status,
      headers: response.headers,
      // A sound is no JSON.
      body: /json/.test(response.headers.get('content-type') ?? '') ? (JSON.parse(text) as unknown) : undefined,
    };
  }

  /** What a browser sends along. */
  get headers(): Record<string, string> {
    return { cookie: this.cookie };
  }

  /** Bytes as they are. */
  async send(method: string, path: string, body: Buffer, headers: Record<string, string>): Promise<Answer> {
    const response = await fetch(this.url + path, {
      method,
      body: new Uint8Array(body),
      headers: { ...this.headers, ...headers },
    });
    const text = await response.text();
    return {
      status: response.status,
      headers: response.headers,
      body: text === '' ? undefined : (JSON.parse(text) as unknown),
    };
  }

  async signIn(name: string, password = PASSWORD): Promise<Answer> {
    return this.ask('POST', '/api/session', { name, password });
  }
}

/** All takes of a class, newest first. */
export async function takesIn(visitor: Visitor, classId: string): Promise<TakeSummary[]> {
  const { children } = (await visitor.ask('GET', `/api/classes/${classId}`)).body as ClassDetail;
  const all: TakeSummary[] = [];
  for (const { id } of children)
    for (let after: string | null = ''; after !== null;) {
      const path: string = `/api/classes/${classId}/children/${id}/takes${after && `?after=${after}`}`;
      const page: TakesPage = (await visitor.ask('GET', path)).body as TakesPage;
      all.push(...page.takes);
      after = page.next;
    }
  return all.sort((a, b) => b.takenAt - a.takenAt || (a.id < b.id ? 1 : -1));
}
