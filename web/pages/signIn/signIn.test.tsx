// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import { SignInPage } from './SignInPage.tsx';

tidyAfterEach();

const STATE = { teacher: null, demo: false };

it('lets in by name and password; refused it says why and keeps the name', async () => {
  const server = new FakeServer();
  server.replies.set('POST /session', STATE);
  server.refuses = () => ({
    status: 401,
    code: 'wrong-password',
    message: 'Name and password do not belong together.',
  });
  const inside = vi.fn();
  mount(<SignInPage demo={false} onSignedIn={inside} />);
  expect(screen.queryByRole('button', { name: /Look around/ })).toBeNull();
  type('Name', 'Ann');
  type('Password', 'no');
  click('Sign in');
  expect(await screen.findByText(/do not belong together/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Ann');
  expect(inside).not.toHaveBeenCalled();
  server.refuses = () => undefined;
  type('Password', 'a long password');
  click('Sign in');
  await waitFor(() => expect(inside).toHaveBeenCalledExactlyOnceWith(STATE));
  expect(server.sent.at(-1)!.body).toEqual({ name: 'Ann', password: 'a long password' });
});

it('takes a code that was given out with a new password, and goes back to the usual way', async () => {
  const server = new FakeServer();
  mount(<SignInPage demo={false} onSignedIn={() => undefined} />);
  click('I was given a code');
  type('Name', 'Ann');
  type('Code', 'abcde');
  type('New password', 'seven wet stones');
  click('Keep the new password and sign in');
  await waitFor(() =>
    expect(server.sent).toEqual([
      { method: 'POST', path: '/session/reset', body: { name: 'Ann', code: 'abcde', password: 'seven wet stones' } },
    ]),
  );
  click('I know my password');
  expect(screen.queryByLabelText('Code')).toBeNull();
});

it('lets a visitor of the demo look around', async () => {
  const server = new FakeServer();
  server.replies.set('POST /session/visit', STATE);
  const inside = vi.fn();
  mount(<SignInPage demo onSignedIn={inside} />);
  click(/Look around/);
  await waitFor(() => expect(inside).toHaveBeenCalledExactlyOnceWith(STATE));
  expect(server.log).toEqual(['POST /session/visit']);
});
