// @vitest-environment happy-dom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { TakeSummary } from '../../../../contract/take.ts';
import { FakeServer, mount, tidyAfterEach } from '../../../page.test-helper.tsx';
import { TakeRows } from './TakeRows.tsx';

tidyAfterEach();

const take = (id: string, override: number | null) =>
  ({ id, takenAt: 1, title: `Tide ${id}`, bpm: 72, accuracy: 0.9, mark: 2, override }) as TakeSummary;
const TAKES = [take('a', null), take('b', 4)];

it('a mark of her own is given by who hears the class', async () => {
  const server = new FakeServer();
  mount(<TakeRows classId="room" takes={TAKES} scale="0-4" marks />);
  fireEvent.change(screen.getByLabelText('Teacher’s mark for Tide a'), { target: { value: '3' } });
  await waitFor(() =>
    expect(server.sent).toEqual([{ method: 'PUT', path: '/takes/a/override', body: { mark: 3, was: { mark: null } } }]),
  );
});

it('who may only look sees it, and is offered nothing that is refused', () => {
  new FakeServer();
  mount(<TakeRows classId="room" takes={TAKES} scale="0-4" marks={false} />);
  expect(screen.queryByRole('combobox')).toBeNull();
  const rows = screen.getAllByRole('row').slice(1);
  expect(rows.map((row) => row.lastElementChild!.textContent)).toEqual(['as computed', '4']);
});
