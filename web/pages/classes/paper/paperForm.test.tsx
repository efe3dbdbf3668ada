// @vitest-environment happy-dom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { ClassRecords } from '../../../../contract/records.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../../page.test-helper.tsx';
import { PaperForm } from './PaperForm.tsx';

tidyAfterEach();

const ROOM = {
  id: 'room',
  children: [
    { id: 'a', name: 'Ada' },
    { id: 'b', name: 'Bo' },
  ],
} as unknown as ClassDetail;
const COLUMN = { id: 'col', title: 'Quiz', outOf: 10, takenAt: 5, points: [{ child: 0, points: 4 }] };
const RECORDS = { children: ['a', 'b'], paper: [COLUMN] } as unknown as ClassRecords;

function open(column: typeof COLUMN | undefined, begin?: { title: string; outOf: number }) {
  const server = new FakeServer();
  const closed = vi.fn();
  mount(<PaperForm schoolClass={ROOM} records={RECORDS} column={column} begin={begin} onClose={closed} />);
  return { server, closed };
}

it('a column that is changed keeps its day and its other marks, and says what it was made from', async () => {
  const { server, closed } = open(COLUMN);
  expect(screen.getByLabelText<HTMLInputElement>('Ada').value).toBe('4');
  type('Bo', '7');
  click('Save the marks');
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  const head = { title: 'Quiz', outOf: 10, takenAt: 5, scale: null };
  expect(server.sent).toEqual([
    {
      method: 'PUT',
      path: '/classes/room/paper/col',
      body: { ...head, points: { a: 4, b: 7 }, was: { ...head, points: { a: 4, b: null } } },
    },
  ]);
});

it('a new one has the day of today and an address of its own, and is sent whole', async () => {
  vi.spyOn(Date, 'now').mockReturnValue(86_400_000);
  const { server, closed } = open(undefined, { title: 'Counts 1', outOf: 14 });
  fireEvent.keyDown(screen.getByLabelText('Ada'), { key: 'd' });
  expect(document.activeElement).toBe(screen.getByLabelText('Bo'));
  type('Bo', '12,5');
  click('Save the marks');
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  expect(server.sent[0]!.body).toEqual({
    title: 'Counts 1',
    outOf: 14,
    takenAt: 86_400_000,
    scale: null,
    points: { a: 13, b: 12.5 },
  });
  expect(server.sent[0]!.path).toMatch(/^\/classes\/room\/paper\/[0-9a-f-]{36}$/);
});

it('more than the most is said with the child, and not saved', () => {
  const { server } = open(COLUMN);
  type('Bo', '11');
  expect(screen.getByText('Bo: a number from 0 to 10, or nothing.')).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save the marks' }).disabled).toBe(true);
  expect(server.sent).toEqual([]);
});

it('is deleted when that is confirmed, and closed without a change otherwise', async () => {
  const { server, closed } = open(COLUMN);
  const asked = vi.fn(() => false);
  vi.stubGlobal('confirm', asked);
  click('Delete this column');
  expect([asked.mock.calls.length, server.sent]).toEqual([1, []]);
  asked.mockReturnValue(true);
  click('Delete this column');
  await waitFor(() => expect(server.log).toEqual(['DELETE /classes/room/paper/col']));
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  click('Cancel');
  expect(closed).toHaveBeenCalledTimes(2);
});

it('where two marked the same child both are shown; leaving what is there sends nothing more', async () => {
  const { server, closed } = open(COLUMN);
  server.refuses = () => ({
    status: 409,
    code: 'changed-meanwhile',
    message: 'Somebody else changed the same.',
    theirs: { title: 'Quiz', outOf: 10, takenAt: 5, a: 9, b: null },
    parts: ['a'],
  });
  type('Ada', '6');
  click('Save the marks');
  await screen.findByRole('alert', { name: 'Changed by somebody else' });
  expect(screen.getAllByRole('cell').map((cell) => cell.textContent)).toEqual(['', '9', '6']);
  click('Leave what is there');
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  expect(server.sent).toHaveLength(1);
});

it('where mine stays, so does what the other one alone has marked', async () => {
  const { server, closed } = open(COLUMN);
  const theirs = { title: 'Quiz', outOf: 10, takenAt: 5, scale: null, a: 9, b: 3 };
  server.refuses = () => ({ status: 409, code: 'changed-meanwhile', message: 'Changed.', theirs, parts: ['a'] });
  type('Ada', '6');
  click('Save the marks');
  await screen.findByRole('alert', { name: 'Changed by somebody else' });
  server.refuses = () => undefined;
  click('Keep mine');
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  const head = { title: 'Quiz', outOf: 10, takenAt: 5, scale: null };
  expect(server.sent.at(-1)!.body).toEqual({
    ...head,
    points: { a: 6, b: 3 },
    was: { ...head, points: { a: 9, b: 3 } },
  });
});

it('marks of the class’s own scale have a key each, and are kept as its steps', async () => {
  const server = new FakeServer();
  const closed = vi.fn();
  const room = { ...ROOM, scale: 'A-D,F' } as typeof ROOM;
  mount(<PaperForm schoolClass={room} records={RECORDS} column={undefined} onClose={closed} />);
  type(/What was it/, 'Quiz');
  fireEvent.change(screen.getByLabelText('Given as'), { target: { value: 'marks' } });
  expect(screen.queryByLabelText('Out of')).toBeNull();
  expect(screen.getByText(/One key a child: F, D, C, B, A/)).toBeTruthy();
  screen.getByLabelText('Ada').focus();
  fireEvent.keyDown(screen.getByLabelText('Ada'), { key: 'b' });
  expect(document.activeElement).toBe(screen.getByLabelText('Bo'));
  type('Bo', 'E');
  click('Save the marks');
  expect(screen.getByText(/Bo: a mark of A, B, C, D, F, or nothing/)).toBeTruthy();
  type('Bo', 'a');
  click('Save the marks');
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  expect(server.sent[0]!.body).toMatchObject({ outOf: 4, scale: 'A-D,F', points: { a: 3, b: 4 } });
});
