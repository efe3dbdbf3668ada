// @vitest-environment happy-dom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { FakeServer, mount, tidyAfterEach } from '../page.test-helper.tsx';
import { OwnVoiceSwitch } from './OwnVoiceSwitch.tsx';

tidyAfterEach();

const WORD = { word: '1', vowel: 0.1, sound: 'AAAA'.repeat(200) };
const turned = async () => await screen.findByRole<HTMLInputElement>('checkbox', { name: 'Count with my own voice' });

it('turns as soon as it is pressed, and tells the server', async () => {
  const server = new FakeServer({ '/account/voice': { speaks: true, words: [WORD] } });
  mount(<OwnVoiceSwitch id="own" />);
  fireEvent.click(await turned());
  expect((await turned()).checked).toBe(false);
  await waitFor(() =>
    expect(server.sent).toEqual([{ method: 'PUT', path: '/account/voice', body: { speaks: false } }]),
  );
  expect((await turned()).checked).toBe(false);
});

it('turns back where the server refuses, and says why', async () => {
  const server = new FakeServer({ '/account/voice': { speaks: true, words: [WORD] } });
  server.refuses = () => ({ status: 422, code: 'bad-request', message: 'Not now.' });
  mount(<OwnVoiceSwitch id="own" />);
  fireEvent.click(await turned());
  await screen.findByText(/Not now/);
  expect((await turned()).checked).toBe(true);
});

it('where nothing was said yet it leads to where it is said', async () => {
  new FakeServer({ '/account/voice': { speaks: true, words: [] } });
  mount(<OwnVoiceSwitch id="own" />);
  const way = await screen.findByRole('link', { name: 'Count with your own voice' });
  expect(way.getAttribute('href')).toBe('/account/voice');
});
