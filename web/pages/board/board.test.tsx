// @vitest-environment happy-dom
import { act, cleanup, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { v4 as uuid } from 'uuid';
import { expect, it, vi } from 'vitest';
import { FakeServer, click, mount, press, tidyAfterEach, where } from '../../page.test-helper.tsx';
import BoardPage from './BoardPage.tsx';

tidyAfterEach();

const ruler = vi.hoisted((): { shown: Record<string, unknown> } => ({ shown: {} }));
vi.mock('../../ruler/Ruler.tsx', () => ({
  Ruler: (props: Record<string, unknown>) => {
    ruler.shown = props;
    return null;
  },
}));

const [A, B, C] = [uuid(), uuid(), uuid()];
const PATTERNS = [
  { id: A, title: 'Steps', text: '4/4 q q h' },
  { id: B, title: 'Tide', text: '4/4 w' },
  { id: C, title: '', text: '4/4 q q' },
];

async function board(at = A) {
  new FakeServer({ '/patterns': PATTERNS, '/classes': [] });
  mount(
    <Routes>
      <Route path="/board/:patternId" element={<BoardPage />} />
      <Route path="*" element={<p>away</p>} />
    </Routes>,
    `/board/${at}`,
  );
  await screen.findByRole('heading');
}
const title = () => screen.getByRole('heading').textContent;

it('goes from pattern to pattern by key, and no further than there are', async () => {
  await board();
  press('ArrowLeft');
  expect(title()).toBe('Steps');
  press('ArrowRight');
  expect([title(), screen.getByRole('status').textContent]).toEqual(['Tide', '2 of 3']);
  press(' ');
  press(' ');
  expect([title(), where()]).toEqual(['Untitled', `/board/${C}`]);
  press('ArrowLeft');
  expect(title()).toBe('Tide');
  press('Escape');
  expect(where()).toBe(`/patterns/${B}`);
});

it('is larger and smaller by key, never beyond its sizes, and stays so', async () => {
  await board();
  const by = () => Math.round(100 * Number(ruler.shown['fitBy']));
  expect([ruler.shown['fit'], by()]).toEqual([true, 100]);
  press('+');
  press('=');
  expect(by()).toBe(144);
  for (let i = 0; i < 5; i++) press('+');
  expect(by()).toBe(173);
  for (let i = 0; i < 3; i++) press('-');
  expect(by()).toBe(100);
  for (let i = 0; i < 5; i++) press('-');
  expect(by()).toBe(58);
  cleanup();
  await board();
  expect(by()).toBe(58);
});

it.each([
  ['n', 'notes'],
  ['s', 'strips'],
  ['h', 'hands'],
  ['t', 'feet'],
])('%s turns %s off and on', async (key, lane) => {
  await board();
  const before = Boolean(ruler.shown[lane]);
  press(key);
  expect(Boolean(ruler.shown[lane])).toBe(!before);
  press(key);
  expect(Boolean(ruler.shown[lane])).toBe(before);
});

it('counts are taken away and come back', async () => {
  await board();
  const counts = () => (ruler.shown['counts'] as readonly unknown[]).length;
  const before = counts();
  expect(before).toBeGreaterThan(0);
  click(/^Counts/);
  expect(counts()).toBe(0);
  act(() => void press('c'));
  await waitFor(() => expect(counts()).toBeGreaterThan(0));
});
