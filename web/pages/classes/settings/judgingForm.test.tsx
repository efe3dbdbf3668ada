// @vitest-environment happy-dom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../../page.test-helper.tsx';
import { JudgingForm } from './JudgingForm.tsx';

tidyAfterEach();

const found = (changed: number) => ({
  takes: 9,
  all: 9,
  changed,
  higher: changed,
  lower: 0,
  marks: [0, 1, 2, 3, 4].map((mark) => ({ mark, now: 1, then: 1 })),
});

it('says that it works until its count is of what stands in the field', async () => {
  const server = new FakeServer();
  server.replies.set('POST /classes/room/judging-preview', found(1));
  const settings = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null } as never;
  const records = { children: [], patterns: [], marks: [], elements: [], paper: [] };
  const no = vi.fn();
  mount(
    <JudgingForm classId="room" records={records} settings={settings} problem={undefined} onSave={no} onCancel={no} />,
  );
  expect(screen.getByText('Working it out …')).toBeTruthy();
  await waitFor(() => expect(screen.queryByText('Working it out …')).toBeNull());
  expect(screen.getByText(/1 of 9/)).toBeTruthy();
  server.replies.set('POST /classes/room/judging-preview', found(5));
  type(/On time within/, '120');
  // The count of before is not taken for that of now.
  expect(screen.getByText('Working it out …')).toBeTruthy();
  await waitFor(() => expect(screen.getByText(/5 of 9/)).toBeTruthy());
});

it('another scale brings its own borders, and words that cannot be marks are not saved', () => {
  const server = new FakeServer();
  server.replies.set('POST /classes/room/judging-preview', found(2));
  const settings = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null, scale: 'A-D,F' } as never;
  const records = { children: [], patterns: [], marks: [], elements: [], paper: [] };
  const save = vi.fn();
  mount(
    <JudgingForm
      classId="room"
      records={records}
      settings={settings}
      problem={undefined}
      onSave={save}
      onCancel={save}
    />,
  );
  const rows = () =>
    screen.queryAllByLabelText(/^Mark .*at least/).map((field) => field.getAttribute('aria-label')!.split(':')[0]);
  expect(rows()).toEqual(['Mark A', 'Mark B', 'Mark C', 'Mark D']);
  fireEvent.change(screen.getByLabelText('Marks are'), { target: { value: '6-1' } });
  expect(rows()).toEqual(['Mark 1', 'Mark 2', 'Mark 3', 'Mark 4', 'Mark 5']);
  fireEvent.change(screen.getByLabelText('Marks are'), { target: { value: 'words' } });
  type('Step 2', 'Beginning');
  expect(screen.getByText(/two steps have the same word/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true);
  type('Step 2', 'Nearly ');
  type('Step 4', 'Sure');
  expect(rows()).toEqual(['Mark Sure', 'Mark Secure', 'Mark Nearly ']);
  type('Mark Sure: at least, per cent', '90');
  click('Save');
  expect(save).toHaveBeenCalledWith(
    expect.objectContaining({
      scale: ['Beginning', 'Nearly', 'Secure', 'Sure'],
      borders: [
        { mark: 3, accuracy: 0.9, driftPct: 4 },
        { mark: 2, accuracy: 0.8, driftPct: 8 },
        { mark: 1, accuracy: 0.6 },
      ],
    }),
  );
  fireEvent.change(screen.getByLabelText('Marks are'), { target: { value: 'percent' } });
  expect(rows()).toEqual([]);
  expect(screen.getByLabelText('Mark 95 %: tempo within, per cent')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Marks are'), { target: { value: '0-4' } });
  click('Save');
  expect(save).toHaveBeenLastCalledWith(expect.objectContaining({ scale: null, borders: null }));
});
