// @vitest-environment happy-dom
import { act, screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { COMMON_TIME } from '../../core/rhythm/meter.ts';
import { mount, press, tidyAfterEach } from '../page.test-helper.tsx';
import { StripBoard } from './StripBoard.tsx';
import { LINES, TRAY, lineName } from './stripLines.ts';
import { useStripLine } from './useStripLine.ts';

tidyAfterEach();

function Board() {
  const line = useStripLine({ meter: COMMON_TIME, measures: 1 });
  const tray = TRAY.filter(({ base }) => base === 'h' || base === 'q');
  return (
    <>
      <p data-testid="trouble">{line.trouble}</p>
      <p data-testid="laid">{line.strips.map(({ value }) => value.base).join(' ')}</p>
      <StripBoard
        line={line}
        naming="quarters"
        beat="q"
        asNotes={false}
        onNotes={() => undefined}
        tray={tray}
        actions={['x', 'j']}
      />
    </>
  );
}

it('lays what the tray has at its key, and says why where it has not', () => {
  mount(<Board />);
  const state = (key: string) => {
    act(() => void press(key));
    return [screen.getByTestId('laid').textContent, screen.getByTestId('trouble').textContent];
  };
  expect(state('h')).toEqual(['h', '']);
  expect(state('e')).toEqual(['h', 'Eighths cannot be used here: open up the tray first.']);
  expect(state('.')).toEqual(['h', '“Dot” cannot be used here: open up the tray first.']);
  expect(state('x')).toEqual(['q q', '']);
});

it('a line is called by the beats that it has, whatever value has the beat', () => {
  const names = (beat: 'h' | 'q' | 'e') => LINES.slice(0, 3).map((line) => lineName(line, beat, 'quarters'));
  expect(names('q')).toEqual(['4 beats', '8 beats', '2/4, 4 measures']);
  expect(names('h')).toEqual(['2 beats', '4 beats', '2/4, 4 measures']);
  expect(names('e')).toEqual(['8 beats', '16 beats', '2/4, 4 measures']);
});
