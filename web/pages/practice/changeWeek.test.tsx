// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import { ChangeWeek } from './ChangeWeek.tsx';

tidyAfterEach();

const GULLS = { id: 'gulls', title: 'Two gulls', text: '4/4 q q h', bpm: 66 };
const item = { patternId: GULLS.id, title: GULLS.title, text: GULLS.text, bpm: 66, times: 2, days: [0, 1] };
const plan = { title: 'Week 40', items: [item], children: null };
const starts = '2026-09-28';
const ROOM = { id: 'room', name: 'Harbour 2', children: [{ id: 'ada', name: 'Ada' }] } as unknown as ClassDetail;

it('a week that is changed says what it was made from, and shows what a colleague made of the same', async () => {
  const server = new FakeServer();
  const closed = vi.fn();
  const week = { id: 'week', starts, plan, practised: [] };
  mount(<ChangeWeek schoolClass={ROOM} patterns={[GULLS]} week={week} onClose={closed} />);
  type('Name', 'Week 41');
  const theirs = { starts, plan: { ...plan, title: 'Gulls', children: ['ada'] } };
  server.refuses = () => ({ status: 409, code: 'clash', message: 'both', theirs, parts: ['plan'] });
  click('Keep this week');
  await screen.findByRole('alert', { name: 'Changed by somebody else' });
  const mine = { starts, plan: { ...plan, title: 'Week 41' } };
  expect(server.sent).toEqual([
    { method: 'PUT', path: '/classes/room/practice/week', body: { ...mine, was: { starts, plan } } },
  ]);
  const cells = screen.getAllByRole('cell').map(({ textContent }) => textContent);
  expect(cells.slice(1)).toEqual(['Title: Gulls, Who: Ada', 'Title: Week 41, Who: the whole class']);
  expect(closed).not.toHaveBeenCalled();
  server.refuses = () => undefined;
  click('Keep mine');
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  expect(server.sent[1]!.body).toEqual({ ...mine, was: theirs });
});
