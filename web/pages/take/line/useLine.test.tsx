// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { SWRConfig } from 'swr';
import type { ReactNode } from 'react';
import { v4 as uuid } from 'uuid';
import { beforeEach, expect, it, vi } from 'vitest';
import type { LineUp } from '../../../../contract/lineUp.ts';
import { FakeServer, tidyAfterEach, until } from '../../../page.test-helper.tsx';
import { keepChange } from '../../../store/changes.ts';
import { useLine } from './useLine.ts';

tidyAfterEach();

const CHILDREN = ['Al', 'Bea', 'Cy'].map((name) => ({ id: uuid(), name, adaptations: null }));
const [AL, BEA, CY] = CHILDREN.map(({ id }) => id) as [string, string, string];
const PATTERN = uuid();
const WAITS = { state: 'waiting', mark: null };

function lineUp(): LineUp {
  return {
    id: uuid(),
    title: 'Short one',
    startedAt: 1,
    settings: { patternIds: [PATTERN], seed: 1, bpm: 60, heardBy: 'tap', tries: 1, order: 'list', startsItself: false },
    turns: CHILDREN.map(({ id }) => ({
      childId: id,
      patternId: PATTERN,
      state: 'waiting',
      mark: null,
      takeId: null,
      slower: null,
      clash: null,
    })),
    patterns: [],
  };
}

function begin(server: FakeServer, line = lineUp()) {
  const wrapper = ({ children }: { children: ReactNode }) => (
    <SWRConfig value={{ provider: () => new Map() }}>{children}</SWRConfig>
  );
  const { result, unmount } = renderHook(() => useLine('ann', { id: 'room', children: CHILDREN } as never, line), {
    wrapper,
  });
  const sent = () => server.sent.map(({ path, body }) => [path.split('/').at(-1), (body as { state: string }).state]);
  const states = () => result.current.turns.map(({ state, mark }) => `${state} ${mark}`);
  return { line, result, sent, states, unmount };
}

let server: FakeServer;
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
  server = new FakeServer();
});

it('calls one after the other; who is passed over comes last', async () => {
  const { result, states } = begin(server);
  expect(result.current.current?.childId).toBe(AL);
  expect(result.current.after?.childId).toBe(BEA);
  act(() => result.current.change(AL, { state: 'skipped' }));
  expect(result.current.current?.childId).toBe(BEA);
  act(() => result.current.change(BEA, { state: 'heard', mark: 3 }));
  act(() => result.current.change(CY, { state: 'absent' }));
  expect(states()).toEqual(['skipped null', 'heard 3', 'absent null']);
  expect(result.current.current?.childId).toBe(AL);
  await until(() => expect(server.sent.length).toBeGreaterThanOrEqual(3));
});

it('a turn that the server will never take holds up no other, and is not sent again', async () => {
  server.refuses = ({ path }) =>
    path.endsWith(AL) ? { status: 404, code: 'not-found', message: 'This child is not here.' } : undefined;
  const { result, sent } = begin(server);
  act(() => {
    result.current.change(AL, { state: 'absent' });
    result.current.change(BEA, { state: 'heard', mark: 4 });
  });
  await until(() => expect(sent()).toContainEqual([BEA, 'heard']));
  await until(() => expect(result.current.problem?.message).toBe('This child is not here.'));
  const before = server.sent.length;
  await act(async () => vi.advanceTimersByTimeAsync(10_000));
  expect(server.sent.length).toBe(before);
});

it('a turn that the server has taken stands as it was said until the server says so too', async () => {
  // It takes what it is told, and answers no question.
  const { result, sent, states } = begin(server);
  act(() => result.current.change(AL, { state: 'heard', mark: 2 }));
  await until(() => expect(sent()).toContainEqual([AL, 'heard']));
  await act(async () => vi.advanceTimersByTimeAsync(10_000));
  expect(states()[0]).toBe('heard 2');
  expect(result.current.current?.childId).toBe(BEA);
  expect(sent()).toHaveLength(1);
});

it('while the server is away turns wait on the device, for later pages too, and go when it is back', async () => {
  server.refuses = () => ({ status: 503, code: 'database-away', message: 'Not just now.' });
  const first = begin(server);
  act(() => first.result.current.change(AL, { state: 'heard', mark: 2 }));
  await until(() => expect(first.result.current.problem?.message).toBe('Not just now.'));
  first.unmount();
  const later = begin(server, first.line);
  expect(later.states()[0]).toBe('heard 2');
  server.refuses = () => undefined;
  const before = server.sent.length;
  await act(async () => vi.advanceTimersByTimeAsync(3_100));
  await until(() => expect(server.sent.length).toBe(before + 1));
  expect(server.sent.at(-1)!.body).toEqual({ state: 'heard', mark: 2, seen: { state: 'waiting', mark: null } });
});

it('who was heard stays heard until the server knows it; called once more it is that child’s turn again', () => {
  const { result, states } = begin(server);
  act(() => result.current.wasHeard(AL, 4));
  expect([states()[0], result.current.current?.childId]).toEqual(['heard 4', BEA]);
  act(() => result.current.call(AL));
  expect(result.current.current?.childId).toBe(AL);
  act(() => result.current.goOn());
  expect(result.current.current?.childId).toBe(BEA);
});

it('what is said of a child says what stood there, once it is known to', async () => {
  const { result, states } = begin(server);
  act(() => result.current.change(AL, { state: 'absent' }));
  act(() => result.current.change(AL, { state: 'heard', mark: 1 }));
  expect(states()[0]).toBe('heard 1');
  await until(() =>
    expect(server.sent.at(-1)?.body).toMatchObject({ state: 'heard', seen: [WAITS, { state: 'absent', mark: null }] }),
  );
});

it('what is said again while the first is on its way is sent after it, never beside it', async () => {
  let answer = (): void => undefined;
  const answered = new Promise<void>((resolve) => (answer = resolve));
  const { result, sent } = begin(server);
  const { fetch } = globalThis;
  vi.stubGlobal('fetch', async (...asked: Parameters<typeof fetch>) => {
    const response = await fetch(...asked);
    if (asked[1]?.method === 'PUT') await answered;
    return response;
  });
  act(() => result.current.change(AL, { state: 'absent' }));
  await until(() => expect(sent()).toEqual([[AL, 'absent']]));
  act(() => result.current.change(AL, { state: 'heard', mark: 3 }));
  await act(async () => vi.advanceTimersByTimeAsync(10_000));
  expect(sent()).toEqual([[AL, 'absent']]);
  answer();
  await until(() => expect(sent().at(-1)).toEqual([AL, 'heard']));
});

it('a take has seen what was said here and waits, in the page or on the device', () => {
  server.refuses = () => ({ status: 503, code: 'database-away', message: 'Not just now.' });
  const { line, result } = begin(server);
  const absent = { state: 'absent', mark: null } as const;
  act(() => result.current.change(AL, absent));
  expect(result.current.seenOf(result.current.turns[0]!)).toEqual([WAITS, absent]);
  const path = `/classes/room/line-ups/${line.id}/turns/${BEA}`;
  keepChange({ teacherId: 'ann', path, body: { ...absent, seen: WAITS }, was: undefined });
  expect(result.current.seenOf({ childId: BEA, ...absent })).toEqual([WAITS, absent]);
  expect(result.current.seenOf(result.current.turns[2]!)).toEqual(WAITS);
});

it('slower stays with its child, whatever else is said of it, and says nothing else', async () => {
  server.refuses = () => ({ status: 503, code: 'database-away', message: 'Not just now.' });
  const { result } = begin(server);
  act(() => result.current.slow(AL, 0.75));
  expect(result.current.turns[0]).toMatchObject({ state: 'waiting', slower: 0.75 });
  act(() => result.current.change(AL, { state: 'skipped' }));
  expect(result.current.turns[0]).toMatchObject({ state: 'skipped', slower: 0.75 });
  act(() => result.current.wasHeard(BEA, 3));
  act(() => result.current.slow(BEA, 0.5));
  expect(result.current.turns[1]).toMatchObject({ state: 'heard', mark: 3, slower: 0.5 });
  server.refuses = () => undefined;
  await act(async () => vi.advanceTimersByTimeAsync(3_100));
  await until(() =>
    expect(server.sent.slice(-2).map(({ body }) => body)).toEqual([
      { state: 'skipped', slower: 0.75, seen: WAITS },
      { ...WAITS, seen: WAITS, slower: 0.5 },
    ]),
  );
});
