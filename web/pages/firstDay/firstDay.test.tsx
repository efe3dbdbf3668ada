// @vitest-environment happy-dom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { STARTER_PATTERNS } from '../../../core/exercises/starterPatterns.ts';
import { FakeServer, click, mount, tidyAfterEach, type, where } from '../../page.test-helper.tsx';
import FirstDayPage from './FirstDayPage.tsx';

tidyAfterEach();

const ROBIN = { id: 'robin', name: 'Robin' } as never;
const STARTERS = STARTER_PATTERNS()['9-10'];
const START = 'Make the class and hear the first child';
const saved = ({ title, text }: { title: string; text: string }) => ({
  id: '5b0f2d1c-1c55-4f1c-9c59-2e5a7d8c9b10',
  title,
  text,
});

function begin(patterns: readonly object[] = []) {
  const server = new FakeServer({ '/patterns': patterns });
  mount(<FirstDayPage teacher={ROBIN} />);
  type('What is it called?', ' Gulls ');
  type(/First names or codes/, 'Ada\nBo\n');
  return server;
}
const put = (server: FakeServer, what: RegExp) => server.sent.filter(({ path }) => what.test(path));
const titles = (server: FakeServer) =>
  put(server, /^\/patterns\//).map(({ body }) => (body as { title: string }).title);

it('makes the class, its children and its rhythms, and goes to the first child', async () => {
  const server = begin();
  expect(screen.getByText('2 children: Ada, Bo')).toBeTruthy();
  click(START);
  await waitFor(() => expect(where()).toMatch(/^\/take\?pattern=/));
  expect(put(server, /^\/classes\/[^/]+$/)[0]!.body).toEqual({
    name: 'Gulls',
    ages: '9-10',
    school: 'numbers',
    rests: null,
  });
  expect(put(server, /\/children\//).map(({ body }) => body)).toEqual([{ name: 'Ada' }, { name: 'Bo' }]);
  expect(titles(server)).toEqual(STARTERS.map(({ title }) => title));
  const first = put(server, /^\/patterns\//)[0]!
    .path.split('/')
    .at(-1);
  expect(where()).toBe(`/take?pattern=${first}`);
});

it('leaves out what is not wanted, and what the teacher has already', async () => {
  const server = begin([saved(STARTERS[1]!)]);
  await waitFor(() => expect(screen.getByLabelText(STARTERS[0]!.title)).toBeTruthy());
  // The list of what is known arrives by itself.
  await new Promise((later) => setTimeout(later, 20));
  fireEvent.click(screen.getByLabelText(STARTERS[0]!.title));
  click(START);
  await waitFor(() => expect(where()).toMatch(/^\/take/));
  expect(titles(server)).toEqual(STARTERS.slice(2).map(({ title }) => title));
});

it('tried again after a failure makes nothing twice: every thing keeps its address', async () => {
  const server = begin();
  let failing = true;
  server.refuses = ({ path }) =>
    failing && path.includes('/patterns/') && titles(server).length > 1
      ? { status: 422, code: 'bad-request', message: 'Not just now.' }
      : undefined;
  click(START);
  expect(await screen.findByText('Not just now.')).toBeTruthy();
  await new Promise((later) => setTimeout(later, 30));
  expect(where()).toBe('/');
  const before = server.sent.splice(0);
  failing = false;
  click(START);
  await waitFor(() => expect(where()).toMatch(/^\/take/));
  expect(server.log.slice(0, before.length)).toEqual(before.map(({ method, path }) => `${method} ${path}`));
  expect(new Set(server.log).size).toBe(1 + 2 + STARTERS.length);
});

it('asks for a class with children in it', () => {
  new FakeServer({ '/patterns': [] });
  mount(<FirstDayPage teacher={ROBIN} />);
  expect(screen.getByRole<HTMLButtonElement>('button', { name: START }).disabled).toBe(true);
});

it('a reload or a look elsewhere loses nothing typed, and another teacher sees nothing of it', async () => {
  begin();
  fireEvent.click(screen.getByLabelText('7 and 8'));
  cleanup();
  mount(<FirstDayPage teacher={{ id: 'other', name: 'Kim' } as never} />);
  expect(screen.getByLabelText<HTMLInputElement>('What is it called?').value).toBe('');
  cleanup();
  mount(<FirstDayPage teacher={ROBIN} />);
  expect(screen.getByLabelText<HTMLInputElement>('What is it called?').value).toBe(' Gulls ');
  expect(screen.getByText('2 children: Ada, Bo')).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('7 and 8').checked).toBe(true);
  click(START);
  await waitFor(() => expect(where()).toMatch(/^\/take/));
  expect(sessionStorage.getItem('first-day.robin')).toBeNull();
});

it('two children of one name are two, and what is no name is said', async () => {
  const server = begin();
  type(/First names or codes/, 'Class 4b\nAda\nBo\nAda');
  expect(screen.getByText('Left out, for they are no names: Class 4b.')).toBeTruthy();
  expect(screen.getByText('More than once, and taken as different children: Ada.')).toBeTruthy();
  click(START);
  await waitFor(() => expect(where()).toMatch(/^\/take/));
  const made = put(server, /\/children\//);
  expect(made.map(({ body }) => (body as { name: string }).name)).toEqual(['Ada', 'Bo', 'Ada']);
  expect(new Set(made.map(({ path }) => path)).size).toBe(3);
});
