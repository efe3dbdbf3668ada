// @vitest-environment happy-dom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { Route, Routes } from 'react-router';
import { expect, it, vi } from 'vitest';
import { v4 as uuid } from 'uuid';
import type { TakeDetail } from '../../../../contract/take.ts';
import { FakeServer, click, mount, tidyAfterEach, where } from '../../../page.test-helper.tsx';
import { ElementPlaceList } from './ElementPlaceList.tsx';
import { MasteryTable } from './MasteryTable.tsx';
import { OverrideForm } from './OverrideForm.tsx';
import { RemoveTake } from './RemoveTake.tsx';
import ReportsPage from './ReportsPage.tsx';

tidyAfterEach();

const [ROOM, ADA, BO, TAKE] = [uuid(), uuid(), uuid(), uuid()];
const CLASS = {
  id: ROOM,
  name: 'Gulls',
  ages: '9-10',
  school: 'numbers',
  rests: null,
  role: 'owner',
  owner: 'Ann',
  children: [ADA, BO].map((id, i) => ({ id, name: ['Ada', 'Bo'][i], adaptations: null })),
};
const KNOWN = [
  {
    element: 'tie',
    heard: 3,
    right: 0.5,
    state: 'new',
    places: { right: 1, misread: 1, notTold: 1 },
    sure: 0.6,
    lastSeen: 1,
  },
];
const of = (child: string) => `/classes/${ROOM}/children/${child}`;
const TAKES = { takes: [], next: null };

it('reports are printed when all of them are there, and only those that are wanted', async () => {
  const answers: Record<string, unknown> = {
    [`/classes/${ROOM}`]: CLASS,
    [`${of(ADA)}/mastery`]: KNOWN,
    [`${of(ADA)}/takes?`]: TAKES,
    [`${of(BO)}/takes?`]: TAKES,
  };
  new FakeServer(answers);
  const page = (
    <Routes>
      <Route path="/classes/:classId/reports" element={<ReportsPage />} />
    </Routes>
  );
  const first = mount(page, `/classes/${ROOM}/reports`);
  await screen.findByRole('heading', { name: 'Ada' });
  expect(screen.getByRole('button', { name: 'Working them out …' })).toHaveProperty('disabled', true);
  first.unmount();
  answers[`${of(BO)}/mastery`] = [];
  mount(page, `/classes/${ROOM}/reports`);
  const print = vi.fn();
  vi.stubGlobal('print', print);
  await screen.findByRole('button', { name: 'Print' });
  fireEvent.click(screen.getByLabelText('Print that of Bo'));
  const bo = screen.getByRole('heading', { name: 'Bo' }).closest('article')!;
  expect(bo.className).toContain('no-print');
  click('Print 1');
  expect(print).toHaveBeenCalledTimes(1);
  fireEvent.click(screen.getByLabelText('Print that of Ada'));
  expect(screen.getByRole('button', { name: 'Print 0' })).toHaveProperty('disabled', true);
});

const PLACE = { measure: 2, played: 1, beat: { n: 3, d: 1 }, from: 6, to: 7 };
const PLACES = [
  { takeId: TAKE, title: 'Long rope', takenAt: 1, places: [{ ...PLACE, verdict: 'misread', code: 'tie-restruck' }] },
];

it('how an element stands opens to its places, each with its take', async () => {
  new FakeServer({ [`${of(ADA)}/mastery`]: KNOWN, [`${of(ADA)}/elements/tie`]: PLACES });
  mount(<MasteryTable classId={ROOM} childId={ADA} naming="quarters" />);
  const row = await screen.findByRole('button', { name: /tie.*1 of 2 places.*hardly heard/ });
  expect(row.getAttribute('aria-expanded')).toBe('false');
  fireEvent.click(row);
  await screen.findByText(/measure 2, beat 3: misread \(/);
  expect(screen.getByRole('link', { name: /Long rope/ }).getAttribute('href')).toBe(`/classes/${ROOM}/takes/${TAKE}`);
  fireEvent.click(row);
  expect(screen.queryByRole('link', { name: /Long rope/ })).toBeNull();
});

it('a place that cannot be heard says why', async () => {
  new FakeServer({ [`${of(ADA)}/elements/tie`]: PLACES });
  mount(<ElementPlaceList classId={ROOM} childId={ADA} element="tie" naming="quarters" />);
  fireEvent.click(await screen.findByRole('button', { name: 'Hear measure 2, beat 3 of Long rope' }));
  await screen.findByText(/Reload it/);
});

const detail = { id: TAKE, childId: ADA, mark: 3, override: null, overrideReason: '' } as TakeDetail;

it('a take is removed only after asking', async () => {
  const server = new FakeServer();
  mount(<RemoveTake classId={ROOM} take={detail} childName="Ada" />);
  click('Remove this take');
  screen.getByText(/Was this not Ada, or not meant/);
  click('Keep it');
  expect(server.sent).toEqual([]);
  click('Remove this take');
  click('Remove it');
  await waitFor(() => expect(where()).toBe(of(ADA)));
  expect(server.log).toEqual([`DELETE /takes/${TAKE}`]);
});

it('a mark that was given elsewhere meanwhile is not wiped unseen', async () => {
  const server = new FakeServer();
  server.refuses = ({ body }) =>
    (body as { was: { mark: number | null } }).was.mark === null
      ? {
          status: 409,
          code: 'changed-meanwhile',
          message: 'Look at both.',
          theirs: { mark: 1, reason: '' },
          parts: ['mark'],
        }
      : undefined;
  const Form = () => {
    const [take, setTake] = useState(detail);
    return (
      <>
        <button onClick={() => setTake({ ...detail, override: 1 })}>news</button>
        <OverrideForm take={take} scale="0-4" />
      </>
    );
  };
  mount(<Form />);
  fireEvent.change(screen.getByLabelText('Your mark'), { target: { value: '4' } });
  // What another device gave arrives while the form is open: the form stays as it was begun.
  click('news');
  click('Keep');
  await screen.findByRole('alert', { name: 'Changed by somebody else' });
  click('Keep mine');
  await waitFor(() => expect(server.sent.at(-1)?.body).toEqual({ mark: 4, reason: '', was: { mark: 1, reason: '' } }));
});
