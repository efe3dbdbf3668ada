// @vitest-environment happy-dom
import { renderHook, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { tidyAfterEach } from '../page.test-helper.tsx';
import { type Told, timeNow, useTellSecondWindow, useTold } from './secondWindow.ts';

tidyAfterEach();

const board = (title: string): Told => ({ kind: 'board', title, text: '4/4 w' });

it('a window that is opened later learns what is shown, and every change after it', async () => {
  const teacher = renderHook(({ title }) => useTellSecondWindow(board(title)), { initialProps: { title: 'Waves' } });
  const show = renderHook(() => useTold());
  expect(show.result.current).toBeUndefined();
  await waitFor(() => expect(show.result.current).toEqual(board('Waves')));
  teacher.rerender({ title: 'Rope' });
  await waitFor(() => expect(show.result.current).toEqual(board('Rope')));
  const later = renderHook(() => useTold());
  await waitFor(() => expect(later.result.current).toEqual(board('Rope')));
  // What was shown last stays when the teacher looks at something else.
  teacher.unmount();
  await new Promise((over) => setTimeout(over, 20));
  expect(show.result.current).toEqual(board('Rope'));
});

it.each([
  ['running', 1, 11_500, 6.5],
  ['running', 0.5, 11_500, 5.75],
  // The other window was closed: its sound has stopped, and the mark does not run on.
  ['running', 1, 60_000, 7.5],
  ['paused', 1, 11_500, 5],
  ['over', 1, 11_500, 5],
] as const)('the mark of a run that is %s at %f of its tempo', (state, rate, at, time) => {
  const run = { kind: 'lead', state, rate, heard: { time: 5, at: 10_000 } } as unknown as Extract<
    Told,
    { kind: 'lead' }
  >;
  expect(timeNow(run, at)).toBe(time);
  expect(timeNow({ ...run, heard: undefined }, at)).toBeUndefined();
});
