// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import { mount, tidyAfterEach } from '../page.test-helper.tsx';
import TakeOut from './TakeOut.tsx';

tidyAfterEach();

it.each([
  ['4/4 q q h | (M7)', true],
  ['4/4 q q h | (M1)', false],
])('%s: each measure of rest by itself can be asked for: %s', (text, offered) => {
  mount(<TakeOut patterns={[{ title: 'Ebb', pattern: patternOf(text) }]} name="Ebb" counts={{ school: 'numbers' }} />);
  expect(screen.queryByLabelText('each measure of rest by itself') !== null).toBe(offered);
});
