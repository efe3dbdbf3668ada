// @vitest-environment happy-dom
import { act, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { click, mount, tidyAfterEach } from '../page.test-helper.tsx';
import { Loading } from './Loading.tsx';

tidyAfterEach();

it('says nothing for a moment, then its name and that it is loading', () => {
  vi.useFakeTimers();
  mount(<Loading title="Plan" />);
  act(() => void vi.advanceTimersByTime(299));
  expect(screen.queryByRole('status')).toBeNull();
  act(() => void vi.advanceTimersByTime(1));
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Plan');
  expect(screen.getByRole('status').textContent).toBe('Loading …');
});

it('says at once what went wrong, and tries again', () => {
  const again = vi.fn();
  mount(<Loading title="Plan" problem={new Error('The server is away.')} again={again} />);
  expect(screen.getByText(/The server is away/)).toBeTruthy();
  click(/again/i);
  expect(again).toHaveBeenCalledOnce();
  expect(screen.queryByRole('status')).toBeNull();
});
