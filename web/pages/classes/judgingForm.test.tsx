// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { FakeServer, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
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
