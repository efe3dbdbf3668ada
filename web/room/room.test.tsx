// @vitest-environment happy-dom
import { act, fireEvent, render, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { v4 as uuid } from 'uuid';
import { FakeServer, tidyAfterEach } from '../page.test-helper.tsx';
import { PICTURES } from '../../contract/roomPictures.ts';
import { RoomApp } from './RoomApp.tsx';
import { DIM_AFTER_MS } from './useDim.ts';
import { picturesIn } from './useSeat.ts';
import QuestionRound from './QuestionRound.tsx';

tidyAfterEach();

const VOICE = { ages: '9-10', school: 'numbers', rests: null } as const;
const NOTHING = { ready: false, option: null, text: null, takeId: null };
const ROOM = {
  name: 'Ada',
  endsAt: 8e12,
  voice: VOICE,
  wider: 1,
  marksShown: false,
  round: null,
  done: NOTHING,
  mark: null,
};
const ADA = { id: uuid(), name: 'Ada' };

/** A device in front of the pictures. */
function device(answers: Record<string, unknown> = {}) {
  const stranger = Response.json({ error: { code: 'no-seat', message: 'no seat' } }, { status: 401 });
  const server = new FakeServer({ '/room/clock': { now: 1e12 }, '/room/seat': stranger, ...answers });
  server.replies.set('POST /room/enter', { codes: false, names: [ADA] });
  server.replies.set('POST /room/seat', ROOM);
  return server;
}

const tap = async (name: string | RegExp) => {
  fireEvent.click(await screen.findByRole('button', { name }));
  await act(() => Promise.resolve());
};

it('four pictures, its name, and it is in: nothing else is asked', async () => {
  const server = device();
  render(<RoomApp />);
  for (const one of ['gull', 'lamp', 'key']) await tap(one);
  expect(server.sent).toEqual([]);
  await tap('Take the last one back');
  for (const one of ['rope', 'gull']) await tap(one);
  await screen.findByRole('heading', { name: 'Who are you?' });
  expect(server.sent.at(-1)!.body).toEqual({ pictures: ['gull', 'lamp', 'rope', 'gull'] });
  await tap('Ada');
  await screen.findByRole('heading', { name: 'Look at the board.' });
  expect(server.sent.filter(({ path }) => path === '/room/seat').map(({ body }) => body)).toEqual([
    { childId: ADA.id },
  ]);
});

it('whoever was quicker stands there no more, and the child chooses again', async () => {
  const server = device({ '/room/door': { codes: false, names: [{ id: uuid(), name: 'Bo' }] } });
  server.refuses = ({ path }) =>
    path === '/room/seat' ? { status: 409, code: 'name-taken', message: 'Somebody has this name already.' } : undefined;
  render(<RoomApp />);
  for (const one of ['gull', 'lamp', 'rope', 'hat']) await tap(one);
  await tap('Ada');
  await screen.findByText('Somebody has this name already.');
  await screen.findByRole('button', { name: 'Bo' });
  expect(screen.queryByRole('button', { name: 'Ada' })).toBeNull();
});

it('wrong pictures are said, and can be tapped anew', async () => {
  const server = device();
  server.refuses = ({ path }) =>
    path === '/room/enter' ? { status: 404, code: 'wrong-pictures', message: 'These are not the pictures' } : undefined;
  render(<RoomApp />);
  for (const one of ['gull', 'lamp', 'key', 'hat']) await tap(one);
  await screen.findByText('These are not the pictures');
  await tap('boat');
  expect(screen.queryByText('These are not the pictures')).toBeNull();
});

it('comes back as itself, and left alone it dims until it is touched', async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true });
  device({ '/room/seat': ROOM });
  const { container } = render(<RoomApp />);
  await screen.findByRole('heading', { name: 'Look at the board.' });
  const isDim = () => container.querySelector('.room-dim') !== null;
  await act(() => vi.advanceTimersByTimeAsync(DIM_AFTER_MS - 2000));
  expect(isDim()).toBe(false);
  await act(() => vi.advanceTimersByTimeAsync(3000));
  expect(isDim()).toBe(true);
  fireEvent.pointerDown(container.querySelector('main')!);
  expect(isDim()).toBe(false);
  vi.useRealTimers();
});

it('the picture of dots is the pictures behind the #, and nothing else is', () => {
  expect(picturesIn('#gull-lamp-rope-boat')).toEqual(['gull', 'lamp', 'rope', 'boat']);
  expect(picturesIn(`#${PICTURES.slice(20).join('-')}`)).toEqual(['star', 'moon', 'cup', 'boot']);
  for (const other of ['', '#', '#gull-lamp-rope', '#gull-lamp-rope-boat-crab', '#gull-lamp-rope-cat'])
    expect(picturesIn(other)).toBeUndefined();
});

it('an answer may be thought over until it is shown; then right and wrong are told by signs and words', async () => {
  const server = device();
  const task = {
    kind: 'question' as const,
    asked: 'How many claps?',
    options: ['1 clap', '2 claps'].map((words) => ({ words, rhythm: null })),
    right: null as number[] | null,
    reasons: [] as string[],
  };
  const shown = (right: number[] | null, reasons: string[] = []) => {
    const now = { ...task, right, reasons };
    const round = { number: 3, phase: 'going' as const, startsAt: null, task: now };
    return <QuestionRound room={{ ...ROOM, round }} round={round} task={now} />;
  };
  const { rerender } = render(shown(null));
  await tap(/1 clap/);
  await tap(/2 claps/);
  expect(server.sent.map(({ path, body }) => [path, body])).toEqual([
    ['/room/rounds/3/answer', { option: 0 }],
    ['/room/rounds/3/answer', { option: 1 }],
  ]);
  screen.getByText('Your answer is in. You may think again.');
  rerender(shown([0], ['one clap for each note']));
  screen.getByText('It is A.');
  screen.getByText('One clap for each note.');
  screen.getByLabelText('right');
  screen.getByLabelText('not right');
  await tap(/1 clap/);
  expect(server.sent).toHaveLength(2);
});
