// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { FakeServer, click, mount, tidyAfterEach, type } from '../../page.test-helper.tsx';
import { OtherDevices } from './OtherDevices.tsx';
import { Passkeys } from './Passkeys.tsx';
import { SchoolsCard } from './SchoolsCard.tsx';
import { SignOnCard } from './SignOnCard.tsx';
import { PasswordForm } from './PasswordForm.tsx';

tidyAfterEach();

const DEVICES = [
  { id: 'a b', name: 'Firefox on Linux', startedAt: 0, here: false },
  { id: 'me', name: 'Safari', startedAt: 1, here: true },
  { id: 'c', name: '', startedAt: 1, here: false },
];

it('one device is signed out by its own button, all others by another, and this one has none', async () => {
  const server = new FakeServer();
  mount(<OtherDevices devices={DEVICES} />);
  expect(screen.getByText('You are signed in here and in 2 other browsers.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Sign out Safari' })).toBeNull();
  click('Sign out Firefox on Linux');
  await waitFor(() => expect(server.log).toEqual(['DELETE /account/sessions/a%20b']));
  click('Sign the others out');
  await waitFor(() => expect(server.log.at(-1)).toBe('DELETE /account/other-sessions'));
});

it('where there is no other device nothing is to be signed out', () => {
  mount(<OtherDevices devices={DEVICES.slice(1, 2)} />);
  expect(screen.getByText('You are signed in here only.')).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Sign the others out' }).disabled).toBe(true);
});

it('a passkey is removed when that is confirmed, and only then', async () => {
  const server = new FakeServer();
  const asked = vi.fn(() => false);
  vi.stubGlobal('confirm', asked);
  mount(<Passkeys passkeys={[{ id: 'k1', name: 'Laptop', createdAt: 0 }]} />);
  click('Remove the passkey Laptop');
  expect([asked.mock.calls.length, server.log]).toEqual([1, []]);
  asked.mockReturnValue(true);
  click('Remove the passkey Laptop');
  await waitFor(() => expect(server.log).toEqual(['DELETE /account/passkeys/k1']));
});

it('a password is sent with the one of now; refused it stays typed, taken it goes', async () => {
  const server = new FakeServer();
  mount(<PasswordForm name="Ann" />);
  type('Password now', 'old one here');
  type('New password', 'kelp and coral');
  server.refuses = () => ({ status: 422, code: 'wrong-password', message: 'This is not your password of now.' });
  click('Change it');
  expect(await screen.findByText(/not your password of now/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe('kelp and coral');
  expect(screen.queryByText(/is kept/)).toBeNull();
  server.refuses = () => undefined;
  click('Change it');
  expect(await screen.findByText(/The new password is kept/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe('');
  expect(server.sent.at(-1)).toEqual({
    method: 'PUT',
    path: '/account/password',
    body: { current: 'old one here', password: 'kelp and coral' },
  });
});

it('another school is joined with an invitation, under a name there', async () => {
  const server = new FakeServer();
  vi.stubGlobal('location', { reload: () => undefined });
  const schools = [
    { id: 'a', name: 'Harbour School', as: 'Robin H', administrator: true },
    { id: 'b', name: 'Marrow Lane', as: 'Robin', administrator: false },
  ];
  mount(<SchoolsCard teacher={{ id: 'me', name: 'Robin', schools }} />);
  expect(screen.getByRole('link', { name: 'Harbour School' }).getAttribute('href')).toBe('/school?at=a');
  expect(screen.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
    'Harbour School, there as Robin H, administratorShelf',
    'Marrow LaneShelf',
  ]);
  click('I teach at another school too');
  type('Code of the invitation', 'abcde');
  type('Your name at that school', ' Robin Q ');
  click('Join this school');
  await waitFor(() =>
    expect(server.sent).toEqual([
      { method: 'POST', path: '/account/schools', body: { code: 'abcde', name: 'Robin Q' } },
    ]),
  );
});

it('the place that vouches is gone to, or forgotten', async () => {
  const server = new FakeServer();
  const { unmount } = mount(<SignOnCard name="Town sign-in" since={null} />);
  click('Go to Town sign-in');
  await waitFor(() => expect(server.log).toEqual(['POST /account/sign-on']));
  unmount();
  mount(<SignOnCard name="Town sign-in" since={5} />);
  click('Come in by it no more');
  await waitFor(() => expect(server.log.at(-1)).toBe('DELETE /account/sign-on'));
});
