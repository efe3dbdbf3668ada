import { createPool } from 'mysql2/promise';
import { setTimeout as wait } from 'node:timers/promises';
import type { RejudgingState } from '../../contract/judging.ts';
import { report } from './benchReport.ts';
import { benchStoring } from './benchStoring.ts';
import { buildServer, startBuilt } from '../build/buildServer.ts';
import { LARGE_PASSWORD, type LargeSize, childId, classId, schoolId, teacherName } from './largeSchool.ts';

const CLASSES_READ = 200;

const at = (times: readonly number[], part: number) =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * part)]!;
const words = (times: readonly number[]) => `p50 ${at(times, 0.5).toFixed(1)} ms, p95 ${at(times, 0.95).toFixed(1)} ms`;

async function timed<T>(action: () => Promise<T>): Promise<{ ms: number; result: T }> {
  const from = performance.now();
  const result = await action();
  return { ms: performance.now() - from, result };
}

/** Whoever asks a server, as any of the teachers. */
function visitorsOf(address: string, { schools }: LargeSize) {
  const cookies = new Map<number, string>();
  const signingIn: number[] = [];
  const cookieOf = async (room: number) => {
    const known = cookies.get(room);
    if (known !== undefined) return known;
    const school = schoolId(room % schools);
    const body = JSON.stringify({ name: teacherName(room), password: LARGE_PASSWORD, school });
    const headers = { 'content-type': 'application/json' };
    const { ms, result: response } = await timed(() =>
      fetch(`${address}/api/session`, { method: 'POST', headers, body }),
    );
    signingIn.push(ms);
    const given = response.headers.getSetCookie().map((one) => one.split(';')[0]!);
    cookies.set(room, given.join('; '));
    return cookies.get(room)!;
  };
  const ask = async (room: number, path: string) => {
    const headers = { cookie: await cookieOf(room) };
    const { ms } = await timed(async () => {
      const response = await fetch(address + path, { headers });
      if (!response.ok) throw new Error(`${response.status} at ${path}`);
      await response.arrayBuffer();
    });
    return ms;
  };
  return { cookieOf, ask, signingIn };
}
type Visitors = ReturnType<typeof visitorsOf>;

/** Pages of a large school, one after the other, beside the plain rows of the same; then storing and judging anew. */
export async function benchLarge(url: string, size: LargeSize): Promise<void> {
  // As it ships, and in a process of its own: whoever asks is not in its way.
  await buildServer();
  const env = { PATH: process.env['PATH'], DATABASE_URL: url, PORT: '0', PAGES: '' };
  const { server, url: address } = await startBuilt(env);
  const visitors = visitorsOf(address, size);
  const rooms = Array.from({ length: CLASSES_READ }, (_, i) => 1 + ((i * 7) % (size.teachers - 1)));
  for (const room of rooms) await visitors.cookieOf(room);
  report(`signing in, ${size.schools} schools`, words(visitors.signingIn), 'most of it is the cost of the password');
  await benchPages(url, size, visitors, rooms);
  const compressed = await fetch(`${address}/api/classes/${classId(1)}/records`, {
    headers: { cookie: await visitors.cookieOf(1), 'accept-encoding': 'gzip' },
  });
  const sent = Number(compressed.headers.get('content-length'));
  report('grid as it is sent', `${(sent / 1024).toFixed(1)} kB`, 'compressed');
  const hearing = [];
  for (const room of rooms.slice(0, 50))
    hearing.push({ cookie: await visitors.cookieOf(room), classId: classId(room) });
  await benchStoring(address, hearing);
  await benchRejudging(address, await visitors.cookieOf(0), classId(0));
  const path = `${address}/api/classes/${classId(2)}/children/${childId(size, 2, 0)}/everything`;
  const headers = { cookie: await visitors.cookieOf(2) };
  const erased = await timed(() => fetch(path, { method: 'DELETE', headers }));
  const { status } = erased.result;
  report('everything of a child deleted and proven', `${(erased.ms / 1000).toFixed(1)} s`, `answered ${status}`);
  server.kill('SIGTERM');
}

const PLAIN_TAKES = `select id, child_id, pattern_id, pattern_key, title, bpm, taken_at, accuracy, mark, override_mark,
  source, corrected, hardest, misread from takes where child_id = ? order by taken_at desc, id desc limit 51`;

async function benchPages(url: string, size: LargeSize, { ask }: Visitors, rooms: readonly number[]): Promise<void> {
  const pool = createPool({ uri: url, connectionLimit: 1 });
  const plain = async (...questions: readonly (readonly [string, string])[]) =>
    (
      await timed(async () => {
        for (const [question, id] of questions) await pool.query(question, [id]);
      })
    ).ms;
  const [grid, plainGrid, child, plainChild]: [number[], number[], number[], number[]] = [[], [], [], []];
  const ofClass = (table: string) =>
    `select * from ${table} where child_id in (select id from children where class_id = ?)`;
  for (const [i, room] of rooms.entries()) {
    const path = `/api/classes/${classId(room)}`;
    grid.push(await ask(room, `${path}/records`));
    plainGrid.push(await plain([ofClass('child_elements'), classId(room)], [ofClass('child_patterns'), classId(room)]));
    const kid = childId(size, room, i % size.children);
    child.push(await ask(room, `${path}/children/${kid}/takes`));
    plainChild.push(await plain([PLAIN_TAKES, kid]));
  }
  const beside = (times: readonly number[], rows: readonly number[]) =>
    `${(at(times, 0.95) / at(rows, 0.95)).toFixed(1)} × the plain rows (${words(rows)})`;
  report(`grid of a class, ${size.children} children, first time`, words(grid), beside(grid, plainGrid));
  report('page of a child’s takes', words(child), beside(child, plainChild));
  await pool.end();
}

/** A term of one class judged anew: how long it takes, and how soon breaking it off is done. */
async function benchRejudging(url: string, cookie: string, room: string): Promise<void> {
  const headers = { cookie, 'content-type': 'application/json' };
  const path = `${url}/api/classes/${room}`;
  const settings = { name: 'Class 0', ages: '9-10', school: 'numbers', rests: null };
  const put = (onTimeMs: number) =>
    fetch(path, { method: 'PUT', headers, body: JSON.stringify({ ...settings, onTimeMs }) });
  const state = async () => (await (await fetch(`${path}/rejudging`, { headers })).json()) as RejudgingState;
  const done = async () => {
    let total = 0;
    for (let now = await state(); now.running; now = await state()) {
      total = now.total;
      await wait(50);
    }
    return total;
  };
  const whole = await timed(async () => {
    await put(61 + (Date.now() % 20));
    return done();
  });
  report(`a term judged anew, ${whole.result} takes`, `${(whole.ms / 1000).toFixed(1)} s`, 'in the background');
  await put(31);
  const off = await timed(() => fetch(`${path}/rejudging`, { method: 'DELETE', headers }));
  report('breaking it off', `${off.ms.toFixed(0)} ms`, 'until it is answered');
  await done();
}
