// @vitest-environment happy-dom
import { act, fireEvent, renderHook, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { parseMeter, printRhythm } from '../../../core/rhythm/text.ts';
import { chooseQuestions } from '../../../core/exercises/kinds/chooseRhythm.ts';
import { vocabularyOf } from '../../../core/exercises/rhythms/vocabulary.ts';
import { patternOf } from '../../../core/rhythm/arbitrary.test-helper.ts';
import { COMMON_TIME } from '../../../core/rhythm/meter.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { FakeServer, click, mount, press, tidyAfterEach } from '../../page.test-helper.tsx';
import { EchoTurn } from './EchoTurn.tsx';
import { EchoView } from './EchoView.tsx';
import type { EarSettings } from './earSettings.ts';
import { useCards } from './useCards.ts';
import { useChooseRun } from './useChooseRun.ts';

tidyAfterEach();

const hearing = vi.hoisted(() => ({ ends: [] as (() => void)[], plays: [] as number[] }));
vi.mock('../../audio/useHear.ts', () => ({
  useHear: () => ({
    moment: { state: 'quiet' },
    now: () => undefined,
    stop: () => undefined,
    hear: (_pattern: unknown, _bpm: number, { plays, onEnd }: { plays: number; onEnd: () => void }) => {
      hearing.plays.push(plays);
      hearing.ends.push(onEnd);
      return Promise.resolve();
    },
  }),
}));
beforeEach(() => {
  hearing.ends.length = 0;
  hearing.plays.length = 0;
});

const RUN = chooseQuestions({ elements: ['quarter', 'eighth-pair', 'half'], meter: COMMON_TIME, beats: 4 }, 5, 2);
const [FIRST, SECOND] = RUN as [(typeof RUN)[0], (typeof RUN)[0]];
const hands = (right: number, others: number) => [0, 1, 2, 3].map((i) => (i === FIRST.answer ? right : others));

describe('ten to choose from', () => {
  const begin = () => {
    const again = vi.fn();
    return { again, ...renderHook(() => useChooseRun(RUN, again)) };
  };
  it.each([
    ['most hands for the right one', hands(5, 2), 1],
    ['as many hands for another', hands(5, 5), 0],
    ['more hands for another', hands(1, 4), 0],
    ['no hands at all', hands(0, 0), 0],
  ])('%s: %j scores %i', (_what, given, score) => {
    const { result } = begin();
    act(() => result.current.answer({ kind: 'hands', hands: given }));
    act(() => result.current.openAll());
    expect(result.current.right).toBe(score);
    expect(result.current.hands).toEqual({ right: given[FIRST.answer], all: given.reduce((sum, one) => sum + one, 0) });
  });
  it('whether it was right is seen when it is opened, not before, and the first answer counts', () => {
    const { result } = begin();
    act(() => result.current.answer({ kind: 'one', option: FIRST.answer }));
    expect([result.current.right, result.current.done]).toEqual([0, false]);
    act(() => result.current.answer({ kind: 'one', option: (FIRST.answer + 1) % 4 }));
    for (let beat = 0; beat < 8 && !result.current.done; beat++) act(() => result.current.openNext());
    expect([result.current.right, result.current.done, result.current.out.length]).toEqual([1, true, 3]);
    expect(result.current.tally).toEqual({});
  });
  it('what was taken for what is heard is tallied, goes on to the next, and ends where it began', () => {
    const { result, again } = begin();
    const wrong = (FIRST.answer + 1) % 4;
    act(() => result.current.answer({ kind: 'one', option: wrong }));
    expect(result.current.tally).toEqual({ [FIRST.options[wrong]!.change!]: 1 });
    act(() => result.current.markPlayed());
    act(() => result.current.next());
    expect([result.current.at, result.current.played, result.current.opened, result.current.said]).toEqual([
      1,
      0,
      0,
      undefined,
    ]);
    act(() => result.current.answer({ kind: 'one', option: SECOND.answer }));
    act(() => result.current.next());
    expect([result.current.question, result.current.right]).toEqual([undefined, 1]);
    act(() => result.current.next());
    expect(again).toHaveBeenCalledOnce();
  });
});

describe('cards', () => {
  const row = (text = '4/4 q q e e q | h (h)', size: 'measures' | 'cells' = 'measures') =>
    renderHook(() => useCards(patternOf(text), size, vocabularyOf(['quarter', 'half'], COMMON_TIME))).result;
  const texts = (result: ReturnType<typeof row>) => printRhythm(result.current.pattern!);
  const run = (result: ReturnType<typeof row>, key: string) =>
    act(() => result.current.actions.find((action) => action.key === key)!.run());
  it('are moved, swapped, doubled, taken away; undone one by one', () => {
    const result = row();
    const first = texts(result);
    const count = result.current.cards.length;
    run(result, 'w');
    expect(texts(result)).not.toBe(first);
    run(result, 'z');
    expect(texts(result)).toBe(first);
    run(result, 'd');
    expect([result.current.cards.length, result.current.current]).toEqual([count + 1, 1]);
    run(result, 'Backspace');
    expect(texts(result)).toBe(first);
    act(() => result.current.move(0, 1));
    expect([result.current.current, texts(result) !== first]).toEqual([1, true]);
    act(() => result.current.move(1, 9));
    expect(result.current.current).toBe(1);
    run(result, 'r');
    expect(texts(result)).toContain('(');
    run(result, 'b');
  });
  it('the last card stays, and there is nothing before the first to go back to', () => {
    const result = row('4/4 q q h');
    for (let i = 0; i < 9; i++) run(result, 'Backspace');
    expect(result.current.cards).toHaveLength(1);
    for (let i = 0; i < 12; i++) run(result, 'z');
    expect(result.current.cards.length).toBeGreaterThanOrEqual(1);
    act(() => result.current.choose(99));
    expect(result.current.current).toBe(result.current.cards.length - 1);
  });
  it('one thing is changed with what the class has met', () => {
    const result = row();
    const before = texts(result);
    run(result, 'c');
    expect(texts(result)).not.toBe(before);
    expect(result.current.trouble).toBe('');
  });
});

const meter = (() => {
  const read = parseMeter('4/4');
  if (!read.ok) throw new Error('4/4');
  return read.meter;
})();
const SETTINGS: EarSettings = {
  schoolClass: undefined,
  voice: voiceOf(undefined),
  meter,
  meterName: '4/4',
  setMeter: () => undefined,
  bpm: 80,
  setBpm: () => undefined,
  met: ['quarter', 'eighth-pair', 'quarter-rest', 'half'],
  setMet: () => undefined,
  ownMet: false,
};
const heard = () => act(() => hearing.ends.at(-1)!());

describe('an echo', () => {
  const turn = (last = false) => {
    const onDone = vi.fn();
    const pattern = patternOf('4/4 q q h');
    mount(
      <EchoTurn {...{ pattern, last, onDone }} plays={2} mic={false} settings={SETTINGS} step="" judge={() => true} />,
    );
    return onDone;
  };
  it('is heard, then counted note by note, then goes on as if it went well', () => {
    const onDone = turn();
    press(' ');
    expect(hearing.plays).toEqual([2]);
    press(' ');
    expect(hearing.plays).toHaveLength(1);
    heard();
    for (let note = 0; note < 3; note++) {
      expect(screen.getByRole('button', { name: /Show the next count/ })).toBeTruthy();
      press(' ');
    }
    expect(onDone).not.toHaveBeenCalled();
    press(' ');
    expect(onDone).toHaveBeenCalledExactlyOnceWith(true);
  });
  it.each([
    ['g', true],
    ['s', false],
  ])('%s says how it went: %s', (key, well) => {
    const onDone = turn();
    press(key);
    expect(onDone).not.toHaveBeenCalled();
    press(' ');
    heard();
    press(key);
    expect(onDone).toHaveBeenCalledExactlyOnceWith(well);
  });
  it('is heard again, and all counts are shown at once', () => {
    const onDone = turn(true);
    press(' ');
    heard();
    press('Enter');
    expect(screen.getByRole('button', { name: /The next one/ })).toBeTruthy();
    press('a');
    expect([hearing.plays.length, onDone.mock.calls.length]).toEqual([2, 0]);
  });
});

describe('a chain of echoes', () => {
  const step = () => Number(/Step (\d+) of/.exec(document.querySelector('.question-number')!.textContent)![1]);
  const echo = (key: 'g' | 's') => {
    press(' ');
    heard();
    press(key);
  };
  it('is a step harder after what went well, as hard after what did not, and counts both', () => {
    new FakeServer();
    mount(<EchoView settings={SETTINGS} />);
    expect(step()).toBe(1);
    echo('g');
    expect(step()).toBe(2);
    echo('s');
    expect(step()).toBeLessThanOrEqual(2);
    const before = step();
    echo('s');
    expect(step()).toBeLessThanOrEqual(before);
    expect(screen.getByText('1 of 3 went well')).toBeTruthy();
  });
  it('plays as often as is chosen, and begins at the step that is typed', () => {
    new FakeServer();
    mount(<EchoView settings={SETTINGS} />);
    click(/Played 3 times|Played three times/);
    fireEvent.change(screen.getByLabelText(/^Step/), { target: { value: '3' } });
    expect(step()).toBe(3);
    press(' ');
    expect(hearing.plays).toEqual([3]);
  });
});
