// @vitest-environment happy-dom
import { renderHook, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { SWRConfig } from 'swr';
import { expect, it } from 'vitest';
import { v4 as uuid } from 'uuid';
import { FakeServer, mount, tidyAfterEach, where } from '../page.test-helper.tsx';
import { useOfferedPatterns } from '../domain/offeredPatterns.ts';
import { readStored } from '../store/stored.ts';
import Landing from './Landing.tsx';

tidyAfterEach();

const [OWN, SHARED, PATTERN, HERS] = [uuid(), uuid(), uuid(), uuid()];
const room = (id: string, role: string) => ({
  id,
  name: '3b',
  ages: '9-10',
  school: 'numbers',
  rests: null,
  children: 2,
  role,
  owner: role === 'owner' ? 'Ben' : 'Ann',
});

it('the first visit after a class was shared lands there, the next one where it always does', async () => {
  new FakeServer({ '/classes': [room(OWN, 'owner'), room(SHARED, 'hear')] });
  const first = mount(<Landing teacherId="ben" />);
  await waitFor(() => expect(where()).toBe(`/classes/${SHARED}`));
  expect(readStored('take.class')).toBe(SHARED);
  first.unmount();
  mount(<Landing teacherId="ben" />);
  await waitFor(() => expect(where()).toBe('/today'));
});

it('who has classes of her own, or nothing, begins with the day', async () => {
  new FakeServer({ '/classes': [room(OWN, 'owner')] });
  const own = mount(<Landing teacherId="ann" />);
  await waitFor(() => expect(where()).toBe('/today'));
  own.unmount();
  // Also where the server cannot be asked.
  new FakeServer({});
  mount(<Landing teacherId="ann" />);
  await waitFor(() => expect(where()).toBe('/today'));
  expect(screen.queryByRole('alert')).toBeNull();
});

const wrapper = ({ children }: { children: ReactNode }) => (
  <SWRConfig value={{ provider: () => new Map() }}>
    <MemoryRouter>{children}</MemoryRouter>
  </SWRConfig>
);
const pattern = (id: string, more: object = {}) => ({ id, title: id, text: '4/4 w', ...more });

it.each([
  ['hear', [PATTERN, HERS]],
  ['owner', [PATTERN]],
  ['look', [PATTERN]],
] as const)('who may %s a class is offered what it is heard on', async (role, ids) => {
  new FakeServer({
    '/patterns': [pattern(PATTERN)],
    [`/classes/${SHARED}/patterns`]: [pattern(HERS), pattern(PATTERN), pattern(uuid(), { archived: true })],
  });
  const { result } = renderHook(() => useOfferedPatterns(undefined, { id: SHARED, role }), { wrapper });
  await waitFor(() => expect(result.current.data?.map(({ id }) => id)).toEqual(ids));
});
