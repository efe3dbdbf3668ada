// @vitest-environment happy-dom
import { act, fireEvent, render, renderHook, screen, waitFor } from '@testing-library/react';
import { SWRConfig } from 'swr';
import type { ReactNode } from 'react';
import { expect, it, vi } from 'vitest';
import type { ClassDetail } from '../../contract/schoolClass.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { judgeTake } from '../../core/judging/judgeTake.ts';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import { layoutRuler } from '../../drawing/layout.ts';
import { FakeServer, tidyAfterEach } from '../page.test-helper.tsx';
import { ClapHandles } from './ClapHandles.tsx';
import { useCorrection } from './useCorrection.ts';

tidyAfterEach();

const PATTERN = patternOf('4/4 q q q q');
const ROOM = { id: 'room', ages: '9-10' } as unknown as ClassDetail;
const fresh = ({ children }: { children: ReactNode }) => (
  <SWRConfig value={{ provider: () => new Map() }}>{children}</SWRConfig>
);

function correcting(onsets: readonly number[]) {
  const played = { patternText: '4/4 q q q q', bpm: 60, onsets };
  const judged = judgeTake(played, { ages: '9-10' });
  if (!judged.ok) throw new Error(judged.trouble.code);
  const take = { id: 't1', ...played, ...judged, free: false, feet: null } as unknown as TakeDetail;
  return renderHook(() => useCorrection(take, PATTERN, ROOM), { wrapper: fresh }).result;
}

it('a clap that was not heard is added, and is judged at once', async () => {
  const server = new FakeServer();
  const take = correcting([0, 1, 3]);
  const before = take.current.result.notes.map(({ verdict }) => verdict);
  expect([before.includes('missed'), take.current.changed]).toEqual([true, false]);
  act(() => take.current.add(2.00004));
  expect(take.current.onsets).toEqual([0, 1, 2, 3]);
  expect(take.current.result.notes.every(({ verdict }) => verdict === 'on-time')).toBe(true);
  act(() => take.current.save());
  await waitFor(() =>
    expect(server.sent).toEqual([{ method: 'PUT', path: '/takes/t1/onsets', body: { onsets: [0, 1, 2, 3] } }]),
  );
});

it('a clap is struck out and back in, moved, and all of it taken back', () => {
  const take = correcting([0, 1, 2, 2.5, 3]);
  act(() => take.current.strike(3));
  expect([take.current.onsets, take.current.changed]).toEqual([[0, 1, 2, 3], true]);
  expect(take.current.claps[3]).toEqual({ id: 3, time: 2.5, struck: true });
  act(() => take.current.strike(3));
  expect(take.current.changed).toBe(false);
  act(() => take.current.move(0, -99));
  expect(take.current.onsets[0]).toBe(-30);
  act(() => take.current.reset());
  expect([take.current.onsets, take.current.changed]).toEqual([[0, 1, 2, 2.5, 3], false]);
});

it('on the ruler: a press between adds one there, keys move and strike one', () => {
  const take = correcting([0, 1, 3]);
  const [system] = layoutRuler(PATTERN, 4_000, 'desk').systems;
  const add = vi.fn();
  const strike = vi.fn();
  const move = vi.fn();
  const { scale } = layoutRuler(PATTERN, 4_000, 'desk');
  render(<ClapHandles correction={{ ...take.current, add, strike, move }} system={system!} scale={scale} />);
  const lane = screen.getByRole('presentation');
  const from = system!.measures[0]!.x;
  fireEvent.click(lane, { clientX: from + 0.5 * scale });
  expect(add).toHaveBeenCalledOnce();
  expect(add.mock.calls[0]![0]).toBeCloseTo(2, 2);
  const clap = screen.getByRole('button', { name: 'Clap at 1.00 seconds' });
  fireEvent.keyDown(clap, { key: 'ArrowRight' });
  expect(move).toHaveBeenLastCalledWith(1, 1.01);
  fireEvent.keyDown(clap, { key: 'ArrowLeft', shiftKey: true });
  expect(move.mock.lastCall![1]).toBeCloseTo(0.95, 6);
  for (const key of ['Delete', 'Enter', ' ']) fireEvent.keyDown(clap, { key });
  expect(strike.mock.calls).toEqual([[1], [1], [1]]);
  fireEvent.click(clap);
  expect(add).toHaveBeenCalledOnce();
});
