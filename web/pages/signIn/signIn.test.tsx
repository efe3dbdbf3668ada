// @vitest-environment happy-dom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import SignOnBack from './SignOnBack.tsx';
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

const SCHOOLS = [
  { id: 'a1', name: 'Harbour School' },
  { id: 'b2', name: 'Marrow Lane' },
];

it('asks for the school where there are several, and remembers it on this device', async () => {
  const server = new FakeServer();
  server.replies.set('POST /session', STATE);
  const { unmount } = mount(<SignInPage demo={false} schools={SCHOOLS} onSignedIn={() => undefined} />);
  fireEvent.change(screen.getByLabelText('Your school'), { target: { value: 'b2' } });
  type('Name', 'Ann');
  type('Password', 'a long password');
  click('Sign in');
  await waitFor(() => expect(server.sent[0]?.body).toEqual({ name: 'Ann', password: 'a long password', school: 'b2' }));
  unmount();
  mount(<SignInPage demo={false} schools={SCHOOLS} onSignedIn={() => undefined} />);
  expect(screen.getByLabelText<HTMLSelectElement>('Your school').value).toBe('b2');
});

it('makes an account with an invitation, which says itself which school', async () => {
  const server = new FakeServer();
  mount(<SignInPage demo={false} schools={SCHOOLS} onSignedIn={() => undefined} />);
  click('I was invited');
  expect(screen.queryByLabelText('Your school')).toBeNull();
  type('Your name at the school', 'Ann');
  type('Code of the invitation', 'abcde');
  type('New password', 'seven wet stones');
  click('Make my account and sign in');
  await waitFor(() => expect(server.log).toEqual(['POST /session/invitation']));
  expect(server.sent[0]!.body).toEqual({ name: 'Ann', code: 'abcde', password: 'seven wet stones' });
});

describe('the place that vouches for teachers', () => {
  it('is the first way in where there is one', async () => {
    const server = new FakeServer();
    server.replies.set('POST /session/sign-on', { url: '#there' });
    mount(<SignInPage demo={false} signOn={{ name: 'Town sign-in' }} onSignedIn={() => undefined} />);
    click('Sign in with Town sign-in');
    await waitFor(() => expect(server.log).toEqual(['POST /session/sign-on']));
  });

  const back = (reply: unknown) => {
    const server = new FakeServer();
    const [inside, left] = [vi.fn(), vi.fn()];
    server.replies.set('POST /session/sign-on/answer', reply);
    server.replies.set('POST /session/sign-on/account', STATE);
    const mounting = () => mount(<SignOnBack query="code=1&state=st" onSignedIn={inside} onLeave={left} />);
    return { server, inside, left, mounting };
  };

  it('whom it knows is in; asked once', async () => {
    const { server, inside, mounting } = back(STATE);
    mounting();
    await waitFor(() => expect(inside).toHaveBeenCalledExactlyOnceWith(STATE));
    expect(server.sent).toEqual([
      { method: 'POST', path: '/session/sign-on/answer', body: { query: 'code=1&state=st' } },
    ]);
  });

  it('who only said who she is goes back to her account', async () => {
    const { left, mounting } = back({ kind: 'linked' });
    mounting();
    await waitFor(() => expect(left).toHaveBeenCalledExactlyOnceWith('/account'));
  });

  it('who is nobody here yet makes an account with an invitation', async () => {
    const { server, inside, mounting } = back({ kind: 'new', name: 'Dana Reef' });
    mounting();
    expect((await screen.findByLabelText<HTMLInputElement>('Your name at the school')).value).toBe('Dana Reef');
    type('Code of the invitation', 'abcde');
    click('Make my account and sign in');
    await waitFor(() => expect(inside).toHaveBeenCalled());
    expect(server.sent[1]!.body).toEqual({ name: 'Dana Reef', code: 'abcde', state: 'st' });
  });

  it('says what went wrong, and leads to the sign-in', async () => {
    const { server, left, mounting } = back(STATE);
    server.refuses = () => ({ status: 401, code: 'sign-on-refused', message: 'Try again.' });
    mounting();
    await screen.findByText('Try again.');
    click('To the sign-in');
    expect(left).toHaveBeenCalledWith('/');
  });
});
