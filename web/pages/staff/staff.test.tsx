// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { v4 as uuid } from 'uuid';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import StaffPage from './StaffPage.tsx';

tidyAfterEach();

const [me, open, closed] = [uuid(), uuid(), uuid()];
const member = (id: string, name: string, more: object = {}) => ({
  id,
  name,
  administrator: false,
  closed: false,
  createdAt: 1,
  ...more,
});
const STAFF = [
  member(me, 'Robin', { administrator: true }),
  member(open, 'Kim'),
  member(closed, 'Sal', { closed: true }),
];
const teacher = { id: me, name: 'Robin', administrator: true };

it('closes who is open, opens who is closed, and has no such button for oneself', async () => {
  const server = new FakeServer({ '/staff': STAFF });
  mount(<StaffPage teacher={teacher} />);
  await screen.findByText('administrator, you');
  expect(screen.queryByRole('button', { name: 'Close Robin' })).toBeNull();
  expect(screen.queryByRole('button', { name: 'Code for a new password for Sal' })).toBeNull();
  click('Close Kim');
  click('Open Sal');
  await waitFor(() =>
    expect(server.sent).toEqual([
      { method: 'PUT', path: `/staff/${open}`, body: { closed: true } },
      { method: 'PUT', path: `/staff/${closed}`, body: { closed: false } },
    ]),
  );
});

it('a new account gives a code for its teacher, shown until it was handed over', async () => {
  const server = new FakeServer({ '/staff': STAFF });
  server.replies.set('POST /staff', { code: 'abcde-fghjk-mnpqr-stuvw' });
  mount(<StaffPage teacher={teacher} />);
  const make = await screen.findByRole<HTMLButtonElement>('button', { name: 'Make the account' });
  type('Name of a new teacher', '   ');
  expect(make.disabled).toBe(true);
  type('Name of a new teacher', ' Nel ');
  click('Make the account');
  expect(await screen.findByText('abcde-fghjk-mnpqr-stuvw')).toBeTruthy();
  expect(screen.getByText(/Give this code to/).textContent).toContain('Give this code to Nel in person');
  expect(server.sent[0]!.body).toEqual({ name: 'Nel' });
  expect(screen.getByLabelText<HTMLInputElement>('Name of a new teacher').value).toBe('');
  click('Done');
  expect(screen.queryByText('abcde-fghjk-mnpqr-stuvw')).toBeNull();
});

it('says why an account cannot be made, and keeps the name', async () => {
  const server = new FakeServer({ '/staff': STAFF });
  server.refuses = () => ({ status: 422, code: 'name-taken', message: 'There is a Kim already.' });
  mount(<StaffPage teacher={teacher} />);
  await screen.findByText('administrator, you');
  type('Name of a new teacher', 'Kim');
  click('Make the account');
  expect(await screen.findByText('There is a Kim already.')).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Name of a new teacher').value).toBe('Kim');
});
