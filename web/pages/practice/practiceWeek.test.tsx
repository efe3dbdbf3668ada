// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { expect, it } from 'vitest';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import PracticeWeekPage from './PracticeWeekPage.tsx';

tidyAfterEach();

const ID = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const [ROOM, WEEK, ADA, PATTERN] = [ID(1), ID(2), ID(3), ID(4)];
const item = { patternId: PATTERN, title: 'Two gulls', text: '4/4 q q h', bpm: 66, times: 2, days: [0, 1] };
const plan = { title: 'Week 40', items: [item], children: null };
const room = {
  id: ROOM,
  name: 'Harbour 2',
  ages: '7-8',
  school: 'ta',
  rests: null,
  role: 'owner',
  owner: '',
  children: [{ id: ADA, name: 'Ada', adaptations: null }],
};

it('a week that is changed says what it was made from, and shows what a colleague made of the same', async () => {
  const server = new FakeServer({
    [`/classes/${ROOM}`]: room,
    [`/classes/${ROOM}/practice`]: [{ id: WEEK, starts: '2026-09-28', plan, practised: [] }],
    '/patterns': [{ id: PATTERN, title: 'Two gulls', text: '4/4 q q h', bpm: 66, brackets: [] }],
  });
  mount(
    <Routes>
      <Route path="/classes/:classId/practice/:weekId" element={<PracticeWeekPage />} />
    </Routes>,
    `/classes/${ROOM}/practice/${WEEK}`,
  );
  await screen.findByRole('button', { name: 'Change' });
  click('Change');
  type('Name', 'Week 41');
  const theirs = { starts: '2026-09-28', plan: { ...plan, title: 'Gulls', children: [ADA] } };
  server.refuses = () => ({ status: 409, code: 'clash', message: 'both', theirs, parts: ['plan'] });
  click('Keep this week');
  await screen.findByRole('alert', { name: 'Changed by somebody else' });
  expect(server.sent[0]!.body).toEqual({
    starts: '2026-09-28',
    plan: { ...plan, title: 'Week 41' },
    was: { starts: '2026-09-28', plan },
  });
  expect(screen.getAllByRole('cell').some(({ textContent }) => textContent === 'Title: Gulls, children: Ada')).toBe(
    true,
  );
  server.refuses = () => undefined;
  click('Keep mine');
  await waitFor(() => expect(screen.queryByRole('form', { name: 'Practice week' })).toBeNull());
  expect(server.sent[1]!.body).toMatchObject({ plan: { title: 'Week 41' }, was: theirs });
});
