import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { get, pageBelongsTo, put, remove } from '../api/client.ts';
import { keepingBrowser } from './stored.test-helper.ts';
import { writeStored } from './stored.ts';
import { putInto, takeFrom } from './deviceBox.ts';
import { dropChange, insist, keepChange, pendingOf } from './changes.ts';
import { forgetAnswers, keepAnswer, keptAnswer } from './keptAnswers.ts';
import { sendChanges } from '../api/sendChanges.ts';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const PATTERN = `/patterns/${id(1)}`;
const WAVES = { title: 'Waves', text: '4/4 w' };
const list = (patterns: unknown) => Array.isArray(patterns);

interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}
type Answer = (asked: Asked) => Response | undefined;
const away: Answer = () => undefined;
const error = (status: number, more: object = {}) =>
  Response.json({ error: { code: 'no', message: 'Not so.', ...more } }, { status });

/** A device with the app on it, and the server behind it. */
function server(answer: Answer, controller: object | null = {}): Asked[] {
  const asked: Asked[] = [];
  vi.stubGlobal('navigator', { serviceWorker: { controller } });
  vi.stubGlobal('fetch', (path: string, { method = 'GET', body }: RequestInit) => {
    const one = {
      method,
      path: path.slice('/api'.length),
      body: body ? (JSON.parse(body as string) as unknown) : undefined,
    };
    asked.push(one);
    const response = answer(one);
    return response ? Promise.resolve(response) : Promise.reject(new TypeError('no network'));
  });
  return asked;
}
const pending = () => pendingOf('ann');
const refused = () => JSON.parse(localStorage.getItem('changes') ?? '[]') as { refused?: object }[];

beforeEach(async () => {
  keepingBrowser();
  writeStored('changes', undefined);
  await forgetAnswers();
  pageBelongsTo('ann');
});
afterEach(() => vi.unstubAllGlobals());

describe('a change without a network', () => {
  it('waits, is seen, is made from what was there, and is sent once', async () => {
    await keepAnswer('ann', '/patterns', [{ id: id(1), ...WAVES }]);
    server(away);
    expect(await put(PATTERN, { ...WAVES, title: 'Ripples' })).toEqual({ id: id(1), ...WAVES, title: 'Ripples' });
    expect(await get('/patterns', list)).toEqual([{ id: id(1), ...WAVES, title: 'Ripples' }]);
    expect(await keptAnswer('ann', '/patterns')).toEqual([{ id: id(1), ...WAVES }]);
    expect(await sendChanges('ann', 'before takes')).toBe('nobody');
    const asked = server(() => Response.json({ id: id(1) }));
    expect(await sendChanges('ben', 'before takes')).toBe('all');
    expect(await sendChanges('ann', 'before takes')).toBe('all');
    expect(await sendChanges('ann', 'before takes')).toBe('all');
    expect(asked).toEqual([{ method: 'PUT', path: PATTERN, body: { ...WAVES, title: 'Ripples', was: WAVES } }]);
    expect(pending()).toEqual([]);
  });

  it('waits too while the server cannot reach what it keeps, and what was there before is shown', async () => {
    await keepAnswer('ann', '/patterns', [{ id: id(1), ...WAVES }]);
    server(() => error(503));
    await put(PATTERN, { ...WAVES, title: 'Ripples' });
    expect(pending()).toHaveLength(1);
    expect(await get('/patterns', list)).toMatchObject([{ title: 'Ripples' }]);
  });

  it('changed again is one change, made from what the first was made from', async () => {
    server(away);
    await put(PATTERN, { title: 'a', text: 'q', was: WAVES });
    await put(PATTERN, { title: 'b', text: 'q', was: { title: 'a', text: 'q' } });
    expect(pending()).toMatchObject([{ body: { title: 'b', text: 'q' }, was: WAVES }]);
  });

  it('of marks on paper says who is meant, one after the other', async () => {
    server(away);
    const path = `/classes/${id(1)}/paper/${id(2)}`;
    await put(path, { title: 'Quiz', points: { ada: 3 } });
    await put(path, { title: 'Quiz', points: { oli: 4 } });
    expect(pending()).toMatchObject([{ body: { title: 'Quiz', points: { ada: 3, oli: 4 } } }]);
  });

  const turn = `/classes/${id(1)}/line-ups/${id(2)}/turns/${id(3)}`;
  const waits = { state: 'waiting', mark: null };
  const heard = (mark: number) => ({ state: 'heard', mark });

  it('of a turn has seen what the one before it said, which may have arrived', async () => {
    server(away);
    await put(turn, { state: 'waiting', slower: 0.5, settles: true, seen: waits });
    await put(turn, { ...heard(3), seen: waits });
    await put(turn, { ...heard(4), seen: heard(3) });
    expect(pending().map(({ body }) => body)).toEqual([{ ...heard(4), slower: 0.5, seen: [waits, heard(3)] }]);
  });

  it('of a turn after a take that waits is sent after it, and shown with it', async () => {
    const upload = { childId: id(3), lineUpId: id(2), patternId: id(5), title: 'Waves', takenAt: 1 } as never;
    const take = { id: id(9), teacherId: 'ann', childName: 'Ada', classId: id(1), mark: 2, upload };
    const line = { id: id(2), turns: [{ childId: id(3), ...waits, takeId: null, slower: null, clash: null }] };
    const asked = server(({ method }) => (method === 'GET' ? Response.json([line]) : Response.json({})));
    await putInto('takes', { ...take, id: id(8), stored: true });
    await put(turn, { ...heard(1), seen: waits });
    expect([asked.length, pending()]).toEqual([1, []]);
    await putInto('takes', take);
    await put(turn, { ...heard(3), seen: heard(2) });
    expect(await get(`/classes/${id(1)}/line-ups`, list)).toMatchObject([{ turns: [{ ...heard(3), takeId: id(9) }] }]);
    await takeFrom('takes', id(9));
    await takeFrom('takes', id(8));
    await put(turn, { ...heard(4), seen: heard(3) });
    expect(await sendChanges('ann', 'before takes')).toBe('all');
    expect(pending()).toHaveLength(1);
    expect(await sendChanges('ann', 'after takes')).toBe('all');
    expect(asked.at(-1)!.body).toEqual({ ...heard(4), seen: [heard(2), heard(3)] });
    expect(pending()).toEqual([]);
  });

  it('goes after what it stands in, also when the server is back in between', async () => {
    server(away);
    await put(`/classes/${id(1)}`, { name: 'Gulls' });
    const asked = server(() => Response.json({}));
    await put(`/classes/${id(1)}/children/${id(2)}`, { name: 'Ada' });
    expect(asked).toEqual([]);
    await put(PATTERN, WAVES);
    await put(`/classes/${id(1)}`, { name: 'Terns' });
    await sendChanges('ann', 'before takes');
    expect(asked.map(({ path }) => path)).toEqual([
      PATTERN,
      `/classes/${id(1)}`,
      `/classes/${id(1)}/children/${id(2)}`,
    ]);
  });

  it('that is changed again while it is sent is sent again, made from what was sent', async () => {
    server(away);
    await put(PATTERN, { title: 'a', text: 'q', was: WAVES });
    const asked = server(() => {
      if (asked.length === 1)
        keepChange({ teacherId: 'ann', path: PATTERN, body: { title: 'b', text: 'q' }, was: undefined });
      return Response.json({});
    });
    await sendChanges('ann', 'before takes');
    await sendChanges('ann', 'before takes');
    expect(asked.map(({ body }) => body)).toEqual([
      { title: 'a', text: 'q', was: WAVES },
      { title: 'b', text: 'q', was: { title: 'a', text: 'q' } },
    ]);
  });

  it.each([
    ['the server is asked to wait', () => error(503), 'later'],
    ['nobody is signed in', () => error(401), 'nobody'],
    ['somebody else is', () => error(409, { code: 'other-teacher' }), 'nobody'],
  ] as const)('waits while %s', async (_why, answer, outcome) => {
    server(away);
    await put(PATTERN, WAVES);
    server(answer);
    expect(await sendChanges('ann', 'before takes')).toBe(outcome);
    expect(pending()).toHaveLength(1);
  });

  it('what cannot wait is refused at once, and so is all where the app is not on the device', async () => {
    server(away);
    await expect(put('/account/password', { password: 'x' })).rejects.toThrow('cannot be reached');
    await expect(remove(`/classes/${id(1)}/term-plan`)).rejects.toThrow('cannot be reached');
    server(away, null);
    await expect(put(PATTERN, WAVES)).rejects.toThrow('cannot be reached');
    server(() => error(422));
    await expect(put(PATTERN, WAVES)).rejects.toThrow('Not so.');
    expect(pending()).toEqual([]);
  });

  it('is refused where the browser keeps nothing', async () => {
    server(away);
    vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
    await expect(put(PATTERN, WAVES)).rejects.toThrow('cannot be reached');
    expect(pending()).toEqual([]);
  });
});

describe('where the server has something else by now', () => {
  const clash = (theirs: object, parts: string[]) => error(409, { code: 'changed-meanwhile', theirs, parts });

  it('both are kept until the teacher has chosen: hers takes the place of the other', async () => {
    server(away);
    await put(PATTERN, { title: 'a', text: 'q', was: WAVES });
    server(() => clash({ title: 'z', text: 'h' }, ['title']));
    expect(await sendChanges('ann', 'before takes')).toBe('all');
    const [one] = refused();
    expect(one).toMatchObject({ refused: { theirs: { title: 'z', text: 'h' }, parts: ['title'] } });
    expect(pending()).toEqual([]);
    insist(one as never);
    const asked = server(() => Response.json({}));
    await sendChanges('ann', 'before takes');
    expect(asked[0]!.body).toEqual({ title: 'a', text: 'q', was: { title: 'z', text: 'h' } });
    expect(refused()).toEqual([]);
  });

  it('where theirs stays, what only one of the two changed is sent all the same, or nothing', async () => {
    const theirs = { title: 'z', text: '4/4 w' };
    for (const [text, sent] of [
      ['q', [{ title: 'z', text: 'q', was: theirs }]],
      [WAVES.text, []],
    ] as const) {
      server(away);
      await put(PATTERN, { title: 'a', text, was: WAVES });
      server(() => clash(theirs, ['title']));
      await sendChanges('ann', 'before takes');
      insist(refused()[0] as never, new Set(['title']));
      const asked = server(() => Response.json({}));
      await sendChanges('ann', 'before takes');
      expect(asked.map(({ body }) => body)).toEqual(sent);
      expect([refused(), pending()]).toEqual([[], []]);
    }
  });

  it('marks on paper are told of child by child, and sent as a column', async () => {
    const path = `/classes/${id(1)}/paper/${id(2)}`;
    server(away);
    await put(path, {
      title: 'Quiz',
      outOf: 5,
      points: { ada: 3 },
      was: { title: 'Quiz', outOf: 5, points: { ada: 1 } },
    });
    server(() => clash({ title: 'Quiz', outOf: 5, ada: 2 }, ['ada']));
    await sendChanges('ann', 'before takes');
    expect(refused()).toMatchObject([{ refused: { theirs: { title: 'Quiz', outOf: 5, points: { ada: 2 } } } }]);
  });

  it('what is refused holds up nothing, and can be left out', async () => {
    server(away);
    await put(PATTERN, WAVES);
    await put(`/plans/${id(3)}`, { title: 'Slowly' });
    const asked = server(({ path }) => (path === PATTERN ? error(404) : Response.json({})));
    expect(await sendChanges('ann', 'before takes')).toBe('all');
    expect(asked).toHaveLength(2);
    expect(refused()).toMatchObject([{ path: PATTERN, refused: { message: 'Not so.' } }]);
    // What is changed after that is a change of its own.
    server(away);
    await put(PATTERN, { ...WAVES, title: 'Again' });
    expect(pending()).toHaveLength(1);
    dropChange((refused()[0] as { id: string }).id);
    expect(refused()).toHaveLength(1);
  });
});

describe('what is removed without a network', () => {
  const LIST = [{ id: id(1), ...WAVES }];
  const removed = async () => {
    await keepAnswer('ann', '/patterns', LIST);
    server(away);
    await put(`/patterns/${id(1)}`, { ...WAVES, title: 'unseen' });
    await remove(PATTERN);
  };

  it('is not shown any more, and removed when the takes have arrived', async () => {
    await removed();
    expect(await get('/patterns', list)).toEqual([]);
    const asked = server(({ method }) =>
      method === 'GET'
        ? Response.json([{ text: '4/4 w', title: 'Waves', id: id(1) }])
        : new Response(null, { status: 204 }),
    );
    await sendChanges('ann', 'before takes');
    expect(asked).toEqual([]);
    expect(await sendChanges('ann', 'after takes')).toBe('all');
    expect(asked.map(({ method, path }) => `${method} ${path}`)).toEqual(['GET /patterns', `DELETE ${PATTERN}`]);
    expect(pending()).toEqual([]);
  });

  it('and of which the server says what makes no sense is told of, and holds up nothing', async () => {
    await removed();
    server(() => Response.json({ patterns: 'none' }));
    expect(await sendChanges('ann', 'after takes')).toBe('all');
    expect(refused()).toMatchObject([
      { refused: { message: expect.stringContaining('Make the change again') as string } },
    ]);
  });

  it('and gone elsewhere too is gone', async () => {
    await removed();
    server(({ method }) => (method === 'GET' ? Response.json([]) : error(404)));
    expect(await sendChanges('ann', 'after takes')).toBe('all');
    expect(refused()).toEqual([]);
  });

  it('and changed elsewhere is not removed unseen', async () => {
    await removed();
    const asked = server(({ method }) =>
      method === 'GET'
        ? Response.json([{ id: id(1), ...WAVES, title: 'Theirs' }])
        : new Response(null, { status: 204 }),
    );
    await sendChanges('ann', 'after takes');
    expect(asked).toHaveLength(1);
    const [one] = refused();
    expect(one).toMatchObject({ refused: { theirs: { title: 'Theirs' } } });
    insist(one as never);
    await sendChanges('ann', 'after takes');
    expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: PATTERN });
  });

  it('takes what was changed in it along', async () => {
    server(away);
    await put(`/classes/${id(1)}/children/${id(2)}`, { name: 'Ada' });
    await remove(`/classes/${id(1)}`);
    expect(pending()).toMatchObject([{ path: `/classes/${id(1)}` }]);
  });
});
