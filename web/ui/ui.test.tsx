// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, renderHook, screen, waitFor } from '@testing-library/react';
import useSWR, { SWRConfig } from 'swr';
import type { ReactNode } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { ApiProblem } from '../api/client.ts';
import { classOptions } from '../domain/currentClass.ts';
import { moved, replaced, without } from './lists.ts';
import { markOfTake } from '../domain/markOfTake.ts';
import { readStored, storedThing, useStored, writeStored } from '../store/stored.ts';
import { useKeys } from './useKeys.ts';
import { useLatest } from './useLatest.ts';
import { useSave } from '../api/useSave.ts';

afterEach(cleanup);

const fresh = ({ children }: { children: ReactNode }) => (
  <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0 }}>{children}</SWRConfig>
);

describe('keys', () => {
  function Pressed({ on, always }: { on: string[]; always?: string[] }) {
    useKeys({ ' ': () => on.push('space'), a: () => on.push('a'), Escape: () => on.push('esc') }, always);
    return (
      <>
        <input aria-label="field" />
        <button>press</button>
      </>
    );
  }
  it('count once, by themselves, and whichever way they are written', () => {
    const on: string[] = [];
    render(<Pressed on={on} />);
    fireEvent.keyDown(document.body, { key: 'A' });
    fireEvent.keyDown(document.body, { key: ' ' });
    fireEvent.keyDown(document.body, { key: ' ', repeat: true });
    for (const held of ['ctrlKey', 'metaKey', 'altKey']) fireEvent.keyDown(document.body, { key: 'a', [held]: true });
    fireEvent.keyDown(document.body, { key: 'z' });
    expect(on).toEqual(['a', 'space']);
  });
  it('belong to the field or button that has the focus, but for those that are always taken', () => {
    const on: string[] = [];
    const { rerender } = render(<Pressed on={on} />);
    fireEvent.keyDown(screen.getByLabelText('field'), { key: 'a' });
    fireEvent.keyDown(screen.getByRole('button'), { key: ' ' });
    expect(on).toEqual([]);
    fireEvent.keyDown(screen.getByRole('button'), { key: 'a' });
    expect(on).toEqual(['a']);
    rerender(<Pressed on={on} always={['Escape']} />);
    fireEvent.keyDown(screen.getByLabelText('field'), { key: 'Escape' });
    expect(on).toEqual(['a', 'esc']);
  });
});

describe('what this device remembers', () => {
  it('is the same wherever it is asked, and there again after a reload', () => {
    const both = renderHook(() => [useStored('colour', 'red'), useStored('colour', 'red')] as const);
    expect(both.result.current.map(([value]) => value)).toEqual(['red', 'red']);
    act(() => both.result.current[0][1]('blue'));
    expect(both.result.current.map(([value]) => value)).toEqual(['blue', 'blue']);
    expect(localStorage.getItem('colour')).toBe('blue');
    act(() => writeStored('colour', undefined));
    expect(both.result.current[0][0]).toBe('red');
    expect(localStorage.getItem('colour')).toBeNull();
  });
  it('follows another tab', () => {
    const { result } = renderHook(() => useStored('shape', 'round')[0]);
    localStorage.setItem('shape', 'square');
    act(() => void dispatchEvent(new StorageEvent('storage', { key: 'shape' })));
    expect(result.current).toBe('square');
    localStorage.clear();
    act(() => void dispatchEvent(new StorageEvent('storage', { key: null })));
    expect(result.current).toBe('round');
  });
  it('makes sense of what was kept, or takes it for nothing', () => {
    const number = storedThing('number', (kept) => (typeof kept === 'number' ? kept : 7));
    expect(number.read()).toBe(7);
    number.write(3);
    expect([number.read(), readStored('number')]).toEqual([3, '3']);
    writeStored('number', 'not JSON');
    expect(number.read()).toBe(7);
    const list = storedThing('list', (kept) => (Array.isArray(kept) ? (kept as number[]) : []));
    list.write([1]);
    expect(list.read()).toBe(list.read());
  });
});

describe('saving', () => {
  function saving(action: (arg: string) => Promise<unknown>) {
    let fetched = 0;
    const hook = renderHook(
      () => {
        useSWR('/classes/1', () => Promise.resolve(++fetched));
        return useSave(action, '/classes');
      },
      { wrapper: fresh },
    );
    return { hook, fetched: () => fetched };
  }
  it('sends, then fetches again what it changed', async () => {
    const sent: string[] = [];
    const { hook, fetched } = saving((arg) => Promise.resolve(sent.push(arg)));
    await waitFor(() => expect(fetched()).toBe(1));
    let saved: boolean | undefined;
    await act(async () => (saved = await hook.result.current.save('Gulls')));
    expect([saved, sent, hook.result.current.problem]).toEqual([true, ['Gulls'], undefined]);
    await waitFor(() => expect(fetched()).toBe(2));
  });
  it('keeps what went wrong, until it goes right', async () => {
    let fails = true;
    const { hook } = saving(() => (fails ? Promise.reject(new Error('away')) : Promise.resolve()));
    let saved: boolean | undefined;
    await act(async () => (saved = await hook.result.current.save('Gulls')));
    expect([saved, hook.result.current.problem?.message]).toEqual([false, 'away']);
    fails = false;
    await act(async () => (saved = await hook.result.current.save('Gulls')));
    expect([saved, hook.result.current.problem]).toEqual([true, undefined]);
  });
  it('fetches again what somebody else changed meanwhile, and nothing where the server only refused', async () => {
    let status = 422;
    const { hook, fetched } = saving(() => Promise.reject(new ApiProblem(status, 'refused', 'No.')));
    await waitFor(() => expect(fetched()).toBe(1));
    await act(async () => void (await hook.result.current.save('Gulls')));
    expect([fetched(), hook.result.current.problem?.message]).toEqual([1, 'No.']);
    status = 409;
    await act(async () => void (await hook.result.current.save('Gulls')));
    await waitFor(() => expect(fetched()).toBe(2));
    expect(hook.result.current.problem?.message).toBe('No.');
  });
  it('is under way until the answer is there', async () => {
    let answer = () => undefined as void;
    const { hook } = saving(() => new Promise<void>((resolve) => (answer = resolve)));
    let done: Promise<boolean> | undefined;
    act(() => void (done = hook.result.current.save('Gulls')));
    await waitFor(() => expect(hook.result.current.saving).toBe(true));
    await act(async () => {
      answer();
      await done;
    });
    expect(hook.result.current.saving).toBe(false);
  });
});

describe('small things', () => {
  it('the teacher’s mark counts before the computed one, 0 too', () =>
    expect(
      [
        { mark: 2, override: null },
        { mark: 2, override: 4 },
        { mark: 2, override: 0 },
      ].map(markOfTake),
    ).toEqual([2, 4, 0]));
  it('lists are changed by making new ones', () => {
    const list = ['a', 'b', 'c'];
    expect([moved(list, 0, 2), moved(list, 2, 0)]).toEqual([
      ['b', 'c', 'a'],
      ['c', 'a', 'b'],
    ]);
    expect([replaced(list, 1, 'x'), without(list, 1), list]).toEqual([
      ['a', 'x', 'c'],
      ['a', 'c'],
      ['a', 'b', 'c'],
    ]);
  });
  it('the latest of an action is done by the function that was given first', () => {
    const done: string[] = [];
    const { result, rerender } = renderHook(({ word }) => useLatest(() => done.push(word)), {
      initialProps: { word: 'old' },
    });
    const first = result.current;
    rerender({ word: 'new' });
    first();
    expect([done, result.current === first]).toEqual([['new'], true]);
  });
});

describe('classes to choose from', () => {
  const room = (id: string, name: string, owner = 'Ann') =>
    ({ id, name, owner, role: owner === 'Ann' ? 'owner' : 'hear' }) as const;
  it('say whose they are where two teachers have one of the same name', () => {
    expect(
      classOptions([room('a', '3b'), room('b', '3b', 'Ben'), room('c', '4a', 'Ben'), room('d', '4a', 'Ben')]),
    ).toEqual([
      ['a', '3b (yours)'],
      ['b', '3b (Ben)'],
      ['c', '4a'],
      ['d', '4a'],
    ]);
  });
});
