// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { NextStep } from '../../core/records/nextStep.ts';
import { mount, tidyAfterEach } from '../page.test-helper.tsx';
import { NextStepButton, NextStepLine } from './NextStepLine.tsx';

tidyAfterEach();

const TO = '/take?child=ada&pattern=tide';
const of = { code: 'rushing', times: 3 } as const;

it.each<[NextStep, string, string, object | undefined, string]>([
  [{ kind: 'faster', bpm: 76 }, 'Twice full marks.', 'Now at 76', { bpm: 76 }, `${TO}&bpm=76`],
  [{ kind: 'half-speed', bpm: 36 }, 'Twice not right yet.', 'Now at half speed, 36', { bpm: 36 }, `${TO}&bpm=36`],
  [{ kind: 'feet', ...of }, '3 times in a row', 'Now with the feet on the beat', { task: 'feet' }, `${TO}&task=feet`],
  [{ kind: 'half-click', ...of }, '3 times', 'Now with every other click', { clicks: 'half' }, `${TO}&clicks=half`],
  [{ kind: 'listen', ...of }, '3 times', 'Lead it once more', undefined, '/lead?pattern=tide'],
  [{ kind: 'calibrate', ...of }, '3 times', 'Calibrate this device', undefined, '/take?pattern=tide&calibrate=1'],
  [{ kind: 'made', ...of }, '3 times', 'Make a rhythm for it', undefined, '/make?focus=misreading+rushing'],
  [
    { kind: 'place', ...of, measure: 2, bpm: 60 },
    '3 times',
    'Measure 2 alone, at 60',
    undefined,
    '/lead?pattern=tide&from=2&bpm=60',
  ],
  [
    { kind: 'measure', measure: 4, bpm: 54 },
    'Twice not right yet.',
    'Measure 4 alone, at 54',
    undefined,
    '/lead?pattern=tide&from=4&bpm=54',
  ],
])('%j has its reason, and the button that does it: here, or on the way there', (step, reason, name, change, way) => {
  const set = vi.fn();
  const props = { step, patternId: 'tide', naming: 'quarters', to: TO } as const;
  const { unmount } = mount(<NextStepLine {...props} onSet={set} />);
  expect(document.body.textContent).toContain(reason);
  if (change) {
    fireEvent.click(screen.getByRole('button', { name }));
    expect(set).toHaveBeenCalledWith(change);
  } else expect(screen.getByRole('link', { name }).getAttribute('href')).toBe(way);
  unmount();
  mount(<NextStepButton {...props} />);
  expect(screen.getByRole('link', { name }).getAttribute('href')).toBe(way);
});

it('once more needs no button, and the next pattern is chosen elsewhere', () => {
  const props = { patternId: 'tide', naming: 'quarters', to: TO } as const;
  mount(<NextStepLine {...props} step={{ kind: 'again' }} />);
  expect(document.querySelector('.next-step')).toBeNull();
  mount(<NextStepLine {...props} step={{ kind: 'next-pattern' }} />);
  expect(document.querySelector('.next-step')!.textContent).toContain('on to the next pattern');
  expect(screen.queryByRole('link')).toBeNull();
});
