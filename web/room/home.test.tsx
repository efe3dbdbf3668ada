// @vitest-environment happy-dom
import { fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { FakeServer, tidyAfterEach } from '../page.test-helper.tsx';
import { HomeApp, dayOf } from './HomeApp.tsx';
import { keepFromHome, sendFromHome } from './keptAtHome.ts';

tidyAfterEach();
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'] });
  vi.setSystemTime(new Date('2026-12-02T16:00:00'));
});
afterEach(() => void vi.useRealTimers());

const item = (title: string, days: number[]) => ({ title, text: '4/4 q q h', bpm: 60, times: 2, days });
const WEEK = {
  starts: '2026-11-30',
  title: 'Half notes',
  items: [item('Steps', [0, 2]), item('Tide', [5])],
  voice: { ages: '9-10', school: 'numbers', rests: null },
  wider: 1,
  done: [
    { item: 0, day: 2, times: 1 },
    { item: 0, day: 0, times: 2 },
  ],
};

it.each([
  ['2026-11-30T00:30:00', 0],
  ['2026-12-02T23:30:00', 2],
  ['2026-11-20T12:00:00', 0],
  ['2026-12-24T12:00:00', 6],
])('at %s it is day %i of the week', (now, day) => expect(dayOf('2026-11-30', new Date(now))).toBe(day));

it('is over a change to summer time as well', () =>
  expect(dayOf('2027-03-27', new Date('2027-03-29T00:10:00'))).toBe(2));

it('shows what there is to do today and how often it was done, and nothing else', async () => {
  new FakeServer({ '/home/week': WEEK });
  render(<HomeApp />);
  await screen.findByRole('heading', { name: 'For today' });
  expect(screen.getAllByRole('button').map(({ textContent }) => textContent.trim())).toEqual(['Steps1 of 2']);
});

it('on a day without anything all of the week can be practised', async () => {
  vi.setSystemTime(new Date('2026-12-03T16:00:00'));
  new FakeServer({ '/home/week': WEEK });
  render(<HomeApp />);
  await screen.findByRole('heading', { name: /Nothing for today/ });
  expect(screen.getAllByRole('button')).toHaveLength(2);
});

it('says why the week is not there', async () => {
  const over = { error: { code: 'week-over', message: 'This practice week is over.' } };
  new FakeServer({ '/home/week': Response.json(over, { status: 410 }) });
  render(<HomeApp />);
  await screen.findByRole('heading', { name: 'This practice week is over.' });
});

it('opens a pattern and goes back', async () => {
  new FakeServer({ '/home/week': WEEK });
  render(<HomeApp />);
  fireEvent.click(await screen.findByRole('button', { name: /Steps/ }));
  await screen.findByRole('button', { name: 'Try it' });
  screen.getByRole('button', { name: 'Hear it and count' });
  fireEvent.click(screen.getByRole('button', { name: 'All' }));
  await screen.findByRole('heading', { name: 'For today' });
});

it('a take is kept until it is sent; one that nobody will have any more is left behind', async () => {
  const server = new FakeServer();
  const take = { item: 0, onsets: [0, 1], source: 'tap' as const };
  server.refuses = () => ({ status: 503, code: 'database-away', message: 'away' });
  expect(await keepFromHome({ secret: 's', id: 'a', take })).toBe(1);
  expect(await keepFromHome({ secret: 's', id: 'b', take })).toBe(2);
  server.refuses = ({ path }) =>
    path.endsWith('/a') ? { status: 410, code: 'week-over', message: 'over' } : undefined;
  expect(await sendFromHome()).toBe(0);
  expect(server.log.slice(-2)).toEqual(['PUT /home/takes/a', 'PUT /home/takes/b']);
  expect(localStorage.getItem('home.takes')).toBeNull();
});
