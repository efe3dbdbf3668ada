// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { keepTake, sendKept } from './keptTakes.ts';

const TAKE = { round: 1, onsets: [0, 1, 2] };
let answers: (() => Response)[] = [];
let sent: string[] = [];

beforeEach(() => {
  vi.useFakeTimers();
  [answers, sent] = [[], []];
  vi.stubGlobal('fetch', (url: string) => {
    sent.push(url);
    const next = answers.shift();
    return next ? Promise.resolve(next()) : Promise.reject(new TypeError('away'));
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const refused = (status: number, code: string) => () => Response.json({ error: { code, message: 'no' } }, { status });

it('a take is kept until the server has it, tried again and again, and then nothing is left', async () => {
  const arrived: unknown[] = [];
  keepTake('a', TAKE, (id, mark) => arrived.push([id, mark]));
  await vi.advanceTimersByTimeAsync(0);
  expect(JSON.parse(localStorage.getItem('room.takes')!)).toEqual([{ id: 'a', take: TAKE }]);
  answers = [refused(503, 'database-away'), refused(429, 'busy'), () => Response.json({ mark: 3 })];
  await vi.advanceTimersByTimeAsync(2_000);
  expect(arrived).toEqual([]);
  await vi.advanceTimersByTimeAsync(4_000);
  expect(arrived).toEqual([['a', 3]]);
  expect(sent).toEqual(Array.from({ length: 4 }, () => '/api/room/takes/a'));
  expect(localStorage.getItem('room.takes')).toBeNull();
});

it('what was kept before the page was opened again is sent, one after the other', async () => {
  localStorage.setItem('room.takes', JSON.stringify(['a', 'b'].map((id) => ({ id, take: TAKE }))));
  // What the server will not have holds up no other.
  answers = [refused(410, 'room-ended'), () => Response.json({ mark: null })];
  const arrived: unknown[] = [];
  await sendKept((id, mark) => arrived.push([id, mark]));
  expect(sent).toEqual(['/api/room/takes/a', '/api/room/takes/b']);
  expect(arrived).toEqual([['b', null]]);
  expect(localStorage.getItem('room.takes')).toBeNull();
});

it('a box that cannot be read is empty', async () => {
  localStorage.setItem('room.takes', '{');
  await sendKept(() => undefined);
  expect(sent).toEqual([]);
});
