// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { FakeServer, click, mount, tidyAfterEach } from '../../page.test-helper.tsx';
import LicencesPage from './LicencesPage.tsx';

tidyAfterEach();

it('shows each package with its kind, and its licence in a line that opens', async () => {
  new FakeServer({
    '/licences.json': [
      { name: 'anchor', version: '1.0.0', kind: 'MIT', text: 'Free of charge.' },
      { name: 'buoy', version: '2.1.0', kind: 'ISC', text: '' },
    ],
  });
  mount(<LicencesPage />);
  expect(await screen.findByText(/^2 packages of others/)).toBeTruthy();
  const [first, second] = screen.getAllByRole('listitem');
  expect(first!.textContent).toBe('anchor 1.0.0 MITFree of charge.');
  expect(first!.querySelector('details summary')?.textContent).toBe('anchor 1.0.0 MIT');
  expect(second!.textContent).toBe('buoy 2.1.0 ISC');
  expect(second!.querySelector('details')).toBeNull();
});

it.each([
  ['no answer', () => Promise.reject(new TypeError('away'))],
  ['the page itself', () => Promise.resolve(new Response('<html>', { headers: { 'content-type': 'text/html' } }))],
  ['an error', () => Promise.resolve(Response.json({}, { status: 500 }))],
])('says that it stays on the server when there is %s, and asks again', async (_what, answer) => {
  vi.stubGlobal('fetch', answer);
  mount(<LicencesPage />);
  await screen.findByText(/The list stays on the server/);
  new FakeServer({ '/licences.json': [] });
  click('Try again');
  expect(await screen.findByText(/^0 packages/)).toBeTruthy();
});
