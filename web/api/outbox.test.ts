import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { deleteDB } from 'idb';
import { keepChange } from '../store/changes.ts';
import { keepingBrowser } from '../store/stored.test-helper.ts';
import { writeStored } from '../store/stored.ts';
import { filesOf } from '../take/exportTake.ts';
import type { Waiting } from '../store/keptTakes.ts';
import { dropTake, keepTake, onOutboxChange, sendTakes, tryAgain, waitingTakes, wouldBeLost } from './outbox.ts';

const TEACHER = 'teacher-1';

function take(id: string, takenAt: number, more: Partial<Waiting> = {}): Waiting {
  return {
    id,
    teacherId: TEACHER,
    childName: 'Ada',
    upload: { takenAt, onsets: [0.5, 1.25] } as unknown as Waiting['upload'],
    ...more,
  };
}

/** What the server was sent, in order; it answers as `answer` says. */
function server(answer: (path: string) => Response | undefined): string[] {
  const sent: string[] = [];
  vi.stubGlobal('fetch', (path: string) => {
    sent.push(path);
    const response = answer(path);
    return response ? Promise.resolve(response) : Promise.reject(new TypeError('no network'));
  });
  return sent;
}

const taken = () => Response.json({ id: 'x' });
const refusal = (status: number) =>
  Response.json({ error: { code: 'no', message: 'There is no such child in this class any more.' } }, { status });
const idsWaiting = async () => (await waitingTakes()).map(({ id }) => id).sort();

beforeEach(async () => {
  for (const { id } of await waitingTakes()) await dropTake(id);
});
afterEach(() => vi.unstubAllGlobals());

describe('takes and what was changed without a network', () => {
  const CHILD = '/classes/00000000-0000-4000-8000-000000000001/children/00000000-0000-4000-8000-000000000002';
  const PLAN = '/plans/00000000-0000-4000-8000-000000000003';
  beforeEach(async () => {
    keepingBrowser();
    writeStored('changes', undefined);
    keepChange({ teacherId: TEACHER, path: PLAN, body: undefined, was: undefined });
    keepChange({ teacherId: TEACHER, path: CHILD, body: { name: 'Ada' }, was: undefined });
    await keepTake(take('first', 10));
  });
  afterEach(() => writeStored('changes', undefined));

  it('who is heard goes before the take, what is removed after it', async () => {
    const sent = server((path) => (path === '/api/plans' ? Response.json([]) : taken()));
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(sent).toEqual([`/api${CHILD}`, '/api/takes/first', '/api/plans', `/api${PLAN}`]);
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(sent).toHaveLength(4);
  });

  it('what is said of a child after a take waits while the server fails at the take', async () => {
    const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
    const turn = (child: number) => `/classes/${id(1)}/line-ups/${id(4)}/turns/${id(child)}`;
    const upload = { takenAt: 5, onsets: [1], lineUpId: id(4), childId: id(2) } as unknown as Waiting['upload'];
    await keepTake(take('heard', 5, { upload }));
    for (const child of [2, 3])
      keepChange({
        teacherId: TEACHER,
        path: turn(child),
        body: { state: 'heard', mark: 3 },
        was: undefined,
        afterTakes: true,
      });
    const answer = (path: string) => (path === '/api/plans' ? Response.json([]) : taken());
    const sent = server((path) => (path === '/api/takes/heard' ? refusal(500) : answer(path)));
    const turns = () => sent.filter((path) => path.includes('/turns/'));
    expect(await sendTakes(TEACHER)).toBe(false);
    expect(turns()).toEqual([`/api${turn(3)}`]);
    const later = server(answer);
    expect(await sendTakes(TEACHER, Date.now() + 600_000)).toBe(true);
    expect(later).toEqual(['/api/takes/heard', `/api${turn(2)}`]);
  });

  it('nothing is sent where nobody takes the first, and not all is done while something waits', async () => {
    const sent = server(() => undefined);
    expect(await sendTakes(TEACHER)).toBe(false);
    expect(sent).toEqual([`/api${CHILD}`]);
    server((path) => (path.startsWith('/api/plans') ? refusal(503) : taken()));
    expect(await sendTakes(TEACHER)).toBe(false);
    expect(await waitingTakes()).toEqual([]);
  });
});

describe('takes on their way to the server', () => {
  it('go oldest first, one at a time, and are gone from the device when they arrived', async () => {
    await keepTake(take('second', 20));
    await keepTake(take('first', 10));
    const sent = server(taken);
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(sent).toEqual(['/api/takes/first', '/api/takes/second']);
    expect(await waitingTakes()).toEqual([]);
  });

  it.each([
    ['there is no network', () => undefined],
    ['the server is down', () => new Response('Bad gateway', { status: 502 })],
    ['the teacher is signed out', () => refusal(401)],
    [
      'a network asks to sign in',
      () =>
        new Response('<html>Welcome to the guest network</html>', {
          status: 200,
          headers: { 'Content-Type': 'text/html' },
        }),
    ],
    ['a proxy knows no such page', () => new Response('<html>Not found</html>', { status: 404 })],
  ])('stay on the device while %s, and the rest waits behind them', async (_why, answer) => {
    await keepTake(take('a', 1));
    await keepTake(take('b', 2));
    const sent = server(answer);
    expect(await sendTakes(TEACHER)).toBe(false);
    expect(sent).toEqual(['/api/takes/a']);
    expect(await idsWaiting()).toEqual(['a', 'b']);
    server(taken);
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(await idsWaiting()).toEqual([]);
  });

  it.each([500, 503, 429])('do not hold up the others while the server fails at one (%i)', async (status) => {
    await keepTake(take('bad', 1));
    await keepTake(take('fine', 2));
    server((path) => (path.endsWith('bad') ? refusal(status) : taken()));
    expect(await sendTakes(TEACHER, 1_000)).toBe(false);
    expect(await idsWaiting()).toEqual(['bad']);
    const sent = server(taken);
    expect(await sendTakes(TEACHER, 2_000)).toBe(false);
    expect(sent).toEqual([]);
    expect(await sendTakes(TEACHER, 20_000)).toBe(true);
    expect(await idsWaiting()).toEqual([]);
  });

  it('are shown when the server has failed at one too often, and can be tried again', async () => {
    await keepTake(take('bad', 1, { sound: new Blob(['x'], { type: 'audio/wav' }) }));
    const sent = server(() => refusal(500));
    for (let i = 1; i < 30; i++) await sendTakes(TEACHER, i * 1e6);
    const [bad] = await waitingTakes();
    expect([sent.length, bad!.refused]).toEqual([8, expect.stringContaining('failed 8 times')]);
    server(taken);
    expect(await sendTakes(TEACHER, 1e9)).toBe(true);
    expect(await idsWaiting()).toEqual(['bad']);
    await tryAgain(bad!);
    // As if it were new: neither refused nor made to wait.
    const [fresh] = await waitingTakes();
    expect([fresh!.refused, fresh!.failures, fresh!.notBefore]).toEqual([undefined, undefined, undefined]);
    server((path) => (path.endsWith('recording') ? new Response(null, { status: 204 }) : taken()));
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(await idsWaiting()).toEqual([]);
  });

  it('are sent also when the whole school’s database is away for a morning', async () => {
    await keepTake(take('a', 1));
    server(() => refusal(503));
    for (let i = 1; i < 60; i++) await sendTakes(TEACHER, i * 400_000);
    server(taken);
    expect(await sendTakes(TEACHER, 1e9)).toBe(true);
    expect(await idsWaiting()).toEqual([]);
  });

  it('are saved as files, with their sound', async () => {
    const upload = { takenAt: Date.UTC(2026, 4, 3, 9, 5), onsets: [0.5], title: 'Steps' } as never;
    const [text, sound] = filesOf(
      take('a1b2c3d4-x', 1, { upload, refused: 'why', sound: new Blob(['x'], { type: 'audio/webm;codecs=opus' }) }),
    );
    expect([text![0], sound![0]]).toEqual(['take-2026-05-03T0905-a1b2c3d4.json', 'take-2026-05-03T0905-a1b2c3d4.webm']);
    expect(JSON.parse(await text![1].text())).toMatchObject({
      child: 'Ada',
      title: 'Steps',
      onsets: [0.5],
      notStored: 'why',
    });
  });

  it('are kept with the reason when the server will never take them, and do not hold up the others', async () => {
    await keepTake(take('never', 1));
    await keepTake(take('fine', 2));
    const sent = server((path) => (path.endsWith('never') ? refusal(422) : taken()));
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(await waitingTakes()).toMatchObject([
      { id: 'never', refused: 'There is no such child in this class any more.' },
    ]);
    await sendTakes(TEACHER);
    expect(sent).toEqual(['/api/takes/never', '/api/takes/fine']);
  });

  it('are sent only by the teacher who took them', async () => {
    await keepTake(take('mine', 1));
    await keepTake(take('hers', 2, { teacherId: 'teacher-2' }));
    server(taken);
    await sendTakes(TEACHER);
    expect(await idsWaiting()).toEqual(['hers']);
  });

  it('wait for a sending that is under way, instead of going twice', async () => {
    await keepTake(take('once', 1));
    const sent = server(taken);
    await Promise.all([sendTakes(TEACHER), sendTakes(TEACHER)]);
    expect(sent).toEqual(['/api/takes/once']);
  });

  it('tell who listens when something is kept or has gone', async () => {
    const heard = vi.fn();
    const off = onOutboxChange(heard);
    await keepTake(take('a', 1));
    expect(heard).toHaveBeenCalled();
    heard.mockClear();
    await dropTake('a');
    expect(heard).toHaveBeenCalled();
    heard.mockClear();
    off();
    await keepTake(take('b', 1));
    expect(heard).not.toHaveBeenCalled();
  });

  it('may be kept again under the same id: the later one stands', async () => {
    await keepTake(take('a', 1));
    await keepTake(take('a', 1, { childName: 'Ben' }));
    expect(await waitingTakes()).toMatchObject([{ id: 'a', childName: 'Ben' }]);
  });
});

describe('a recording beside its take', () => {
  const sound = new Blob([new Uint8Array([1, 2, 3])], { type: 'audio/wav' });
  const withSound = () => keepTake(take('a', 1, { sound }));

  it('is sent after it', async () => {
    await withSound();
    const sent = server((path) => (path.endsWith('recording') ? new Response(null, { status: 204 }) : taken()));
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(sent).toEqual(['/api/takes/a', '/api/takes/a/recording']);
  });

  it.each([
    ['there is no network', () => undefined],
    ['the server is down', () => new Response('', { status: 503 })],
    ['the teacher is signed out meanwhile', () => refusal(401)],
    ['a network asks to sign in', () => new Response('<html></html>', { status: 200 })],
  ])('keeps both waiting while %s', async (_why, answer) => {
    await withSound();
    server((path) => (path.endsWith('recording') ? answer() : taken()));
    expect(await sendTakes(TEACHER)).toBe(false);
    expect(await idsWaiting()).toEqual(['a']);
  });

  it.each([
    [403, 'not-kept'],
    [404, 'not-found'],
  ])('does not hold up the take when the class keeps none (%i)', async (status, code) => {
    await withSound();
    const answer = () => Response.json({ error: { code, message: 'No.' } }, { status });
    server((path) => (path.endsWith('recording') ? answer() : taken()));
    expect(await sendTakes(TEACHER)).toBe(true);
    expect(await waitingTakes()).toEqual([]);
  });

  it('that is too long is shown, though the take itself has arrived', async () => {
    await withSound();
    server((path) => (path.endsWith('recording') ? refusal(413) : taken()));
    expect(await sendTakes(TEACHER)).toBe(true);
    const [left] = await waitingTakes();
    expect(left).toMatchObject({ id: 'a', stored: true, refused: expect.any(String) as unknown });
    await tryAgain(left!);
    const sent = server(() => new Response(null, { status: 204 }));
    await sendTakes(TEACHER);
    expect(sent).toEqual(['/api/takes/a/recording']);
  });
});

describe('a browser that keeps nothing', () => {
  const away = () =>
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException('not allowed', 'SecurityError');
      },
    });

  it('loses no take while its page is open, and is warned of', async () => {
    await deleteDB('clapboard');
    away();
    expect(await keepTake(take('a', 1))).toBe(false);
    expect([wouldBeLost(), await idsWaiting()]).toEqual([true, ['a']]);
    const sent = server(taken);
    expect(await sendTakes(TEACHER)).toBe(true);
    expect([sent, wouldBeLost(), await idsWaiting()]).toEqual([['/api/takes/a'], false, []]);
  });

  it('or whose data were cleared meanwhile: the page still has the take', async () => {
    expect(await keepTake(take('a', 1))).toBe(true);
    expect(wouldBeLost()).toBe(false);
    await deleteDB('clapboard');
    expect(await idsWaiting()).toEqual(['a']);
    const sent = server(taken);
    expect(await sendTakes(TEACHER)).toBe(true);
    expect([sent, await idsWaiting()]).toEqual([['/api/takes/a'], []]);
  });
});
